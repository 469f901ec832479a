package org.mendedleaf.desktop.context;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;

/** Several jobs at once: each has its own progress, pause and cancel. */
class JobsTest {

    private final Background background = new Background(Runnable::run);
    private final Jobs jobs = new Jobs(background);
    private final List<String> ended = Collections.synchronizedList(new ArrayList<>());
    private final CountDownLatch go = new CountDownLatch(1);

    @AfterEach
    void end() {
        go.countDown();
        jobs.close();
        background.close();
    }

    private Job start(String title) {
        return jobs.start(
                title,
                this::untilCancelled,
                words -> ended.add(title + " " + words),
                e -> ended.add(title + " failed: " + e.getMessage()));
    }

    private String untilCancelled(Progress progress) throws InterruptedException {
        progress.begin("step", 10, 0);
        progress.advance(3, 0);
        while (!progress.isCancelled() && !go.await(1, TimeUnit.MILLISECONDS)) {
            Thread.onSpinWait();
        }
        return progress.isCancelled() ? "cancelled" : "done";
    }

    private static void until(String what, BooleanSupplier holds) throws InterruptedException {
        for (int i = 0; i < 5000 && !holds.getAsBoolean(); i++) {
            Thread.sleep(2);
        }
        assertThat(holds.getAsBoolean()).as(what).isTrue();
    }

    private List<String> titles() {
        return jobs.allProperty().get().stream().map(s -> s.now().title()).toList();
    }

    private Job.State state(String title) {
        return jobs.allProperty().get().stream()
                .filter(s -> s.now().title().equals(title))
                .map(s -> s.now().state())
                .findFirst()
                .orElse(Job.State.DONE);
    }

    @Test
    void whatGoesOnByItselfNeitherHidesNorEndsWhatSomebodyAskedFor() throws Exception {
        Job restore = start("Restore");
        until("it runs", () -> state("Restore") == Job.State.RUNNING);
        Job capture = jobs.begin("Capture");
        until("both", () -> titles().equals(List.of("Restore", "Capture")));
        jobs.end(capture, Job.State.DONE);
        until("the restore is still shown", () -> titles().equals(List.of("Restore")));
        restore.cancel();
        until("its end", () -> ended.contains("Restore cancelled"));
        until("none", () -> titles().isEmpty());
    }

    @Test
    void cancellingOneLetsTheOthersGoOn() throws Exception {
        start("Restore");
        Job capture = jobs.begin("Capture");
        until("both", () -> titles().size() == 2);
        capture.cancel();
        assertThat(capture.isCancelled()).isTrue();
        until("the restore goes on", () -> state("Restore") == Job.State.RUNNING);
        go.countDown();
        until("its end", () -> ended.contains("Restore done"));
    }

    @Test
    void whatWaitsIsShownAndCanBeCancelledBeforeItsTurn() throws Exception {
        start("First");
        Job second = start("Second");
        until("both", () -> titles().equals(List.of("First", "Second")));
        assertThat(state("Second")).isEqualTo(Job.State.WAITING);
        assertThat(jobs.waiting()).isEqualTo(2);
        second.cancel();
        go.countDown();
        until("both ends", () -> ended.size() == 2);
        assertThat(ended).containsExactly("First done", "Second cancelled");
    }

    @Test
    void oneThatFailsSaysSoAndTheNextOneBegins() throws Exception {
        jobs.start(
                "Bad",
                p -> {
                    throw new IllegalStateException("broken");
                },
                x -> ended.add("Bad done"),
                e -> ended.add(String.valueOf(e.getMessage())));
        start("Next");
        go.countDown();
        until("both ends", () -> ended.size() == 2);
        assertThat(ended).containsExactly("broken", "Next done");
        assertThat(jobs.waiting()).isZero();
    }

    @Test
    void aScreenPausesAndCancelsItsOwnJobAndNoOther() throws Exception {
        OwnJob own = new OwnJob(jobs);
        assertThat(own.progressProperty().get()).isNull();
        own.cancel();
        own.pauseOrGoOn();
        own.start("Own", this::untilCancelled, words -> ended.add("Own " + words), e -> ended.add("failed"));
        Job capture = jobs.begin("Capture");
        until("its progress", () -> {
            Job.Snapshot now = own.progressProperty().get();
            return now != null && now.title().equals("Own") && now.files() == 3;
        });
        own.pauseOrGoOn();
        until("it rests", () -> state("Own") == Job.State.PAUSED);
        assertThat(state("Capture")).isEqualTo(Job.State.RUNNING);
        own.pauseOrGoOn();
        until("it goes on", () -> state("Own") == Job.State.RUNNING);
        own.cancel();
        until("its end", () -> ended.contains("Own cancelled"));
        assertThat(capture.isCancelled()).isFalse();
        until("no progress of others", () -> own.progressProperty().get() == null);
    }

    @Test
    void closingCancelsAllOfThem() throws Exception {
        start("Restore");
        Job capture = jobs.begin("Capture");
        until("both", () -> titles().size() == 2);
        jobs.close();
        assertThat(capture.isCancelled()).isTrue();
        assertThat(ended).containsExactly("Restore cancelled");
    }
}
