package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.OpenVault;

/** Carries standing rules out and gives room back, whenever that is due. */
public final class RetentionKeeper implements AutoCloseable {

    private static final long ROUND_MILLIS = 60_000;
    private static final long STEP_MILLIS = 100;

    private final Standing standing;
    private final Listener listener;
    private final Thread thread;
    private volatile boolean ended;

    /** Hears what is done; called from the keeper's thread. */
    public interface Listener {
        /** Something was done. */
        void kept(Standing.Done done);

        /** It could not be done now; it is tried again. */
        void failed(IOException why);
    }

    private RetentionKeeper(Standing standing, Listener listener) {
        this.standing = standing;
        this.listener = listener;
        this.thread = new Thread(this::keep, "retention");
        thread.setDaemon(true);
    }

    /** Starts keeping a vault. */
    public static RetentionKeeper start(
            OpenVault vault, Clock clock, String who, Calendar calendar, Listener listener) {
        RetentionKeeper keeper = new RetentionKeeper(new Standing(vault, clock, who, calendar), listener);
        keeper.thread.start();
        return keeper;
    }

    private void keep() {
        try {
            while (!ended) {
                try {
                    if (standing.isDue()) {
                        listener.kept(standing.run(new Stop()));
                    }
                } catch (IOException e) {
                    listener.failed(e);
                }
                for (long waited = 0; waited < ROUND_MILLIS && !ended; waited += STEP_MILLIS) {
                    Thread.sleep(STEP_MILLIS);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Ends a run between two packs. */
    private final class Stop implements Progress {
        @Override
        public void begin(String step, long items, long bytes) {}

        @Override
        public void advance(long items, long bytes) {}

        @Override
        public boolean isCancelled() {
            return ended;
        }
    }

    @Override
    public void close() {
        ended = true;
        try {
            thread.join(5000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
