package org.mendedleaf.desktop.context;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.recovery.Failures;

/** Long work, one after the other, with the running one for the status bar to show. */
public final class Jobs implements AutoCloseable {

    private final ExecutorService line = Executors.newSingleThreadExecutor(r -> {
        Thread thread = new Thread(r, "jobs");
        thread.setDaemon(true);
        return thread;
    });
    private final Background background;
    private final ReadOnlyObjectWrapper<Job.@Nullable Snapshot> current = new ReadOnlyObjectWrapper<>();
    private final AtomicBoolean told = new AtomicBoolean();
    private final AtomicInteger waiting = new AtomicInteger();
    private volatile @Nullable Job running;

    Jobs(Background background) {
        this.background = background;
    }

    /** Some long work. */
    @FunctionalInterface
    public interface Work<T> {
        T run(Progress progress) throws Exception;
    }

    /** Queues some work; its result or error is handed over on the thread of the screen. */
    public <T> void start(String title, Work<T> work, Consumer<T> done, Consumer<Exception> failed) {
        waiting.incrementAndGet();
        line.execute(() -> {
            Job job = begin(title);
            try {
                T result = work.run(job);
                end(job, Job.State.DONE);
                background.onScreen(() -> done.accept(result));
            } catch (Exception | Error thrown) {
                Exception e = Failures.exception(thrown);
                org.slf4j.LoggerFactory.getLogger(Jobs.class).warn("{} failed", title, e);
                end(job, Job.State.FAILED);
                background.onScreen(() -> failed.accept(e));
            } finally {
                waiting.decrementAndGet();
            }
        });
    }

    /** A job that some other thread carries out, such as a capture that the folder itself asked for. */
    Job begin(String title) {
        Job job = new Job(title, this::changed);
        running = job;
        job.enter(Job.State.RUNNING);
        return job;
    }

    /** Ends what {@link #begin} began. */
    void end(Job job, Job.State state) {
        job.enter(state);
        if (running == job) {
            running = null;
        }
        changed();
    }

    /** Tells the screen, but not more often than it can look. */
    private void changed() {
        if (told.compareAndSet(false, true)) {
            background.onScreen(() -> {
                told.set(false);
                Job job = running;
                current.set(job == null ? null : job.snapshot());
            });
        }
    }

    /** The running job as it was a moment ago; null when none runs. */
    public ReadOnlyObjectProperty<Job.@Nullable Snapshot> currentProperty() {
        return current.getReadOnlyProperty();
    }

    /** Number of jobs that are queued or running. */
    public int waiting() {
        return waiting.get();
    }

    /** Asks the running job to stop. */
    public void cancel() {
        Job job = running;
        if (job != null) {
            job.cancel();
        }
    }

    /** Lets the running job wait, or go on. */
    public void pause(boolean pause) {
        Job job = running;
        if (job != null) {
            job.pause(pause);
        }
    }

    @Override
    public void close() {
        cancel();
        line.shutdown();
        try {
            line.awaitTermination(10, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
