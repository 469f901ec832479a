package org.mendedleaf.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CrashTest {

    @Test
    void aKillAtAnyMomentLosesNothingThatWasAcknowledged(@TempDir Path folder) throws Exception {
        CrashHarness harness = new CrashHarness(folder, System.nanoTime());
        CrashHarness.Outcome outcome = harness.run(4);
        // On a busy machine the first ones may not get to work.
        for (int i = 0; i < 5 && outcome.failures().isEmpty() && outcome.acknowledged() == 0; i++) {
            outcome = harness.run(4);
        }
        assertThat(outcome.failures()).isEmpty();
        assertThat(outcome.kills()).isEqualTo(4);
        assertThat(outcome.acknowledged())
                .as("the process got to work before it was killed")
                .isPositive();
    }

    @Test
    void aKillWhileAVaultIsMadeLeavesWhatCanBeGoneOnWith(@TempDir Path folder) throws Exception {
        CrashHarness.Outcome outcome = new CrashHarness(folder, System.nanoTime()).runMaking(3);
        assertThat(outcome.failures()).isEmpty();
        assertThat(outcome.acknowledged()).as("vaults that were looked at").isPositive();
    }
}
