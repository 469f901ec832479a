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
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import org.mendedleaf.core.recovery.Failures;

/** Work off the thread of the screen, and its results back on it. */
public final class Background implements AutoCloseable {

    private static final int WORKERS = 3;

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

    /** Results are handed over on {@code screen}. */
    public Background(Executor screen) {
        this.screen = screen;
    }

    /** Does something, and hands its result or its error to the screen. */
    public <T> void run(Callable<T> work, Consumer<T> done, Consumer<Exception> failed) {
        workers.execute(() -> {
            try {
                T result = work.call();
                screen.execute(() -> done.accept(result));
            } catch (Exception | Error thrown) {
                Exception e = Failures.exception(thrown);
                org.slf4j.LoggerFactory.getLogger(Background.class).warn("background work failed", e);
                screen.execute(() -> failed.accept(e));
            }
        });
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

    /** A question that is asked again and again, of which only the newest answer counts. */
    public final class Newest {
        private final AtomicLong asked = new AtomicLong();

        /** Asks; an answer to an earlier question that comes later is dropped. */
        public <T> void ask(Callable<T> work, Consumer<T> done, Consumer<Exception> failed) {
            long mine = asked.incrementAndGet();
            workers.execute(() -> {
                if (mine != asked.get()) {
                    return;
                }
                try {
                    T result = work.call();
                    screen.execute(() -> {
                        if (mine == asked.get()) {
                            done.accept(result);
                        }
                    });
                } catch (Exception | Error thrown) {
                    Exception e = Failures.exception(thrown);
                    org.slf4j.LoggerFactory.getLogger(Background.class).warn("background work failed", e);
                    screen.execute(() -> {
                        if (mine == asked.get()) {
                            failed.accept(e);
                        }
                    });
                }
            });
        }

        /** Lets go of what was asked. */
        public void drop() {
            asked.incrementAndGet();
        }
    }

    @Override
    public void close() {
        ticks.shutdownNow();
        workers.shutdownNow();
    }
}
