package org.mendedleaf.desktop.context;

import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Job;

/** Work off the thread of the screen, and its results back on it. */
public final class Background implements AutoCloseable {

    private static final int WORKERS = 3;
    private static final long LOOK_MILLIS = 50;

    /** So often it is told how far a long question is, first after as long. */
    private static final long TOLD_NANOS = TimeUnit.MILLISECONDS.toNanos(300);

    /** What is closed waits so long for what is being done; it is interrupted. */
    private static final long CLOSE_MILLIS = 1000;

    /** It is quiet when so many looks in a row found nothing to do. */
    private static final int QUIET_LOOKS = 2;

    /** What is asked when all is closed already is let go of. */
    private final ExecutorService workers = new ThreadPoolExecutor(
            WORKERS,
            WORKERS,
            0,
            TimeUnit.SECONDS,
            new LinkedBlockingQueue<>(),
            r -> {
                Thread thread = new Thread(r, "background");
                thread.setDaemon(true);
                return thread;
            },
            new ThreadPoolExecutor.DiscardPolicy());

    /** An animation would have the whole window drawn sixty times a second between two of its ticks; this sleeps. */
    private final ScheduledExecutorService ticks = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "ticks");
        thread.setDaemon(true);
        return thread;
    });

    private final Executor screen;

    /** What is asked, being done, or waits for the screen. */
    private final AtomicInteger open = new AtomicInteger();

    /** Results are handed over on {@code screen}. */
    public Background(Executor screen) {
        this.screen = screen;
    }

    /** Does something, and hands its result or its error to the screen. */
    public <T> void run(Callable<T> work, Consumer<T> done, Consumer<Exception> failed) {
        execute(() -> {
            try {
                T result = work.call();
                hand(() -> done.accept(result));
            } catch (Exception | Error thrown) {
                Exception e = Failures.exception(thrown);
                org.slf4j.LoggerFactory.getLogger(Background.class).warn("background work failed", e);
                hand(() -> failed.accept(e));
            }
        });
    }

    private void execute(Runnable work) {
        open.incrementAndGet();
        workers.execute(() -> {
            try {
                work.run();
            } finally {
                open.decrementAndGet();
            }
        });
    }

    private void hand(Runnable result) {
        open.incrementAndGet();
        screen.execute(() -> {
            try {
                result.run();
            } finally {
                open.decrementAndGet();
            }
        });
    }

    /**
     * Runs something on the thread of the screen once nothing is asked or handed over, so that it takes no time from what
     * somebody waits for; after some time in any case.
     */
    public void whenQuiet(Duration most, Runnable work) {
        long end = System.nanoTime() + most.toNanos();
        AtomicReference<Future<?>> looks = new AtomicReference<>();
        AtomicInteger quiet = new AtomicInteger();
        looks.set(ticks.scheduleWithFixedDelay(
                () -> {
                    int times = open.get() == 0 ? quiet.incrementAndGet() : 0;
                    quiet.set(times);
                    Future<?> mine = looks.get();
                    if (mine != null && (times >= QUIET_LOOKS || System.nanoTime() > end)) {
                        mine.cancel(false);
                        screen.execute(work);
                    }
                },
                LOOK_MILLIS,
                LOOK_MILLIS,
                TimeUnit.MILLISECONDS));
    }

    /** Runs something on the thread of the screen. */
    public void onScreen(Runnable work) {
        screen.execute(work);
    }

    /** Runs something on the thread of the screen again and again; what is given back ends that. */
    public Runnable every(Duration time, Runnable work) {
        Future<?> ticking = ticks.scheduleWithFixedDelay(
                () -> screen.execute(work), time.toMillis(), time.toMillis(), TimeUnit.MILLISECONDS);
        return () -> ticking.cancel(false);
    }

    /** Runs something short again and again, off the thread of the screen; what is given back ends that. */
    public Runnable everyAside(Duration time, Runnable work) {
        Future<?> ticking = ticks.scheduleWithFixedDelay(work, time.toMillis(), time.toMillis(), TimeUnit.MILLISECONDS);
        return () -> ticking.cancel(false);
    }

    /** A question that is asked again and again, of which only the newest answer counts. */
    public final class Newest {
        private final AtomicLong asked = new AtomicLong();
        private final AtomicReference<Job> current = new AtomicReference<>();
        private final Object longOnes = new Object();

        /** Asks; an answer to an earlier question that comes later is dropped. */
        public <T> void ask(Callable<T> work, Consumer<T> done, Consumer<Exception> failed) {
            ask(next(), work, done, failed);
        }

        /**
         * As {@link #ask(Callable, Consumer, Consumer)}, for what may take long: when something else is asked it hears that it
         * should stop, and the next one begins when it has.
         *
         * @param told how far it is, on the screen, now and then
         */
        public <T> void ask(
                Jobs.Work<T> work, Consumer<Job.Snapshot> told, Consumer<T> done, Consumer<Exception> failed) {
            long mine = next();
            Told tells = new Told(mine, told);
            Job job = new Job("", tells::changed);
            tells.job.set(job);
            current.set(job);
            ask(
                    mine,
                    () -> {
                        // Two of them may not have the memory at once: the one before ends first.
                        synchronized (longOnes) {
                            return work.run(job);
                        }
                    },
                    done,
                    failed);
        }

        private long next() {
            Job before = current.getAndSet(null);
            if (before != null) {
                before.cancel();
            }
            return asked.incrementAndGet();
        }

        private <T> void ask(long mine, Callable<T> work, Consumer<T> done, Consumer<Exception> failed) {
            execute(() -> {
                if (mine != asked.get()) {
                    return;
                }
                try {
                    T result = work.call();
                    hand(() -> {
                        if (mine == asked.get()) {
                            done.accept(result);
                        }
                    });
                } catch (Exception | Error thrown) {
                    Exception e = Failures.exception(thrown);
                    if (mine != asked.get()) {
                        return;
                    }
                    org.slf4j.LoggerFactory.getLogger(Background.class).warn("background work failed", e);
                    hand(() -> {
                        if (mine == asked.get()) {
                            failed.accept(e);
                        }
                    });
                }
            });
        }

        /** Lets go of what was asked. */
        public void drop() {
            next();
        }

        /** Tells the screen how far a question is, unless another one was asked. */
        private final class Told {
            private final long mine;
            private final Consumer<Job.Snapshot> told;
            private final AtomicReference<Job> job = new AtomicReference<>();
            private final AtomicLong last = new AtomicLong(System.nanoTime());

            Told(long mine, Consumer<Job.Snapshot> told) {
                this.mine = mine;
                this.told = told;
            }

            void changed() {
                long now = System.nanoTime();
                long before = last.get();
                Job its = job.get();
                if (its == null || now - before < TOLD_NANOS || !last.compareAndSet(before, now)) {
                    return;
                }
                hand(() -> {
                    if (mine == asked.get()) {
                        told.accept(its.snapshot());
                    }
                });
            }
        }
    }

    @Override
    public void close() {
        ticks.shutdownNow();
        workers.shutdownNow();
        try {
            // What is read from is closed next.
            if (!workers.awaitTermination(CLOSE_MILLIS, TimeUnit.MILLISECONDS)) {
                org.slf4j.LoggerFactory.getLogger(Background.class).info("background work does not end");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
