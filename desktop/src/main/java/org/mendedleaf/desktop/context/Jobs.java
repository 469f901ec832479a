package org.mendedleaf.desktop.context;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;

/**
 * Long work, one after the other, and beside it what goes on by itself. Each is shown, paused and cancelled on its own, also
 * while it waits for its turn.
 */
public final class Jobs implements AutoCloseable {

    private final ExecutorService line = Executors.newSingleThreadExecutor(r -> {
        Thread thread = new Thread(r, "jobs");
        thread.setDaemon(true);
        return thread;
    });
    private final Background background;
    private final ReadOnlyObjectWrapper<List<Shown>> all = new ReadOnlyObjectWrapper<>(List.of());
    private final AtomicBoolean told = new AtomicBoolean();

    /** What somebody asked for, in the order in which it is done. */
    private final List<Job> asked = new CopyOnWriteArrayList<>();

    /** What goes on by itself. */
    private final List<Job> byItself = new CopyOnWriteArrayList<>();

    Jobs(Background background) {
        this.background = background;
    }

    /** Some long work. */
    @FunctionalInterface
    public interface Work<T> {
        T run(Progress progress) throws Exception;
    }

    /**
     * A job as it was a moment ago.
     *
     * @param job to be paused or cancelled
     * @param now how far it is
     */
    public record Shown(Job job, Job.Snapshot now) {}

    /**
     * Queues some work; its result or error is handed over on the thread of the screen. One that is cancelled while it waits
     * is begun all the same, and finds that out at once.
     */
    public <T> Job start(String title, Work<T> work, Consumer<T> done, Consumer<Exception> failed) {
        Job job = new Job(title, this::changed);
        asked.add(job);
        changed();
        line.execute(() -> {
            job.enter(Job.State.RUNNING);
            try {
                T result = work.run(job);
                end(job, Job.State.DONE);
                background.onScreen(() -> done.accept(result));
            } catch (Exception | Error thrown) {
                Exception e = Failures.exception(thrown);
                org.slf4j.LoggerFactory.getLogger(Jobs.class).warn("{} failed", title, e);
                end(job, Job.State.FAILED);
                background.onScreen(() -> failed.accept(e));
            }
        });
        return job;
    }

    /** A job that some other thread carries out, such as a capture that the folder itself asked for. */
    Job begin(String title) {
        Job job = new Job(title, this::changed);
        byItself.add(job);
        job.enter(Job.State.RUNNING);
        return job;
    }

    /** Ends what {@link #begin} began. */
    void end(Job job, Job.State state) {
        job.enter(state);
        asked.remove(job);
        byItself.remove(job);
        changed();
    }

    /** Tells the screen, but not more often than it can look. */
    private void changed() {
        if (told.compareAndSet(false, true)) {
            background.onScreen(() -> {
                told.set(false);
                all.set(Stream.concat(asked.stream(), byItself.stream())
                        .map(j -> new Shown(j, j.snapshot()))
                        .toList());
            });
        }
    }

    /** All jobs that run or wait: those that somebody asked for in their order, then those that go on by themselves. */
    public ReadOnlyObjectProperty<List<Shown>> allProperty() {
        return all.getReadOnlyProperty();
    }

    /** Number of jobs that somebody asked for and that are queued or running. */
    public int waiting() {
        return asked.size();
    }

    @Override
    public void close() {
        asked.forEach(Job::cancel);
        byItself.forEach(Job::cancel);
        line.shutdown();
        try {
            line.awaitTermination(10, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
