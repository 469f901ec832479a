package org.mendedleaf.desktop.context;

import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.jobs.Job;

/** The job that a screen started: its progress, and pausing and cancelling it and no other. */
public final class OwnJob {

    private final Jobs jobs;
    private final ReadOnlyObjectWrapper<Job.@Nullable Snapshot> progress = new ReadOnlyObjectWrapper<>();

    /** Jobs outlive screens, so they know of them by this only. */
    private final ChangeListener<List<Jobs.Shown>> listener = (o, a, all) -> show(all);

    private @Nullable Job job;

    /** None yet. */
    public OwnJob(Jobs jobs) {
        this.jobs = jobs;
        jobs.allProperty().addListener(new WeakChangeListener<>(listener));
    }

    /** Queues some work; from now on it is this. As {@link Jobs#start}. */
    public <T> void start(String title, Jobs.Work<T> work, Consumer<T> done, Consumer<Exception> failed) {
        job = jobs.start(title, work, done, failed);
    }

    private void show(List<Jobs.Shown> all) {
        progress.set(all.stream()
                .filter(s -> s.job() == job)
                .map(Jobs.Shown::now)
                .findFirst()
                .orElse(null));
    }

    /** How far it is; null when it neither waits nor runs. */
    public ReadOnlyObjectProperty<Job.@Nullable Snapshot> progressProperty() {
        return progress.getReadOnlyProperty();
    }

    /** Asks it to stop. */
    public void cancel() {
        Job now = job;
        if (now != null) {
            now.cancel();
        }
    }

    /** Lets it wait, or go on when it waits. */
    public void pauseOrGoOn() {
        Job now = job;
        if (now != null) {
            now.pause(now.snapshot().state() != Job.State.PAUSED);
        }
    }
}
