package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.WriteSession;

class VaultLockTest {

    @TempDir
    Path temp;

    @Test
    void aSecondWriterIsToldWhoWritesAndCanStillRead() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
            try (WriteSession first = p.vault().write();
                    OpenVault second = OpenVault.open(temp.resolve("vault"), "other", Duration.ofMillis(100))) {
                assertThat(first.vault().id()).isEqualTo(second.folder().id());
                assertThatThrownBy(second::write)
                        .isInstanceOf(VaultException.Busy.class)
                        .hasMessageContaining("test");
                try (Reading reading = second.read()) {
                    assertThat(reading.line(p.place(), "a.txt")).isPresent();
                }
            }
        }
    }

    @Test
    void aWriterWaitsForItsTurn() throws Exception {
        try (TestPlace p = new TestPlace(temp);
                OpenVault patient = OpenVault.open(temp.resolve("vault"), "other", Duration.ofSeconds(20))) {
            WriteSession first = p.vault().write();
            Thread ends = new Thread(() -> {
                try {
                    Thread.sleep(300);
                    first.close();
                } catch (IOException | InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            });
            ends.start();
            try (WriteSession second = patient.write()) {
                assertThat(second.vault().root()).isEqualTo(patient.folder().root());
            }
            ends.join();
        }
    }
}
