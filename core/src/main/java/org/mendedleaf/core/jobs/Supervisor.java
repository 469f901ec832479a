package org.mendedleaf.core.jobs;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Runs duties that never end, each on a thread of its own: round after round, with the pause in between that the duty asks
 * for. Whatever goes wrong in a round, of what was expected to go wrong or not, is told and tried again, the sooner the fewer
 * times it went wrong in a row. No failure ends a duty; only closing does.
 *
 * <pre>{@code
 * try (Supervisor supervisor = new Supervisor(Supervisor.Backoff.DEFAULT, hearer)) {
 *     supervisor.add(duty);
 * }
 * }</pre>
 */
public final class Supervisor implements AutoCloseable {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(Supervisor.class);
    private static final long CLOSE_MILLIS = 5_000;
    private static final int REST = 20;
    private static final Duration REST_MOST = Duration.ofMinutes(5);

    private final Backoff backoff;
    private final Hearer hearer;
    private final Map<String, Runner> runners = new LinkedHashMap<>();
    private boolean closed;

    /**
     * How long it takes until something that failed is tried again.
     *
     * @param first after the first failure in a row; after each further one twice as long
     * @param longest but no longer than that
     */
    public record Backoff(Duration first, Duration longest) {

        /** From five seconds to five minutes. */
        public static final Backoff DEFAULT = new Backoff(Duration.ofSeconds(5), Duration.ofMinutes(5));

        Duration after(int failures) {
            long factor = 1L << Math.min(30, Math.max(0, failures - 1));
            Duration wanted = first.multipliedBy(factor);
            return wanted.compareTo(longest) > 0 ? longest : wanted;
        }
    }

    /** Something to be done again and again. */
    public interface Duty {
        /** What it is, as a message; no two of one supervisor have the same. */
        String name();

        /**
         * Does what is due.
         *
         * @return how long to wait before the next round
         */
        Duration round(Breath breath) throws Exception;
    }

    /**
     * How long a duty rests that worked so long on what somebody changed, where each change makes it go through much that was not
     * changed: while one save follows the other it may not take the processor all day.
     *
     * @param usual no less than that
     * @return twenty times as long as it worked, and no more than five minutes
     */
    public static Duration rest(Duration worked, Duration usual) {
        Duration wanted = worked.multipliedBy(REST);
        Duration most = wanted.compareTo(REST_MOST) > 0 ? REST_MOST : wanted;
        return most.compareTo(usual) < 0 ? usual : most;
    }

    /** What a duty is told while it works. */
    public interface Breath {
        /** Whether it should come to its end. */
        boolean isEnding();

        /** Waits; returns early when it should come to its end. */
        void pause(Duration time) throws InterruptedException;

        /** Says that the round goes well, where it goes on for long after that: what failed before it fails no more. */
        default void goesWell() {}

        /**
         * Says what wakes a duty that waits for something else than a pause when it should come to its end; called from the thread of who
         * ends it, at once where it is ending already. Another one takes the place of the one before.
         */
        default void wakeBy(Runnable wake) {}
    }

    /** Hears how duties go; called from their threads. */
    public interface Hearer {
        /**
         * A round failed.
         *
         * @param failures how many did in a row
         * @param again after how long it is tried again
         */
        void failed(Duty duty, Throwable why, int failures, Duration again);

        /** A round went well after others had failed. */
        void recovered(Duty duty);

        /** A duty is none any more, however it went. */
        default void ended(Duty duty) {}
    }

    /** A supervisor with nothing to do yet. */
    public Supervisor(Backoff backoff, Hearer hearer) {
        this.backoff = backoff;
        this.hearer = hearer;
    }

    /** Begins a duty. */
    public synchronized void add(Duty duty) {
        if (closed) {
            return;
        }
        Runner runner = new Runner(duty);
        if (runners.putIfAbsent(duty.name(), runner) != null) {
            throw new IllegalArgumentException("expected another name than " + duty.name());
        }
        runner.thread.start();
    }

    /** Ends a duty after its round. */
    public void remove(String name) {
        Runner runner;
        synchronized (this) {
            runner = runners.remove(name);
        }
        if (runner != null) {
            runner.end();
            runner.join();
            runner.tell(() -> hearer.ended(runner.duty));
        }
    }

    /** Names of the duties, in the order in which they began. */
    public synchronized List<String> names() {
        return List.copyOf(runners.keySet());
    }

    private final class Runner implements Runnable, Breath {
        private final Duty duty;
        private final Thread thread;
        private boolean ending;
        private Runnable wake = () -> {};
        /** In a row; only the thread of the duty counts them. */
        private int failures;

        Runner(Duty duty) {
            this.duty = duty;
            this.thread = new Thread(this, duty.name());
            thread.setDaemon(true);
        }

        @Override
        public void run() {
            try {
                while (!isEnding()) {
                    Duration wait;
                    try {
                        wait = duty.round(this);
                        goesWell();
                    } catch (InterruptedException e) {
                        throw e;
                    } catch (Exception | Error e) {
                        failures++;
                        wait = backoff.after(failures);
                        log.warn("{} failed, is tried again in {}", duty.name(), wait, e);
                        int times = failures;
                        Duration again = wait;
                        tell(() -> hearer.failed(duty, e, times, again));
                    }
                    pause(wait);
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }

        @Override
        public void goesWell() {
            if (failures > 0) {
                failures = 0;
                tell(() -> hearer.recovered(duty));
            }
        }

        /** Who hears may fail too. */
        private void tell(Runnable telling) {
            try {
                telling.run();
            } catch (RuntimeException | Error e) {
                log.warn("{}: nobody could be told", duty.name(), e);
            }
        }

        @Override
        public synchronized boolean isEnding() {
            return ending;
        }

        @Override
        public synchronized void pause(Duration time) throws InterruptedException {
            long end = System.nanoTime() + time.toNanos();
            long left = time.toNanos();
            while (!ending && left > 0) {
                wait(left / 1_000_000, (int) (left % 1_000_000));
                left = end - System.nanoTime();
            }
        }

        @Override
        public void wakeBy(Runnable by) {
            boolean now;
            synchronized (this) {
                wake = by;
                now = ending;
            }
            if (now) {
                by.run();
            }
        }

        void end() {
            Runnable by;
            synchronized (this) {
                ending = true;
                by = wake;
                notifyAll();
            }
            by.run();
        }

        void join() {
            try {
                // What is under way comes to the end of its step; nothing acknowledged depends on it.
                thread.join(CLOSE_MILLIS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }

    @Override
    public void close() {
        List<Runner> all;
        synchronized (this) {
            closed = true;
            all = new ArrayList<>(runners.values());
            runners.clear();
        }
        all.forEach(Runner::end);
        all.forEach(Runner::join);
    }
}
