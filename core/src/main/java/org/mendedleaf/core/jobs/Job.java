package org.mendedleaf.core.jobs;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;

/**
 * A long piece of work as others see it: its progress by files and bytes, its rate and the time left, and the ways to
 * pause and to cancel it. Safe for several threads.
 */
public final class Job implements Progress {

    /** States of a job. */
    public enum State {
        /** It waits for its turn. */
        WAITING,
        /** It is at work. */
        RUNNING,
        /** Somebody paused it. */
        PAUSED,
        /** It came to its end. */
        DONE,
        /** It was cancelled; what it had done stays. */
        CANCELLED,
        /** It ended with an error. */
        FAILED
    }

    private final String title;
    private final Runnable changed;
    private final AtomicLong files = new AtomicLong();
    private final AtomicLong bytes = new AtomicLong();
    private volatile State state = State.WAITING;
    private volatile String step = "";
    private volatile long allFiles;
    private volatile long allBytes;
    private final LongSupplier nanos;
    private volatile long stepNanos;
    private long pausedNanos;
    private volatile boolean cancelled;

    /**
     * A job that waits.
     *
     * @param title in words
     * @param changed called after each change, from whatever thread made it; must return quickly
     */
    public Job(String title, Runnable changed) {
        this(title, changed, System::nanoTime);
    }

    Job(String title, Runnable changed, LongSupplier nanos) {
        this.title = title;
        this.changed = changed;
        this.nanos = nanos;
        stepNanos = nanos.getAsLong();
    }

    /**
     * What is done so far, at one moment.
     *
     * @param running how long this step has been going on, without pauses
     */
    public record Snapshot(
            String title,
            String step,
            State state,
            long files,
            long allFiles,
            long bytes,
            long allBytes,
            Duration running) {

        /** Share that is done, 0 to 1; negative while nobody knows. By bytes where there are any, else by files. */
        public double share() {
            if (allBytes > 0) {
                return Math.min(1, (double) bytes / allBytes);
            }
            return allFiles > 0 ? Math.min(1, (double) files / allFiles) : -1;
        }

        /** Bytes per second since this step began. */
        public long rate() {
            long millis = Math.max(1, running.toMillis());
            return bytes * 1000 / millis;
        }

        /** Time left at this rate, if it can be told. */
        public @Nullable Duration left() {
            double share = share();
            if (share <= 0.01 || running.toMillis() < 500) {
                return null;
            }
            return Duration.ofMillis((long) (running.toMillis() * (1 - share) / share));
        }
    }

    /** What is done so far. */
    public Snapshot snapshot() {
        long since = (state == State.PAUSED ? pausedNanos() : nanos.getAsLong()) - stepNanos;
        return new Snapshot(title, step, state, files.get(), allFiles, bytes.get(), allBytes, Duration.ofNanos(since));
    }

    private synchronized long pausedNanos() {
        return pausedNanos;
    }

    /** Enters a state. */
    public synchronized void enter(State next) {
        long now = nanos.getAsLong();
        if (state == State.WAITING) {
            stepNanos = now;
        } else if (state == State.PAUSED) {
            stepNanos += now - pausedNanos;
        }
        pausedNanos = now;
        state = next;
        notifyAll();
        changed.run();
    }

    @Override
    public void begin(String nowDoing, long toDoFiles, long toDoBytes) {
        step = nowDoing;
        allFiles = toDoFiles;
        allBytes = toDoBytes;
        files.set(0);
        bytes.set(0);
        stepNanos = nanos.getAsLong();
        changed.run();
    }

    @Override
    public void advance(long moreFiles, long moreBytes) {
        files.addAndGet(moreFiles);
        bytes.addAndGet(moreBytes);
        changed.run();
    }

    /** Asks the work to stop at the next chance. */
    public synchronized void cancel() {
        cancelled = true;
        notifyAll();
        changed.run();
    }

    /** Lets the work wait, or go on. */
    public void pause(boolean pause) {
        if (state == State.RUNNING || state == State.PAUSED) {
            enter(pause ? State.PAUSED : State.RUNNING);
        }
    }

    @Override
    public boolean isCancelled() {
        if (state == State.PAUSED) {
            waitWhilePaused();
        }
        return cancelled;
    }

    private synchronized void waitWhilePaused() {
        try {
            while (state == State.PAUSED && !cancelled) {
                wait();
            }
        } catch (InterruptedException e) {
            cancelled = true;
            Thread.currentThread().interrupt();
        }
    }
}
