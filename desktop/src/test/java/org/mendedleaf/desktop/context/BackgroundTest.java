package org.mendedleaf.desktop.context;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.desktop.shell.ModelTest;

/** Work goes on off the screen's thread, its result comes back on it, and an answer that was overtaken counts no longer. */
class BackgroundTest extends ModelTest {

    private final Background background = new Background(screen::add);
    private final List<String> heard = Collections.synchronizedList(new ArrayList<>());

    @AfterEach
    void end() {
        background.close();
    }

    @Test
    void aResultComesBackOnTheThreadOfTheScreen() throws Exception {
        Thread own = Thread.currentThread();
        Thread[] worked = {own};
        Thread[] told = {null};
        background.run(
                () -> {
                    worked[0] = Thread.currentThread();
                    return "done";
                },
                result -> {
                    heard.add(result);
                    told[0] = Thread.currentThread();
                },
                e -> heard.add("failed"));
        until(() -> !heard.isEmpty());
        assertThat(heard).containsExactly("done");
        assertThat(worked[0]).isNotSameAs(own);
        assertThat(told[0]).isSameAs(own);
    }

    @Test
    void whatGoesWrongIsToldWhateverItIs() throws Exception {
        background.run(
                () -> {
                    throw new IOException("the disk");
                },
                r -> heard.add("done"),
                e -> heard.add(e.getMessage()));
        until(() -> heard.size() == 1);
        background.run(
                () -> {
                    throw new StackOverflowError();
                },
                r -> heard.add("done"),
                e -> heard.add("an error"));
        until(() -> heard.size() == 2);
        assertThat(heard).containsExactly("the disk", "an error");
        background.run(() -> "on", heard::add, e -> heard.add("failed"));
        until(() -> heard.size() == 3);
        assertThat(heard.get(2)).as("its threads go on").isEqualTo("on");
    }

    @Test
    void onlyTheNewestQuestionIsAnswered() throws Exception {
        Background.Newest question = background.new Newest();
        CountDownLatch slow = new CountDownLatch(1);
        AtomicInteger asked = new AtomicInteger();
        question.ask(
                () -> {
                    asked.incrementAndGet();
                    slow.await(20, TimeUnit.SECONDS);
                    return "first";
                },
                heard::add,
                e -> heard.add("failed"));
        until(() -> asked.get() == 1);
        question.ask(() -> "second", heard::add, e -> heard.add("failed"));
        until(() -> !heard.isEmpty());
        slow.countDown();
        boolean[] later = {false};
        background.run(() -> true, ok -> later[0] = true, e -> {});
        until(() -> later[0]);
        assertThat(heard).containsExactly("second");
    }

    @Test
    void anAnswerThatWaitsForTheScreenIsOvertakenToo() throws Exception {
        Background.Newest question = background.new Newest();
        question.ask(() -> "first", heard::add, e -> heard.add("failed"));
        while (screen.isEmpty()) {
            Thread.onSpinWait();
        }
        question.ask(() -> "second", heard::add, e -> heard.add("failed"));
        until(() -> !heard.isEmpty());
        assertThat(heard).containsExactly("second");
    }

    @Test
    void aFailureThatWasOvertakenIsNotTold() throws Exception {
        Background.Newest question = background.new Newest();
        CountDownLatch slow = new CountDownLatch(1);
        AtomicInteger asked = new AtomicInteger();
        question.ask(
                () -> {
                    asked.incrementAndGet();
                    slow.await(20, TimeUnit.SECONDS);
                    throw new IOException("too late");
                },
                r -> heard.add("done"),
                e -> heard.add(e.getMessage()));
        until(() -> asked.get() == 1);
        question.drop();
        slow.countDown();
        boolean[] later = {false};
        background.run(() -> true, ok -> later[0] = true, e -> {});
        until(() -> later[0]);
        assertThat(heard).isEmpty();
    }

    /** What goes on until it is to stop, and counts a file each time. */
    private Jobs.Work<String> withoutEnd(CountDownLatch ended) {
        return progress -> {
            progress.begin("Reading", 10, 0);
            while (!progress.isCancelled()) {
                progress.advance(1, 0);
                Thread.onSpinWait();
            }
            ended.countDown();
            throw new IOException("stopped");
        };
    }

    @Test
    void aLongQuestionTellsHowFarItIsAndStopsWhenSomethingElseIsAsked() throws Exception {
        Background.Newest question = background.new Newest();
        CountDownLatch first = new CountDownLatch(1);
        List<Job.Snapshot> told = new ArrayList<>();
        question.ask(withoutEnd(first), told::add, heard::add, e -> heard.add(e.getMessage()));
        until(() -> !told.isEmpty());
        assertThat(told.get(0).step()).isEqualTo("Reading");
        assertThat(told.get(0).files()).isPositive();
        question.ask(() -> "the second", heard::add, e -> heard.add("failed"));
        assertThat(first.await(20, TimeUnit.SECONDS)).as("the first stopped").isTrue();
        until(() -> !heard.isEmpty());
        told.clear();
        CountDownLatch third = new CountDownLatch(1);
        question.ask(withoutEnd(third), told::add, heard::add, e -> heard.add(e.getMessage()));
        until(() -> !told.isEmpty());
        question.drop();
        assertThat(third.await(20, TimeUnit.SECONDS)).as("the third stopped").isTrue();
        assertThat(heard).containsExactly("the second");
    }

