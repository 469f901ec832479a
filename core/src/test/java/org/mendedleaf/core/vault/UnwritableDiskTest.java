package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;

/** A vault on a small disk of its own, which is filled to its last block, or may only be read. */
class UnwritableDiskTest {

    private static final int DISK = 48 << 20;

    @TempDir
    Path temp;

    private Path disk;

    @BeforeEach
    void mount() throws Exception {
        disk = Files.createDirectory(temp.resolve("disk"));
        Path image = temp.resolve("image");
        Files.write(image, new byte[DISK]);
        boolean mounted = run("mkfs.ext4", "-q", "-m", "0", image.toString())
                && run("mount", "-o", "loop", image.toString(), disk.toString());
        assumeTrue(mounted, "only who may mount disks can try this");
    }

    @AfterEach
    void unmount() throws Exception {
        run("umount", "-l", disk.toString());
    }

    private static boolean run(String... command) throws InterruptedException {
        try {
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            return process.waitFor(30, TimeUnit.SECONDS) && process.exitValue() == 0;
        } catch (IOException e) {
            return false;
        }
    }

    private void fillVault() throws IOException {
        Random random = new Random(2);
        try (TestPlace p = new TestPlace(disk)) {
            for (int i = 0; i < 4; i++) {
                byte[] noise = new byte[1_500_000];
                random.nextBytes(noise);
                p.save("a.bin", noise);
                p.save("b.txt", "small " + i);
                p.capture();
            }
        }
        assertThat(disk.resolve("vault/reserve")).exists();
    }

    private void fillDisk() throws IOException {
        byte[] block = new byte[4096];
        try (var out = Files.newOutputStream(disk.resolve("desk/filler"))) {
            while (true) {
                out.write(block);
            }
        } catch (IOException e) {
            assertThat(e).hasMessageContaining("No space left");
        }
    }

    private OpenVault open() throws IOException {
        return OpenVault.open(disk.resolve("vault"), "test", Duration.ofSeconds(1));
    }

    private void everythingCanBeRead() throws IOException {
        try (OpenVault vault = open();
                Reading r = vault.read()) {
            Place place = r.places().get(0);
            assertThat(r.line(place, "a.bin").orElseThrow().versions()).hasSize(4);
            Version first = r.line(place, "b.txt").orElseThrow().version(1).orElseThrow();
            assertThat(new String(r.contents().head(first.recipe(), 100), StandardCharsets.UTF_8))
                    .isEqualTo("small 0");
            assertThat(new VaultCheck(vault).run(true, Progress.NONE).damages()).isEmpty();
        }
    }

    @Test
    void aFullDiskCanBeReadAndCheckedAndSaysWhatItIs() throws Exception {
        fillVault();
        fillDisk();
        Files.deleteIfExists(disk.resolve("vault/catalogue.db-shm"));
        everythingCanBeRead();
        try (TestPlace p = new TestPlace(disk)) {
            p.later(1000);
            Files.writeString(disk.resolve("desk/b.txt"), "new");
            assertThatThrownBy(p::capture)
                    .isInstanceOf(VaultException.Full.class)
                    .hasMessageContaining("is full");
        } catch (VaultException e) {
            assertThat(e).isInstanceOf(VaultException.Full.class).hasMessageContaining("is full");
        }
        everythingCanBeRead();
    }

    @Test
    void roomCanBeMadeOnAFullDisk() throws Exception {
        fillVault();
        fillDisk();
        long before = Files.size(disk.resolve("vault/packs/00000001.pack"));
        try (OpenVault vault = open()) {
            Place place;
            long line;
            try (Reading r = vault.read()) {
                place = r.places().get(0);
                line = r.line(place, "a.bin").orElseThrow().id();
            }
            java.time.Clock clock =
                    java.time.Clock.fixed(TestPlace.START.plus(Duration.ofDays(1)), java.time.ZoneOffset.UTC);
            new Erasing(new WorkContext(vault, place, clock, (p, o) -> o, "Ines"))
                    .erase(line, Erasing.What.OLDER, 0, Progress.NONE);
            Reclaim.Done done = new Reclaim(vault, clock).endGrace("Ada", Progress.NONE);
            assertThat(done.freedBytes()).isGreaterThan(before / 2);
            assertThat(new VaultCheck(vault).run(true, Progress.NONE).damages()).isEmpty();
        }
        assertThat(disk.toFile().getUsableSpace()).isGreaterThan(2_000_000);
    }

    @Test
    void aDiskThatMayOnlyBeReadIsRead() throws Exception {
        fillVault();
        assumeTrue(run("mount", "-o", "remount,ro", disk.toString()), "the disk cannot be made read-only");
        everythingCanBeRead();
        try (OpenVault vault = open()) {
            assertThatThrownBy(vault::write)
                    .isInstanceOf(VaultException.Unavailable.class)
                    .hasMessageContaining("cannot be written to");
        }
    }

    @Test
    void aLogThatWasNotTakenUpYetIsReadTooWhereNothingCanBeWritten() throws Exception {
        fillVault();
        Path db = disk.resolve("vault/catalogue.db");
        try (OpenVault vault = open()) {
            List<byte[]> before = List.of(Files.readAllBytes(db));
            try (TestPlace p = new TestPlace(disk)) {
                p.later(1000);
                p.save("b.txt", "in the log only");
                p.capture();
                Files.copy(Path.of(db + "-wal"), temp.resolve("wal"));
            }
            assertThat(before).hasSize(1);
            Files.write(temp.resolve("db"), before.get(0));
        }
        Files.delete(db);
        Files.copy(temp.resolve("db"), db);
        Files.copy(temp.resolve("wal"), Path.of(db + "-wal"));
        assumeTrue(run("mount", "-o", "remount,ro", disk.toString()), "the disk cannot be made read-only");
        try (OpenVault vault = open();
                Reading r = vault.read()) {
            Version newest =
                    r.line(r.places().get(0), "b.txt").orElseThrow().newest().orElseThrow();
            assertThat(new String(r.contents().head(newest.recipe(), 100), StandardCharsets.UTF_8))
                    .isEqualTo("in the log only");
        }
    }
}
