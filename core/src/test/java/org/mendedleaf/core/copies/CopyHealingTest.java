package org.mendedleaf.core.copies;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.core.vault.VaultFolder;

/** A vault and its copy heal each other: what one of them still has is whole in both again. */
class CopyHealingTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private Copies copies;
    private Path folder;

    @BeforeEach
    void start() throws IOException {
        p = new TestPlace(temp);
        copies = new Copies(p.vault(), p.clock(), "Ines");
        folder = temp.toRealPath().resolve("copy");
        for (int v = 0; v < 3; v++) {
            p.save("a.bin", noise(v));
            p.save("b.bin", noise(10 + v));
            p.capture();
        }
        copies.run(copies.add(folder).copy(), Progress.NONE);
        Files.delete(p.path("a.bin"));
        Files.delete(p.path("b.bin"));
    }

    @AfterEach
    void end() throws IOException {
        p.close();
    }

    private static byte[] noise(long seed) {
        byte[] bytes = new byte[60_000];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    private static SystemRegistry registry(Path within) throws IOException {
        return new SystemRegistry(
                UserSettings.open(within.resolve("home")), Systems.OPENER, Clock.systemUTC(), Retry.DEFAULT);
    }

    private Healing.Result heal() throws IOException {
        SystemRegistry registry = registry(temp);
        return new Healing(p.vault(), registry, p.clock(), p.authors()).run(Progress.NONE);
    }

    private static void garble(Path file, long at, int length) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        for (long i = at; i < Math.min(bytes.length, at + length); i++) {
            bytes[(int) i] ^= (byte) 0x5a;
        }
        Files.write(file, bytes);
    }

    private Path pack(VaultFolder vault) throws IOException {
        return vault.pack(vault.packNumbers().get(0));
    }

    private VaultFolder copy() throws IOException {
        return VaultFolder.open(folder);
    }

    private VaultCheck.Report checkCopy() throws IOException {
        try (OpenVault open = OpenVault.open(folder, "test", Duration.ofSeconds(1))) {
            return new VaultCheck(open).run(true, Progress.NONE);
        }
    }

    @Test
    void whatIsDamagedInTheVaultComesFromTheCopy() throws IOException {
        Path pack = pack(p.vault().folder());
        byte[] sound = Files.readAllBytes(pack);
        garble(pack, 1000, 100_000);
        p.vault().closeIdle();
        Healing.Result result = heal();
        assertThat(result.before().lost()).isNotEmpty();
        assertThat(result.after().isClean()).isTrue();
        assertThat(result.healed()).hasSameSizeAs(result.before().lost());
        assertThat(result.healed()).allMatch(h -> h.from().equals("the copy of the vault in " + folder));
        // The capture that healing tries saw that both files are gone; behind that the pack is what it was.
        assertThat(Files.readAllBytes(pack)).startsWith(sound);
    }

    @Test
    void aPackThatIsGoneComesBackWhole() throws IOException {
        Files.delete(pack(p.vault().folder()));
        p.vault().closeIdle();
        assertThat(heal().after().isClean()).isTrue();
    }

    @Test
    void whatIsDamagedInTheCopyComesFromTheVault() throws IOException {
        garble(pack(copy()), 50_000, 30_000);
        Healing.Result result = heal();
        assertThat(result.before().isClean()).isTrue();
        assertThat(result.copies()).hasSize(1);
        assertThat(result.copies().get(0).bytes()).isPositive();
        assertThat(result.copies().get(0).trouble()).isEmpty();
        assertThat(checkCopy().isClean()).isTrue();
        assertThat(copies.list().get(0).seen().checked()).isPresent();
    }

    @Test
    void whatNeitherHasIsNamedAndTheRestIsWhole() throws IOException {
        garble(pack(p.vault().folder()), 1000, 20_000);
        garble(pack(copy()), 1000, 20_000);
        p.vault().closeIdle();
        Healing.Result result = heal();
        assertThat(result.healed()).isEmpty();
        assertThat(result.after().lost()).isNotEmpty();
        assertThat(result.copies().get(0).trouble()).contains("cannot give again");
        assertThat(copies.list().get(0).standing()).isEqualTo(CopyStatus.Standing.FAILING);
    }

    @Test
    void whatAHealingLeftThatWasKilledIsTakenAway() throws IOException {
        Path left = p.vault().folder().root().resolve("00000001.pack.healing");
        Files.write(left, noise(5));
        garble(pack(p.vault().folder()), 1000, 20_000);
        p.vault().closeIdle();
        assertThat(heal().after().isClean()).isTrue();
        assertThat(left).doesNotExist();
    }

    /** Both are damaged at random: every chunk that is sound in one of them is sound in both afterwards. */
    @Property(tries = 3)
    void whateverOneOfThemStillHoldsIsWholeAgain(@ForAll long seed) throws IOException {
        Random random = new Random(seed);
        Path own = Files.createTempDirectory("both");
        try (TestPlace place = new TestPlace(own)) {
            Copies theirs = new Copies(place.vault(), place.clock(), "Ines");
            for (int v = 0; v < 6; v++) {
                byte[] bytes = new byte[400_000];
                random.nextBytes(bytes);
                place.save("f" + v % 2 + ".bin", bytes);
                place.capture();
            }
            Path to = own.toRealPath().resolve("copy");
            theirs.run(theirs.add(to).copy(), Progress.NONE);
            Path one = place.vault().folder().pack(1);
            Path other = to.resolve("packs/00000001.pack");
            Set<Integer> hurt = new HashSet<>();
            boolean copyIsSound = true;
            for (int i = 0; i < 5; i++) {
                // Stretches of the two do not touch one another's records, which are shorter than half of a block.
                int block = random.nextInt((int) (Files.size(one) / 300_000) + 1);
                boolean first = random.nextBoolean();
                if (hurt.add(block)) {
                    copyIsSound &= first;
                    garble(first ? one : other, block * 300_000L + random.nextInt(1000), 1 + random.nextInt(5000));
                }
            }
            if (copyIsSound) {
                Files.delete(one);
            }
            place.vault().closeIdle();
            SystemRegistry registry = registry(own);
            Healing.Result result =
                    new Healing(place.vault(), registry, place.clock(), place.authors()).run(Progress.NONE);
            assertThat(result.after().lost()).isEmpty();
            assertThat(result.copies()).allMatch(c -> c.trouble().isEmpty());
            assertThat(place.check().isClean()).isTrue();
        }
    }
}
