package org.mendedleaf.cli.base;

import java.io.PrintWriter;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Progress as one line of a terminal that is written over; silent when nobody sits there. */
public final class TerminalProgress implements Progress, AutoCloseable {

    /** The property that says whether somebody sees it. */
    public static final String VISIBLE = "mendedleaf.terminal";

    private static final long EVERY_NANOS = Duration.ofMillis(200).toNanos();

    private final PrintWriter err;
    private final boolean visible;
    private final Job job;
    private volatile long last;
    private boolean shown;

    public TerminalProgress(PrintWriter err) {
        this.err = err;
        this.visible = Boolean.getBoolean(VISIBLE);
        this.job = new Job("", this::show);
        job.enter(Job.State.RUNNING);
    }

    @Override
    public void begin(String step, long files, long bytes) {
        job.begin(step, files, bytes);
    }

    @Override
    public void advance(long files, long bytes) {
        job.advance(files, bytes);
    }

    private synchronized void show() {
        long now = System.nanoTime();
        if (!visible || now - last < EVERY_NANOS) {
            return;
        }
        String text = text(job.snapshot());
        if (text.isEmpty()) {
            return;
        }
        last = now;
        shown = true;
        err.print("\r" + text + "\u001b[K");
        err.flush();
    }

    /** How far it is; only what is known already, and nothing before a step has a name. */
    public static String text(Job.Snapshot s) {
        Duration left = s.left();
        List<String> parts = new ArrayList<>();
        if (s.allFiles() > 0) {
            parts.add(Words.of("job.files", Formats.number(s.files()), Formats.number(s.allFiles())));
        } else if (s.files() > 0) {
            parts.add(Words.of("cli.progress.files", s.files()));
        }
        if (s.bytes() > 0) {
            parts.add(Formats.size(s.bytes()));
            parts.add(Words.of("job.rate", Formats.size(s.rate())));
        }
        if (left != null) {
            parts.add(Words.of("job.left", Formats.duration(left)));
        }
        return s.step().isEmpty() || parts.isEmpty()
                ? s.step()
                : Words.of("cli.progress", s.step(), String.join(", ", parts));
    }

    @Override
    public synchronized void close() {
        if (shown) {
            err.print("\r\u001b[K");
            err.flush();
        }
    }
}
