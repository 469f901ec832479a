package org.mendedleaf.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CrashTest {

    @Test
    void aKillAtAnyMomentLosesNothingThatWasAcknowledged(@TempDir Path folder) throws Exception {
        CrashHarness.Outcome outcome = new CrashHarness(folder, System.nanoTime()).run(6);
        assertThat(outcome.failures()).isEmpty();
        assertThat(outcome.kills()).isEqualTo(6);
        assertThat(outcome.acknowledged())
                .as("the process got to work before it was killed")
                .isPositive();
    }
}
