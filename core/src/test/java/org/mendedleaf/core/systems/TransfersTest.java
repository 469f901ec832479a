package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.vault.VaultException;

class TransfersTest {

    private static final List<Integer> MANY = IntStream.range(0, 60).boxed().toList();

    @Test
    void allAreDoneOnceAndNotMoreThanAFewAtATime() throws IOException {
        Set<Integer> done = ConcurrentHashMap.newKeySet();
        AtomicInteger now = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        Map<String, String> failed = Transfers.run(
                MANY,
                String::valueOf,
                i -> {
                    most.accumulateAndGet(now.incrementAndGet(), Math::max);
                    assertThat(done.add(i)).isTrue();
                    Thread.onSpinWait();
                    now.decrementAndGet();
                },
                Progress.NONE);
        assertThat(failed).isEmpty();
        assertThat(done).hasSize(60);
        assertThat(most.get()).isBetween(1, 4);
    }

    @Test
    void whatFailsIsNamedWithItsReasonAndTheRestIsDone() throws IOException {
        AtomicInteger done = new AtomicInteger();
        Map<String, String> failed = Transfers.run(
                MANY,
                i -> "f" + i,
                i -> {
                    if (i % 20 == 7) {
                        throw new SystemException.Full("no space for it");
                    }
                    done.incrementAndGet();
                },
                Progress.NONE);
        assertThat(failed.keySet()).containsExactly("f7", "f27", "f47");
        assertThat(failed.values()).allMatch(w -> w.contains("no space"));
        assertThat(done.get()).isEqualTo(57);
    }

    @Test
    void afterCancellingNothingMoreIsBegun() throws IOException {
        AtomicInteger done = new AtomicInteger();
        Progress progress = new Progress() {
            @Override
            public boolean isCancelled() {
                return done.get() >= 10;
            }
        };
        Map<String, String> failed = Transfers.run(MANY, String::valueOf, i -> done.incrementAndGet(), progress);
        assertThat(failed.size() + done.get()).isEqualTo(60);
        assertThat(done.get()).isBetween(10, 14);
        assertThat(failed.values()).containsOnly(Transfers.NOT_STARTED);
    }

    @Test
    void aVaultThatCannotTakeMoreEndsAll() {
        assertThatThrownBy(() -> Transfers.run(
                        MANY,
                        String::valueOf,
                        i -> {
                            throw new VaultException.Full(Path.of("vault"), new IOException());
                        },
                        Progress.NONE))
                .isInstanceOf(VaultException.Full.class);
    }

    @Test
    void nothingToDoIsDone() throws IOException {
        assertThat(Transfers.run(List.<Integer>of(), String::valueOf, i -> {}, Progress.NONE))
                .isEmpty();
    }
}