    @Test
    void aLongQuestionBeginsWhenTheOneBeforeHasEnded() throws Exception {
        Background.Newest question = background.new Newest();
        AtomicInteger atOnce = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch slow = new CountDownLatch(1);
        Jobs.Work<String> first = progress -> {
            most.accumulateAndGet(atOnce.incrementAndGet(), Math::max);
            begun.countDown();
            // It does not hear at once that it should stop.
            slow.await(20, TimeUnit.SECONDS);
            atOnce.decrementAndGet();
            return "first";
        };
        question.ask(first, now -> {}, heard::add, e -> heard.add("failed"));
        assertThat(begun.await(20, TimeUnit.SECONDS)).isTrue();
        question.ask(
                progress -> {
                    most.accumulateAndGet(atOnce.incrementAndGet(), Math::max);
                    return "second";
                },
                now -> {},
                heard::add,
                e -> heard.add("failed"));
        boolean[] later = {false};
        background.run(() -> true, ok -> later[0] = true, e -> {});
        until(() -> later[0]);
        slow.countDown();
        until(() -> !heard.isEmpty());
        assertThat(heard).containsExactly("second");
        assertThat(most).hasValue(1);
    }

    @Test
    void whatIsAskedOfSomethingElseIsAnsweredBesideIt() throws Exception {
        Background.Newest one = background.new Newest();
        Background.Newest other = background.new Newest();
        one.ask(() -> "one", heard::add, e -> heard.add("failed"));
        other.ask(() -> "other", heard::add, e -> heard.add("failed"));
        until(() -> heard.size() == 2);
        assertThat(heard).containsExactlyInAnyOrder("one", "other");
    }

    @Test
    void whatIsDoneAgainAndAgainEndsWhenItIsNotWantedAnyMore() throws Exception {
        AtomicInteger times = new AtomicInteger();
        Runnable stop = background.every(Duration.ofMillis(5), times::incrementAndGet);
        until(() -> times.get() >= 3);
        stop.run();
        boolean[] later = {false};
        background.run(
                () -> {
                    Thread.sleep(60);
                    return true;
                },
                ok -> later[0] = true,
                e -> {});
        until(() -> later[0]);
        screen.clear();
        int had = times.get();
        Thread.sleep(40);
        assertThat(screen).isEmpty();
        assertThat(times.get()).isEqualTo(had);
    }

    @Test
    void whatIsAskedAfterTheEndIsLetGoOf() {
        background.close();
        background.run(() -> "late", heard::add, e -> heard.add("failed"));
        background.new Newest().ask(() -> "late", heard::add, e -> heard.add("failed"));
        assertThat(heard).isEmpty();
    }

    @Test
    void whatCanWaitIsDoneOnceNothingIsAskedOrHandedOver() throws Exception {
        CountDownLatch listed = new CountDownLatch(1);
        background.run(
                () -> listed.await(10, TimeUnit.SECONDS),
                r -> {
                    heard.add("listed");
                    // One question leads to the next.
                    background.run(() -> "line", heard::add, e -> heard.add("failed"));
                },
                e -> heard.add("failed"));
        background.whenQuiet(Duration.ofSeconds(30), () -> heard.add("keepers"));
        Thread.sleep(300);
        assertThat(heard).isEmpty();
        listed.countDown();
        until(() -> heard.size() == 3);
        assertThat(heard).containsExactly("listed", "line", "keepers");
    }

    @Test
    void whatCanWaitDoesNotWaitForEver() throws Exception {
        CountDownLatch never = new CountDownLatch(1);
        background.run(() -> never.await(20, TimeUnit.SECONDS), r -> heard.add("done"), e -> heard.add("failed"));
        background.whenQuiet(Duration.ofMillis(200), () -> heard.add("keepers"));
        until(() -> !heard.isEmpty());
        assertThat(heard).containsExactly("keepers");
        never.countDown();
    }

    @Test
    void whoClosesItWaitsForWhatIsBeingDone() throws Exception {
        CountDownLatch begun = new CountDownLatch(1);
        background.run(
                () -> {
                    begun.countDown();
                    // As work that is interrupted and still has to put something away.
                    try {
                        Thread.sleep(10_000);
                    } catch (InterruptedException e) {
                        Thread.sleep(200);
                        heard.add("put away");
                    }
                    return "";
                },
                r -> {},
                e -> {});
        assertThat(begun.await(10, TimeUnit.SECONDS)).isTrue();
        background.close();
        assertThat(heard).containsExactly("put away");
    }

    @Test
    void whatIsDoneAsideGoesOnUntilAllIsClosed() throws Exception {
        AtomicInteger times = new AtomicInteger();
        Thread[] by = {null};
        background.everyAside(Duration.ofMillis(5), () -> {
            by[0] = Thread.currentThread();
            times.incrementAndGet();
        });
        until(() -> times.get() > 2);
        assertThat(by[0]).isNotSameAs(Thread.currentThread());
        assertThat(screen).as("nothing for the screen to do").isEmpty();
        background.close();
        until(() -> !by[0].isAlive());
    }
}
