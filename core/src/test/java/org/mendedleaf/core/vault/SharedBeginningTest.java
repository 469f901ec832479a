package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Version;

class SharedBeginningTest {

    @TempDir
    Path temp;

    @Test
    void aFileThatBeginsAsOneBeforeItAndGoesOnIsCapturedThoughHalfOfItsChunksAreCommittedAlready() throws IOException {
        byte[] whole = Documents.noise(4, 400_000);
        int cut = 0;
        for (int i = 0; i < 3; i++) {
            cut = Chunker.CONTENT.cut(whole, cut, whole.length);
        }
        try (TestPlace p = new TestPlace(temp)) {
            p.save("begin.bin", Arrays.copyOf(whole, cut));
            p.capture();
            p.save("whole.bin", whole);
            p.capture();
            Version version = p.line("whole.bin").newest().orElseThrow();
            assertThat(version.recipe().runs())
                    .as("chunks of both, one behind the other")
                    .hasSize(1);
            try (Reading reading = p.vault().read()) {
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                reading.contents().read(version.recipe(), out::write);
                assertThat(out.toByteArray()).isEqualTo(whole);
            }
        }
    }
}
