package org.mendedleaf.cli;

import java.io.PrintWriter;
import java.time.Duration;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;

/** Progress as one line of a terminal that is written over; silent when nobody sits there. */
final class TerminalProgress implements Progress, AutoCloseable {

    private static final long EVERY_NANOS = Duration.ofMillis(200).toNanos();

    private final PrintWriter err;
    private final boolean visible;
    private final Job job;
    private volatile long last;
    private boolean shown;

    TerminalProgress(PrintWriter err) {
        this.err = err;
        this.visible = Boolean.getBoolean("mendedleaf.terminal");
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
        last = now;
        shown = true;
        Job.Snapshot s = job.snapshot();
        Duration left = s.left();
        String text = Words.of(
                "cli.progress",
                s.step(),
                Say.number(s.files()),
                Say.number(s.allFiles()),
                Say.size(s.bytes()),
                Say.size(s.rate()),
                left == null ? "" : Say.duration(left));
        err.print("\r" + text + "\u001b[K");
        err.flush();
    }

    @Override
    public synchronized void close() {
        if (shown) {
            err.print("\r\u001b[K");
            err.flush();
        }
    }
}
