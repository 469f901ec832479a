package org.mendedleaf.core.jobs;

import java.io.InterruptedIOException;
import java.util.function.BooleanSupplier;
import org.mendedleaf.core.words.Words;

/** What a long piece of work tells while it goes on, and where it hears that it should stop. Safe for several threads. */
public interface Progress {

    /** Tells nobody and never stops. */
    Progress NONE = new Progress() {};

    /** Tells nobody and stops when something else ends, as a program that is closed. */
    static Progress until(BooleanSupplier ending) {
        return new Progress() {
            @Override
            public boolean isCancelled() {
                return ending.getAsBoolean();
            }
        };
    }

    /** What is going on now, as a message; {@code files} and {@code bytes} are what there is to do in all. */
    default void begin(String step, long files, long bytes) {}

    /** So much more is done. */
    default void advance(long files, long bytes) {}

    /** Whether somebody asked to stop; what is done then stays done. Waits here while the work is paused. */
    default boolean isCancelled() {
        return false;
    }

    /**
     * Goes on unless somebody asked to stop.
     *
     * @throws InterruptedIOException when somebody did, in words
     */
    default void stopIfCancelled() throws InterruptedIOException {
        if (isCancelled()) {
            throw new InterruptedIOException(Words.of("restore.cancelled"));
        }
    }
}
