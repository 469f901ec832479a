package org.mendedleaf.core.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** When memory is given back. */
class IdleMemoryTest {

    private final AtomicLong processor = new AtomicLong();
    private final AtomicInteger collections = new AtomicInteger();
    private final IdleMemory memory = new IdleMemory(processor::get, collections::incrementAndGet);

    private void works(Duration time) {
        processor.addAndGet(time.toNanos());
        memory.giveBack();
    }

    @Test
    void onceAfterEachBurstOfWorkAndNotWhileItGoesOn() {
        works(Duration.ofSeconds(20));
        works(Duration.ofSeconds(9));
        assertThat(collections).as("while it works").hasValue(0);
        works(Duration.ofMillis(10));
        assertThat(collections).as("when it is over").hasValue(1);
        for (int i = 0; i < 100; i++) {
            works(Duration.ofMillis(20));
        }
        assertThat(collections).as("a whole day of nothing").hasValue(1);
        works(Duration.ofSeconds(4));
        works(Duration.ZERO);
        assertThat(collections).as("after the next burst").hasValue(2);
    }

    @Test
    void whatWasLargeAndIsNotNeededIsGivenBackWhenThereIsNothingToDo() {
        works(Duration.ofMillis(20));
        memory.muchIsFree();
        works(Duration.ofSeconds(1));
        assertThat(collections).as("while it works").hasValue(0);
        works(Duration.ofMillis(20));
        assertThat(collections).hasValue(1);
        works(Duration.ofMillis(20));
        assertThat(collections).as("once").hasValue(1);
    }

    @Test
    void aLittleNowAndThenIsRestHoweverLongItGoesOn() {
        for (int i = 0; i < 1_000; i++) {
            works(Duration.ofMillis(150));
        }
        assertThat(collections).hasValue(0);
    }

    @Test
    void aProgramThatDidNothingYetHasNothingToGiveBack() {
        works(Duration.ofMillis(50));
        works(Duration.ZERO);
        assertThat(collections).hasValue(0);
    }
}
