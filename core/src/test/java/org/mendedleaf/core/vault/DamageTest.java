package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.Tries;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.check.VaultCheck;

class DamageTest {

    @TempDir
    Path temp;

    private Path smallVault() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.save("b.txt", "two, and a little more of it, and a little more of it");
            p.capture();
            p.save("a.txt", "three");
            p.capture();
            return p.vault().folder().pack(1);
        }
    }

    private VaultCheck.Report check() throws IOException {
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            return new VaultCheck(vault).run(true, org.mendedleaf.core.jobs.Progress.NONE);
        }
    }

    @Test
    void flippingAnyByteOfAPackIsDetectedAndNamed() throws IOException {
        Path pack = smallVault();
        byte[] sound = Files.readAllBytes(pack);
        assertThat(check().isClean()).isTrue();
        for (int i = 0; i < sound.length; i += Tries.every(5)) {
            byte[] flipped = sound.clone();
            flipped[i] ^= 0x20;
            Files.write(pack, flipped);
            assertThat(check().damages())
                    .as("byte %s of %s", i, sound.length)
                    .isNotEmpty()
                    .anyMatch(d -> d.contains("00000001.pack"));
        }
        Files.write(pack, sound);
        assertThat(check().isClean()).isTrue();
    }

    @Test
    void truncatingAPackAnywhereIsDetected() throws IOException {
        Path pack = smallVault();
        byte[] sound = Files.readAllBytes(pack);
        for (int length = 0; length < sound.length; length += 7) {
            Files.write(pack, java.util.Arrays.copyOf(sound, length));
            assertThat(check().isClean()).as("cut to %s", length).isFalse();
        }
    }

    @Test
    void aMissingPackNamesTheVersionsThatAreLost() throws IOException {
        Files.delete(smallVault());
        VaultCheck.Report report = check();
        assertThat(report.lost())
                .extracting(VaultCheck.LostVersion::path)
                .containsExactlyInAnyOrder("a.txt", "a.txt", "b.txt");
    }

    @Test
    void aDamagedChunkNamesItsVersionAndSparesTheOthers() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            byte[] noise = new byte[5000];
            new Random(1).nextBytes(noise);
            p.save("noise.bin", noise);
            p.capture();
            p.save("other.txt", "unhurt");
            p.capture();
            Path pack = p.vault().folder().pack(1);
            byte[] bytes = Files.readAllBytes(pack);
            bytes[PackFormat.HEADER + PackFormat.RECORD_HEAD + 2000] ^= 1;
            Files.write(pack, bytes);
            assertThat(p.check().lost())
                    .singleElement()
                    .satisfies(l -> assertThat(l.path()).isEqualTo("noise.bin"));
            assertThatThrownBy(() -> {
                        try (org.mendedleaf.core.catalogue.Reading r = p.vault().read()) {
                            r.contents()
                                    .head(
                                            p.line("noise.bin")
                                                    .newest()
                                                    .orElseThrow()
                                                    .recipe(),
                                            10);
                        }
                    })
                    .isInstanceOf(VaultException.Damaged.class)
                    .hasMessageContaining("00000001.pack");
        }
    }

    @Test
    void sealedPacksAreCheckedToTheirLastByte() throws Exception {
        Path pack;
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
            pack = p.vault().folder().pack(1);
        }
        seal();
        byte[] sound = Files.readAllBytes(pack);
        assertThat(check().isClean()).isTrue();
        for (int i = 0; i < sound.length; i += Tries.every(5)) {
            byte[] flipped = sound.clone();
            flipped[i] ^= 1;
            Files.write(pack, flipped);
            assertThat(check().isClean()).as("byte %s of %s", i, sound.length).isFalse();
        }
        Files.write(pack, java.util.Arrays.copyOf(sound, sound.length + 1));
        assertThat(check().isClean()).as("grown").isFalse();
    }

    /** Seals the pack by a commit with a very low limit. */
    private void seal() throws Exception {
        VaultFolder vault = VaultFolder.open(temp.resolve("vault"));
        try (java.sql.Connection db = java.sql.DriverManager.getConnection(
                "jdbc:sqlite:" + vault.catalogue().toUri())) {
            db.setAutoCommit(false);
            try (ChunkWriter writer = new ChunkWriter(
                    vault, ChannelOpener.FILES, db, () -> db, new ChunkIndexCache(), (n, log) -> {}, 1)) {
                writer.committed(writer.flush(new byte[0]));
                db.commit();
            }
        }
    }

    @Test
    void aVaultOfANewerVersionIsRefusedInWords() throws IOException {
        smallVault();
        Path marker = temp.resolve("vault/VAULT");
        Files.writeString(marker, Files.readString(marker).replace("format 1", "format 9"));
        assertThatThrownBy(this::check)
                .isInstanceOf(VaultException.TooNew.class)
                .hasMessageContaining("newer version");
    }

    @Test
    void aDamagedMarkerIsRefusedInWords() throws IOException {
        smallVault();
        Files.writeString(temp.resolve("vault/VAULT"), "something else");
        assertThatThrownBy(this::check).isInstanceOf(VaultException.Damaged.class);
    }

    @Test
    void aFolderWithOtherFilesDoesNotBecomeAVault() throws IOException {
        Files.writeString(Files.createDirectory(temp.resolve("full")).resolve("letter.txt"), "dear");
        assertThatThrownBy(() -> VaultFolder.openOrCreate(temp.resolve("full")))
                .isInstanceOf(VaultException.Unavailable.class);
        assertThat(temp.resolve("full")).isDirectoryContaining(f -> f.endsWith("letter.txt"));
    }
}
