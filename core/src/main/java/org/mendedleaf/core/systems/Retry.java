package org.mendedleaf.core.systems;

import java.time.Duration;
import java.util.concurrent.ThreadLocalRandom;

/**
 * How often something is tried, and how long is waited in between: each time about twice as long, with some chance in it
 * so that several clients do not come back at once (exponential back-off with jitter).
 *
 * @param attempts at least 1
 * @param first the first wait
 * @param most the longest wait
 * @param patience how long an answer may take to come, and to go on
 * @param budget how much of a listing is taken
 */
public record Retry(int attempts, Duration first, Duration most, Duration patience, Budget budget) {

    /** One that takes as much of a listing as the program does. */
    public Retry(int attempts, Duration first, Duration most, Duration patience) {
        this(attempts, first, most, patience, Budget.DEFAULT);
    }

    /** For work in the background and on the command line. */
    public static final Retry DEFAULT =
            new Retry(6, Duration.ofMillis(100), Duration.ofSeconds(3), Duration.ofSeconds(30));

    /** How long to wait after an attempt that failed, by its number from 0. */
    Duration pause(int attempt) {
        long millis = Math.min(most.toMillis(), first.toMillis() << Math.min(attempt, 20));
        return Duration.ofMillis(millis / 2 + ThreadLocalRandom.current().nextLong(millis / 2 + 1));
    }

    public void sleep(int attempt) throws java.io.InterruptedIOException {
        try {
            Thread.sleep(pause(attempt).toMillis());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new java.io.InterruptedIOException();
        }
    }
}
