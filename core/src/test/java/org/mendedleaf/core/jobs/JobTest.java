package org.mendedleaf.core.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class JobTest {

    @Test
    void progressAddsUpAndIsToldEachTime() {
        AtomicInteger told = new AtomicInteger();
        Job job = new Job("capturing", told::incrementAndGet);
        job.enter(Job.State.RUNNING);
        job.begin("reading", 4, 1000);
        job.advance(1, 250);
        job.advance(1, 250);
        Job.Snapshot s = job.snapshot();
        assertThat(s.files()).isEqualTo(2);
        assertThat(s.share()).isEqualTo(0.5);
        assertThat(told.get()).isEqualTo(4);
    }

    @Test
    void whatIsNotCountedHasNoShare() {
        Job job = new Job("looking", () -> {});
        assertThat(job.snapshot().share()).isNegative();
        job.begin("looking", 10, 0);
        job.advance(5, 0);
        assertThat(job.snapshot().share())
                .as("by files where there are no bytes")
                .isEqualTo(0.5);
    }

    @Test
    void rateAndTimeLeftAreThoseOfTheStepWithoutItsPauses() {
        AtomicLong now = new AtomicLong(1);
        Job job = new Job("restoring", () -> {}, now::get);
        seconds(now, 500);
        job.enter(Job.State.RUNNING);
        job.begin("checking", 10, 0);
        seconds(now, 60);
        job.begin("writing", 4, 1_000);
        seconds(now, 10);
        job.advance(1, 250);
        assertThat(job.snapshot().rate()).isEqualTo(25);
        assertThat(job.snapshot().left()).isEqualTo(Duration.ofSeconds(30));
        job.pause(true);
        seconds(now, 100);
        assertThat(job.snapshot().rate()).as("while it is paused").isEqualTo(25);
        job.pause(false);
        assertThat(job.snapshot().left()).isEqualTo(Duration.ofSeconds(30));
        seconds(now, 10);
        job.advance(1, 250);
        assertThat(job.snapshot().left()).isEqualTo(Duration.ofSeconds(20));
    }

    private static void seconds(AtomicLong now, long seconds) {
        now.addAndGet(Duration.ofSeconds(seconds).toNanos());
    }

    @Test
    void aPausedJobWaitsAndACancelledOneGoesOnToItsEnd() throws Exception {
        Job job = new Job("capturing", () -> {});
        job.enter(Job.State.RUNNING);
        assertThat(job.isCancelled()).isFalse();
        job.pause(true);
        CountDownLatch asked = new CountDownLatch(1);
        CountDownLatch answered = new CountDownLatch(1);
        Thread worker = new Thread(() -> {
            asked.countDown();
            if (job.isCancelled()) {
                answered.countDown();
            }
        });
        worker.start();
        assertThat(asked.await(5, TimeUnit.SECONDS)).isTrue();
        assertThat(answered.await(200, TimeUnit.MILLISECONDS))
                .as("it waits while paused")
                .isFalse();
        job.cancel();
        assertThat(answered.await(5, TimeUnit.SECONDS)).isTrue();
        worker.join();
    }

    @Test
    void aJobThatGoesOnAfterAPauseIsNotCancelled() throws Exception {
        Job job = new Job("capturing", () -> {});
        job.enter(Job.State.RUNNING);
        job.pause(true);
        CountDownLatch wentOn = new CountDownLatch(1);
        Thread worker = new Thread(() -> {
            if (!job.isCancelled()) {
                wentOn.countDown();
            }
        });
        worker.start();
        job.pause(false);
        assertThat(wentOn.await(5, TimeUnit.SECONDS)).isTrue();
        worker.join();
    }
}
