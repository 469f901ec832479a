package org.mendedleaf.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.bench.model.ModelRun;

class ModelTest {

    @ParameterizedTest
    @ValueSource(longs = {4, 8, 13})
    void whateverIsDoneAllThatWasPromisedComesBack(long seed, @TempDir Path folder) throws Exception {
        try (ModelRun run = new ModelRun(folder, seed)) {
            ModelRun.Outcome outcome = run.run(150);
            assertThat(outcome.failure()).isEmpty();
            assertThat(outcome.compared()).as("versions that were read").isGreaterThan(100);
            assertThat(outcome.commands()).containsKeys("save", "capture", "restore", "undo");
        }
    }
}
