package org.mendedleaf.core.jobs;

import java.io.InterruptedIOException;
import java.lang.management.ManagementFactory;

/**
 * Rests between the pieces of work in the background, so that it takes a share of the time only, and a smaller one while the
 * computer is busy with something else.
 */
public final class Rest {

    /** Of a computer whose processors all have work to do, it rests this many times longer. */
    private static final int BUSY = 4;

    private static final long LONGEST_MILLIS = 2000;

    private final int times;

    /**
     * Rests after work.
     *
     * @param times as long as the work took; 0 for not at all
     */
    public Rest(int times) {
        this.times = times;
    }

    /**
     * Rests after a piece of work.
     *
     * @param began when it began, as {@link System#nanoTime} says it
     * @throws InterruptedIOException when this thread is interrupted
     */
    public void after(long began) throws InterruptedIOException {
        if (times == 0) {
            return;
        }
        long worked = (System.nanoTime() - began) / 1_000_000;
        try {
            Thread.sleep(Math.min(LONGEST_MILLIS, worked * times * (isBusy() ? BUSY : 1)));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
    }

    /** By the load of the last minute, where the system says it. */
    private static boolean isBusy() {
        double load = ManagementFactory.getOperatingSystemMXBean().getSystemLoadAverage();
        return load > Runtime.getRuntime().availableProcessors();
    }
}
