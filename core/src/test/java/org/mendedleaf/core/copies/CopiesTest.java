package org.mendedleaf.core.copies;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Breathing;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;

/** A copy of the vault: it has all that the vault has, can only be read, and goes the vault's way. */
class CopiesTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private Copies copies;
    private Path folder;

    @BeforeEach
    void start() throws IOException {
        p = new TestPlace(temp);
        copies = new Copies(p.vault(), p.clock(), "Ines");
        folder = temp.toRealPath().resolve("drive/copy");
    }

    @AfterEach
    void end() throws IOException {
        p.close();
    }

    private CopyStatus begin() throws IOException {
        CopyStatus begun = copies.add(folder);
        copies.run(begun.copy(), Progress.NONE);
        return status();
    }

    private CopyStatus status() throws IOException {
        return copies.list().get(0);
    }

    private static byte[] noise(long seed, int length) {
        byte[] bytes = new byte[length];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    /** Everything that can be read of a vault: each version of each file with its bytes. */
    private static Map<String, String> all(Path vault) throws IOException {
        Map<String, String> found = new TreeMap<>();
        try (OpenVault open = OpenVault.open(vault, "test", Duration.ofSeconds(1));
                Reading reading = open.read()) {
            for (var place : reading.places()) {
                for (long line : reading.lines().ids(place)) {
                    for (Version v : reading.line(line).orElseThrow().versions()) {
                        String said = v.recipe().isElsewhere()
                                ? "gone"
                                : reading.contents().sha256(v.recipe()).toString();
                        found.put(v.path() + " " + v.label(), said);
                    }
                }
            }
        }
        return found;
    }

    private static VaultCheck.Report check(Path vault) throws IOException {
        try (OpenVault open = OpenVault.open(vault, "test", Duration.ofSeconds(1))) {
            return new VaultCheck(open).run(true, Progress.NONE);
        }
    }

    @Test
    void aCopyOpensAsAVaultOfItsOwnWithEveryVersion() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.save("b.bin", noise(1, 300_000));
        p.capture();
        CopyStatus status = begin();
        assertThat(status.standing()).isEqualTo(CopyStatus.Standing.IN_STEP);
        assertThat(status.commitsBehind()).isZero();
        assertThat(all(folder)).hasSize(3).isEqualTo(all(p.vault().folder().root()));
        assertThat(check(folder).isClean()).isTrue();
    }

    @Test
    void onlyWhatIsNewIsWritten() throws IOException {
        p.save("big.bin", noise(1, 2_000_000));
        p.capture();
        CopyStatus begun = copies.add(folder);
        assertThat(copies.run(begun.copy(), Progress.NONE)).isGreaterThan(2_000_000);
        assertThat(copies.run(begun.copy(), Progress.NONE)).isZero();
        p.save("a.txt", "small");
        p.capture();
        assertThat(status().standing()).isEqualTo(CopyStatus.Standing.BEHIND);
        assertThat(copies.run(begun.copy(), Progress.NONE)).isBetween(1L, 20_000L);
        assertThat(all(folder)).isEqualTo(all(p.vault().folder().root()));
    }

    @Test
    void aCopyIsNotWrittenToUntilItIsMadeAVault() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        begin();
        try (OpenVault copy = OpenVault.open(folder, "test", Duration.ofSeconds(1))) {
            assertThatThrownBy(copy::write)
                    .isInstanceOf(VaultException.Unavailable.class)
                    .hasMessageContaining("is a copy of a vault");
        }
        assertThat(Files.readString(folder.resolve("VAULT"))).contains("format 2", "copy");
        Copies.use(folder);
        try (OpenVault own = OpenVault.open(folder, "test", Duration.ofSeconds(1))) {
            own.write().close();
        }
        assertThat(check(folder).isClean()).isTrue();
        assertThatThrownBy(() -> Copies.use(folder)).hasMessageContaining("no copy");
    }

    @Test
    void aCopyThatWasMadeAVaultIsNotWrittenOverByTheOldOne() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        CopyStatus begun = begin();
        Copies.use(folder);
        assertThat(status().standing()).isEqualTo(CopyStatus.Standing.AWAY);
        assertThatThrownBy(() -> copies.run(begun.copy(), Progress.NONE))
                .isInstanceOf(VaultException.Unavailable.class);
    }

    @Test
    void whatWasErasedIsErasedInTheCopyTooAndUntilThenItSaysSo() throws IOException {
        byte[] secret = noise(7, 400_000);
        p.save("secret.bin", secret);
        p.capture();
        p.save("secret.bin", noise(8, 400_000));
        p.capture();
        CopyStatus begun = begin();
        long line = p.line("secret.bin").id();
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                .erase(line, Erasing.What.VERSION, 1, Progress.NONE);
        new Reclaim(p.vault(), p.clock()).endGrace("Ada", Progress.NONE);
        assertThat(holds(p.vault().folder(), secret)).isFalse();
        assertThat(holds(VaultFolder.open(folder), secret)).isTrue();
        assertThat(status().stale()).isPositive();
        assertThat(status().sentence(p.now(), java.time.ZoneOffset.UTC)).contains("let go or erased");
        copies.run(begun.copy(), Progress.NONE);
        assertThat(holds(VaultFolder.open(folder), secret)).isFalse();
        assertThat(status().stale()).isZero();
        assertThat(all(folder)).isEqualTo(all(p.vault().folder().root()));
    }

    /** Whether a stretch of bytes stands in a pack, which is not compressed where it is noise. */
    private static boolean holds(VaultFolder vault, byte[] content) throws IOException {
        String wanted = new String(content, 1000, 60, java.nio.charset.StandardCharsets.ISO_8859_1);
        for (long n : vault.packNumbers()) {
            if (Files.readString(vault.pack(n), java.nio.charset.StandardCharsets.ISO_8859_1)
                    .contains(wanted)) {
                return true;
            }
        }
        return false;
    }

    @Test
    void anEmptyFolderWhereTheDriveWasIsNotTakenForTheCopy() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        CopyStatus begun = begin();
        Path drive = folder.getParent();
        Path away = temp.resolve("away");
        Files.move(drive, away);
        Files.createDirectories(folder);
        p.save("a.txt", "two");
        p.capture();
        assertThat(status().standing()).isEqualTo(CopyStatus.Standing.AWAY);
        assertThat(status().needsSomebody()).isTrue();
        assertThatThrownBy(() -> copies.run(begun.copy(), Progress.NONE)).hasMessageContaining("is not there");
        try (Stream<Path> inside = Files.list(folder)) {
            assertThat(inside).isEmpty();
        }
        Files.delete(folder);
        Files.delete(drive);
        Files.move(away, drive);
        copies.run(begun.copy(), Progress.NONE);
        assertThat(status().standing()).isEqualTo(CopyStatus.Standing.IN_STEP);
    }

    @Test
    void aCopyIsRefusedWhereItCannotBe() throws IOException {
        Path root = p.vault().folder().root();
        assertThatThrownBy(() -> copies.add(root.resolve("copy"))).hasMessageContaining("in one another");
        assertThatThrownBy(() -> copies.add(p.folder().resolve("copy"))).hasMessageContaining("protected folder");
        copies.add(folder);
        assertThatThrownBy(() -> copies.add(folder)).hasMessageContaining("kept in " + folder + " already");
        assertThatThrownBy(() -> copies.add(folder.resolve("packs"))).hasMessageContaining("in one another");
        Path other = temp.resolve("other");
        VaultFolder.openOrCreate(other);
        assertThatThrownBy(() -> copies.add(other)).hasMessageContaining("no copy of this one");
        Path full = Files.createDirectories(temp.resolve("full"));
        Files.writeString(full.resolve("letter.txt"), "mine");
        assertThatThrownBy(() -> copies.add(full)).hasMessageContaining("other files");
    }

    @Test
    void aRunThatWasCutShortGoesOnWithWhatItWrote() throws IOException {
        p.save("big.bin", noise(1, 9_000_000));
        p.capture();
        CopyStatus begun = copies.add(folder);
        long written = copies.run(begun.copy(), new After(3));
        assertThat(status().standing()).isEqualTo(CopyStatus.Standing.BEGUN);
        assertThat(all(folder)).isEmpty();
        long rest = copies.run(begun.copy(), Progress.NONE);
        assertThat(written).isZero();
        assertThat(rest).isLessThan(7_000_000);
        assertThat(all(folder)).isEqualTo(all(p.vault().folder().root()));
    }

    @Test
    void aCopyIntoWhichNothingWasCopiedYetSaysSo() throws IOException {
        copies.add(folder);
        assertThatThrownBy(() -> OpenVault.open(folder, "test", Duration.ofSeconds(1)))
                .hasMessage("Nothing has been copied to " + folder + " yet. Bring the copy in step first.");
    }

    /** Stops after so many questions. */
    private static final class After implements Progress {
        private int left;

        After(int questions) {
            left = questions;
        }

        @Override
        public boolean isCancelled() {
            return left-- <= 0;
        }
    }

    @Test
    void twoThatWentDifferentWaysAreLeftAsTheyAre() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        Path root = p.vault().folder().root();
        Path before = temp.resolve("before");
        copyAll(root, before);
        CopyStatus begun = begin();
        p.save("b.txt", "in the copy as well");
        p.capture();
        copies.run(begun.copy(), Progress.NONE);
        Map<String, String> held = all(folder);
        p.vault().close();
        // The old state of the vault comes back, and goes another way.
        try (OpenVault old = OpenVault.open(before, "test", Duration.ofSeconds(1))) {
            Copies others = new Copies(old, p.clock(), "Ines");
            CopyStatus again = others.add(folder);
            assertThatThrownBy(() -> others.run(again.copy(), Progress.NONE))
                    .isInstanceOf(VaultException.Damaged.class)
                    .hasMessageContaining("gone different ways");
            assertThat(others.list().get(0).standing()).isEqualTo(CopyStatus.Standing.FAILING);
        }
        assertThat(all(folder)).isEqualTo(held);
    }

    private static void copyAll(Path from, Path to) throws IOException {
        try (Stream<Path> walk = Files.walk(from)) {
            for (Path each : walk.toList()) {
                Files.copy(each, to.resolve(from.relativize(each).toString()));
            }
        }
    }

    @Test
    void aDamagedCatalogueOfACopyIsMadeAnew() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        CopyStatus begun = begin();
        Files.write(folder.resolve("catalogue.db"), noise(3, 4096));
        copies.run(begun.copy(), Progress.NONE);
        assertThat(all(folder)).isEqualTo(all(p.vault().folder().root()));
    }

    @Test
    void anEndedCopyStaysReadableAndCanBeTakenUpAgain() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        copies.end(begin().copy());
        assertThat(copies.list()).isEmpty();
        assertThat(all(folder)).hasSize(1);
        p.save("a.txt", "two");
        p.capture();
        CopyStatus again = begin();
        assertThat(again.standing()).isEqualTo(CopyStatus.Standing.IN_STEP);
        assertThat(all(folder)).hasSize(2);
    }

    @Test
    void whoTakesOverTheVaultFromItsPacksFindsTheCopiesAgain() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        begin();
        Path root = p.vault().folder().root();
        p.vault().close();
        Rebuild.run(root, "test", Duration.ofSeconds(1), p.clock());
        try (OpenVault again = OpenVault.open(root, "test", Duration.ofSeconds(1))) {
            Copies same = new Copies(again, p.clock(), "Ines");
            assertThat(same.list()).hasSize(1);
            same.run(same.list().get(0).copy(), Progress.NONE);
            assertThat(same.list().get(0).standing()).isEqualTo(CopyStatus.Standing.IN_STEP);
        }
    }

    @Test
    void aVaultWhoseChangeLogsAreDamagedIsCopiedWithItsCatalogue() throws IOException {
        p.save("a.txt", "what it said at first");
        p.capture();
        p.save("b.txt", "captured after that");
        p.capture();
        // The first record of all is the change log by which the folder came under protection.
        Path pack = p.vault().folder().pack(1);
        byte[] bytes = Files.readAllBytes(pack);
        bytes[120] ^= 0x11;
        Files.write(pack, bytes);
        p.vault().closeIdle();
        CopyStatus status = begin();
        assertThat(status.standing()).isEqualTo(CopyStatus.Standing.IN_STEP);
        assertThat(all(folder)).hasSize(2).isEqualTo(all(p.vault().folder().root()));
        p.save("c.txt", "and after the copy");
        p.capture();
        copies.run(status.copy(), Progress.NONE);
        assertThat(all(folder)).hasSize(3).isEqualTo(all(p.vault().folder().root()));
    }

    @Test
    void theKeeperCatchesUpByItself() throws Exception {
        copies.add(folder);
        p.save("a.txt", "one");
        p.capture();
        int[] changes = {0};
        CopyKeeper keeper = new CopyKeeper(copies, p.clock(), () -> changes[0]++);
        keeper.round(Breathing.on());
        assertThat(status().standing()).isEqualTo(CopyStatus.Standing.IN_STEP);
        assertThat(changes[0]).isEqualTo(1);
        keeper.round(Breathing.on());
        assertThat(changes[0]).isEqualTo(1);
    }

    /** Whatever happens in the vault between runs, the copy says the same afterwards. */
    @Property(tries = 4)
    void afterEachRunTheCopySaysWhatTheVaultSays(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        Path own = Files.createTempDirectory("copies");
        try (TestPlace place = new TestPlace(own)) {
            Copies theirs = new Copies(place.vault(), place.clock(), "Ines");
            Path to = own.toRealPath().resolve("copy");
            CopyStatus begun = theirs.add(to);
            for (int i = 0; i < 6; i++) {
                List<String> names = List.of("a.bin", "b.bin", "c/d.bin");
                String name = names.get(random.nextInt(3));
                if (random.nextInt(4) == 0 && Files.exists(place.path(name))) {
                    Files.delete(place.path(name));
                } else {
                    place.save(name, noise(random.nextLong(), random.nextInt(200_000)));
                }
                place.capture();
                if (random.nextInt(3) == 0) {
                    erase(place, random);
                }
                if (random.nextInt(2) == 0) {
                    theirs.run(begun.copy(), new After(random.nextInt(3)));
                }
            }
            theirs.run(begun.copy(), Progress.NONE);
            assertThat(all(to)).isEqualTo(all(place.vault().folder().root()));
            assertThat(check(to).damages()).isEmpty();
        }
    }

    private static void erase(TestPlace place, Random random) throws IOException {
        try (Reading reading = place.vault().read()) {
            List<Long> lines = reading.lines().ids(place.place());
            var line = reading.line(lines.get(random.nextInt(lines.size()))).orElseThrow();
            if (line.versions().size() < 2) {
                return;
            }
            int number = line.versions().get(line.versions().size() - 1).number();
            new Erasing(new WorkContext(place.vault(), place.place(), place.clock(), place.authors(), "Ada"))
                    .erase(line.id(), Erasing.What.VERSION, number, Progress.NONE);
        }
        new Reclaim(place.vault(), place.clock()).endGrace("Ada", Progress.NONE);
    }
}
