package org.mendedleaf.core.jobs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class SupervisorTest {

    private final BlockingQueue<String> heard = new LinkedBlockingQueue<>();
    private final Supervisor supervisor = new Supervisor(
            new Supervisor.Backoff(Duration.ofMillis(5), Duration.ofMillis(20)), new Supervisor.Hearer() {
                @Override
                public void failed(Supervisor.Duty duty, Throwable why, int failures, Duration again) {
                    heard.add(duty.name() + " " + failures + " " + why.getMessage() + " " + again.toMillis());
                }

                @Override
                public void recovered(Supervisor.Duty duty) {
                    heard.add(duty.name() + " well");
                    throw new IllegalStateException("whoever hears may fail too");
                }
            });

    @AfterEach
    void close() {
        supervisor.close();
    }

    private interface Round {
        Duration run(int number, Supervisor.Breath breath) throws Exception;
    }

    private static Supervisor.Duty duty(String name, Round round) {
        AtomicInteger rounds = new AtomicInteger();
        return new Supervisor.Duty() {
            @Override
            public String name() {
                return name;
            }

            @Override
            public Duration round(Supervisor.Breath breath) throws Exception {
                return round.run(rounds.incrementAndGet(), breath);
            }
        };
    }

    private String next() throws InterruptedException {
        return heard.poll(20, TimeUnit.SECONDS);
    }

    @Test
    void whateverGoesWrongIsToldTriedAgainLaterAndLaterAndGoesOn() throws Exception {
        CountDownLatch well = new CountDownLatch(3);
        supervisor.add(duty("d", (n, breath) -> {
            switch (n) {
                case 1 -> throw new java.io.IOException("expected");
                case 2 -> throw new IllegalStateException("a defect");
                case 3 -> throw new StackOverflowError("an error");
                case 4 -> throw new OutOfMemoryError("another");
                default -> {
                    well.countDown();
                    return Duration.ofMillis(1);
                }
            }
        }));
        assertThat(List.of(next(), next(), next(), next()))
                .containsExactly("d 1 expected 5", "d 2 a defect 10", "d 3 an error 20", "d 4 another 20");
        assertThat(next()).isEqualTo("d well");
        assertThat(well.await(20, TimeUnit.SECONDS)).as("rounds go on").isTrue();
    }

    @Test
    void aRoundThatGoesOnSaysOnceThatItGoesWellAgainAndItsNextFailureIsTheFirst() throws Exception {
        CountDownLatch goOn = new CountDownLatch(1);
        supervisor.add(duty("d", (n, breath) -> {
            if (n == 2) {
                breath.goesWell();
                breath.goesWell();
                goOn.await();
            }
            throw new java.io.IOException("expected");
        }));
        assertThat(List.of(next(), next())).containsExactly("d 1 expected 5", "d well");
        goOn.countDown();
        assertThat(next()).isEqualTo("d 1 expected 5");
    }

    @Test
    void oneThatFailsDoesNotHinderTheOthers() throws Exception {
        CountDownLatch rounds = new CountDownLatch(5);
        supervisor.add(duty("bad", (n, breath) -> {
            throw new IllegalStateException("always");
        }));
        supervisor.add(duty("good", (n, breath) -> {
            rounds.countDown();
            return Duration.ofMillis(1);
        }));
        assertThat(rounds.await(20, TimeUnit.SECONDS)).isTrue();
        assertThat(supervisor.names()).containsExactly("bad", "good");
    }

    @Test
    void closingWakesWhoWaitsAndTellsWhoWorks() throws Exception {
        CountDownLatch waiting = new CountDownLatch(1);
        CountDownLatch working = new CountDownLatch(1);
        CountDownLatch ended = new CountDownLatch(1);
        supervisor.add(duty("waits", (n, breath) -> {
            waiting.countDown();
            return Duration.ofHours(1);
        }));
        supervisor.add(duty("works", (n, breath) -> {
            working.countDown();
            while (!breath.isEnding()) {
                breath.pause(Duration.ofHours(1));
            }
            ended.countDown();
            return Duration.ofHours(1);
        }));
        assertThat(waiting.await(20, TimeUnit.SECONDS) && working.await(20, TimeUnit.SECONDS))
                .isTrue();
        supervisor.close();
        assertThat(ended.getCount()).isZero();
        supervisor.add(duty("too late", (n, breath) -> Duration.ZERO));
        assertThat(supervisor.names()).isEmpty();
    }

    @Test
    void whoWaitsForSomethingElseIsWokenAsItSaidAlsoWhenItSaysSoTooLate() throws Exception {
        CountDownLatch listening = new CountDownLatch(1);
        CountDownLatch woken = new CountDownLatch(1);
        CountDownLatch wokenTooLate = new CountDownLatch(1);
        supervisor.add(duty("listens", (n, breath) -> {
            breath.wakeBy(woken::countDown);
            listening.countDown();
            woken.await();
            breath.wakeBy(wokenTooLate::countDown);
            return Duration.ofHours(1);
        }));
        assertThat(listening.await(20, TimeUnit.SECONDS)).isTrue();
        supervisor.remove("listens");
        assertThat(woken.getCount() + wokenTooLate.getCount()).isZero();
    }

    @Test
    void aDutyIsEndedByItsNameAndTheSameNameTwiceIsRefused() throws Exception {
        AtomicInteger rounds = new AtomicInteger();
        supervisor.add(duty("d", (n, breath) -> {
            rounds.set(n);
            return Duration.ofMillis(1);
        }));
        assertThatThrownBy(() -> supervisor.add(duty("d", (n, breath) -> Duration.ZERO)))
                .isInstanceOf(IllegalArgumentException.class);
        supervisor.remove("d");
        int then = rounds.get();
        Thread.sleep(30);
        assertThat(rounds.get()).isEqualTo(then);
        supervisor.remove("nobody");
    }

    @Test
    void theMoreWorkAChangeMakesTheLongerADutyRestsButNeverForLong() {
        Duration usual = Duration.ofSeconds(10);
        assertThat(Supervisor.rest(Duration.ZERO, usual)).isEqualTo(usual);
        assertThat(Supervisor.rest(Duration.ofMillis(30), usual)).isEqualTo(usual);
        assertThat(Supervisor.rest(Duration.ofSeconds(2), usual)).isEqualTo(Duration.ofSeconds(40));
        assertThat(Supervisor.rest(Duration.ofHours(1), usual)).isEqualTo(Duration.ofMinutes(5));
    }
}
