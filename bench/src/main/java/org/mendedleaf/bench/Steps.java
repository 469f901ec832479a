package org.mendedleaf.bench;

import java.util.Arrays;
import java.util.Locale;

/** Rows of a table, each with the time that a step took and the most memory that was in use meanwhile. */
final class Steps {

    private static final int ASKED = 300;

    private volatile long used;

    /** Something that is measured. */
    interface Step {
        void run() throws Exception;
    }

    Steps() {
        Thread looks = new Thread(() -> {
            while (true) {
                look();
                java.util.concurrent.locks.LockSupport.parkNanos(20_000_000);
            }
        });
        looks.setDaemon(true);
        looks.start();
    }

    /** The head of the table. */
    void head() {
        System.out.println("| measure | time | heap in use at most, of 1 GB | bound | |");
        System.out.println("|---|---|---|---|---|");
    }

    /**
     * Runs it once.
     *
     * @param most milliseconds that it may take; 0 where there is no bound
     */
    void once(String name, double most, Step step) throws Exception {
        resetPeak();
        long start = System.nanoTime();
        step.run();
        row(name, (System.nanoTime() - start) / 1e6, most);
    }

    /** Asks many times; the time within which 95 of 100 are answered. */
    void often(String name, double most, Step step) throws Exception {
        resetPeak();
        double[] all = new double[ASKED];
        for (int i = 0; i < all.length; i++) {
            long start = System.nanoTime();
            step.run();
            all[i] = (System.nanoTime() - start) / 1e6;
        }
        Arrays.sort(all, ASKED / 3, ASKED);
        row(name + ", 95 of 100", all[ASKED * 29 / 30], most);
    }

    private void row(String name, double millis, double most) {
        System.out.printf(
                Locale.ROOT,
                "| %s | %s | %.0f MB | %s | %s |%n",
                name,
                millis < 1000 ? "%.3g ms".formatted(millis) : "%.1f s".formatted(millis / 1000),
                peak() / 1e6,
                most == 0 ? "-" : "< %.0f ms".formatted(most),
                most == 0 ? "" : millis < most ? "met" : "missed");
    }

    private void resetPeak() {
        System.gc();
        used = 0;
    }

    private double peak() {
        look();
        return used;
    }

    /** What is in use, garbage that was not collected yet included. */
    private void look() {
        Runtime runtime = Runtime.getRuntime();
        used = Math.max(used, runtime.totalMemory() - runtime.freeMemory());
    }
}
