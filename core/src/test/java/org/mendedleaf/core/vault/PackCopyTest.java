package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;

/** Packs copied byte by byte, and healed record by record. */
class PackCopyTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private VaultFolder vault;
    private VaultFolder copy;

    @BeforeEach
    void start() throws IOException {
        p = new TestPlace(temp);
        vault = p.vault().folder();
        for (int i = 0; i < 3; i++) {
            byte[] noise = new byte[50_000];
            new Random(i).nextBytes(noise);
            p.save("f" + i + ".bin", noise);
            p.capture();
        }
        copy = vault.makeCopy(temp.resolve("copy"));
    }

    @AfterEach
    void end() throws IOException {
        p.close();
    }

    private long length() throws IOException {
        return Files.size(vault.pack(1));
    }

    private void seal() throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.chunks().sealNext();
            session.commit();
        }
    }

    private long bring(long known, long until) throws IOException {
        try (PackCopy packs = new PackCopy(vault, copy)) {
            return packs.bring(1, known, until, Progress.NONE);
        }
    }

    private PackCopy.Tail tail(long known) throws IOException {
        try (PackCopy packs = new PackCopy(vault, copy)) {
            return packs.tail(1, known);
        }
    }

    private static void change(Path file, long at, int length) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        for (long i = at; i < at + length; i++) {
            bytes[(int) i] ^= 0x33;
        }
        Files.write(file, bytes);
    }

    private static Object key(Path file) throws IOException {
        return String.valueOf(Files.readAttributes(file, java.nio.file.attribute.BasicFileAttributes.class)
                .fileKey());
    }

    private void isSame() throws IOException {
        assertThat(Files.mismatch(vault.pack(1), copy.pack(1))).isEqualTo(-1);
    }

    @Test
    void whatAnEarlierRunWroteIsNotWrittenAgain() throws IOException {
        long half = length() / 2;
        assertThat(bring(0, length())).isEqualTo(length());
        byte[] all = Files.readAllBytes(copy.pack(1));
        // Cut within a record: all records before it stay.
        Files.write(copy.pack(1), Arrays.copyOf(all, (int) half));
        assertThat(bring(0, length())).isBetween(length() - half, length() - half + 60_000);
        isSame();
        assertThat(bring(length(), length())).isZero();
    }

    @Test
    void whatIsBehindTheLastCommitIsCutOffInTheCopy() throws IOException {
        bring(0, length());
        Files.write(copy.pack(1), new byte[500], java.nio.file.StandardOpenOption.APPEND);
        bring(length(), length());
        isSame();
    }

    @Test
    void anotherFileThatStandsThereIsWrittenAnew() throws IOException {
        Files.createDirectories(copy.packs());
        Files.write(copy.pack(1), new byte[9000]);
        assertThat(bring(0, length())).isEqualTo(length());
        isSame();
    }

    @Test
    void aPackThatTheVaultDoesNotHaveIsNotMade() {
        try (PackCopy packs = new PackCopy(vault, copy)) {
            assertThatThrownBy(() -> packs.bring(7, 0, 100, Progress.NONE)).isInstanceOf(NoSuchFileException.class);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        assertThat(copy.pack(7)).doesNotExist();
    }

    @Test
    void howTheEndsCompareIsTold() throws IOException {
        bring(0, length());
        long all = length();
        assertThat(tail(all)).isEqualTo(PackCopy.Tail.SAME);
        change(copy.pack(1), all - 20, 10);
        assertThat(tail(all)).isEqualTo(PackCopy.Tail.COPY_DAMAGED);
        change(copy.pack(1), all - 20, 10);
        change(vault.pack(1), all - 20, 10);
        assertThat(tail(all)).isEqualTo(PackCopy.Tail.VAULT_DAMAGED);
        change(vault.pack(1), all - 20, 10);
        assertThat(tail(all)).isEqualTo(PackCopy.Tail.SAME);
        Files.delete(copy.pack(1));
        assertThat(tail(all)).isEqualTo(PackCopy.Tail.COPY_DAMAGED);
    }

    @Test
    void aDamagedHeaderAndTrailerComeFromTheOther() throws IOException {
        seal();
        bring(0, length());
        byte[] sound = Files.readAllBytes(vault.pack(1));
        change(vault.pack(1), 3, 20);
        change(vault.pack(1), sound.length - 12, 6);
        assertThat(PackHealing.heal(vault, copy, 1, sound.length, true)).isPositive();
        assertThat(Files.readAllBytes(vault.pack(1))).isEqualTo(sound);
    }

    @Test
    void wherePartsOfBothAreDamagedOnlyWhatIsSoundIsTaken() throws IOException {
        bring(0, length());
        byte[] sound = Files.readAllBytes(vault.pack(1));
        change(vault.pack(1), 20_000, 100);
        change(copy.pack(1), 120_000, 100);
        byte[] theirs = Files.readAllBytes(copy.pack(1));
        assertThat(PackHealing.heal(vault, copy, 1, sound.length, false)).isPositive();
        assertThat(Files.readAllBytes(vault.pack(1))).isEqualTo(sound);
        assertThat(Files.readAllBytes(copy.pack(1)))
                .as("who gives stays as it is")
                .isEqualTo(theirs);
        assertThat(PackHealing.heal(copy, vault, 1, sound.length, false)).isPositive();
        isSame();
    }

    @Test
    void whereTheOtherHasNothingToGiveNothingIsWritten() throws IOException {
        bring(0, length());
        long all = length();
        assertThat(PackHealing.heal(vault, copy, 1, all, false)).isZero();
        change(vault.pack(1), 20_000, 100);
        change(copy.pack(1), 20_000, 100);
        Object key = key(vault.pack(1));
        assertThat(PackHealing.heal(vault, copy, 1, all, false)).isZero();
        assertThat(key(vault.pack(1))).isEqualTo(key);
        Files.delete(copy.pack(1));
        assertThat(PackHealing.heal(vault, copy, 1, all, false)).isZero();
    }

    @Test
    void aVaultFolderSaysWhetherItIsACopy() throws IOException {
        assertThat(VaultFolder.open(temp.resolve("copy")).isCopy()).isTrue();
        assertThat(VaultFolder.open(vault.root()).isCopy()).isFalse();
        assertThat(copy.id()).isEqualTo(vault.id());
        VaultFolder own = copy.asVault();
        assertThat(VaultFolder.open(own.root()).isCopy()).isFalse();
        assertThat(Files.readString(own.root().resolve("VAULT"))).contains("format 1");
        Path file = Files.writeString(temp.resolve("file"), "mine");
        assertThatThrownBy(() -> vault.makeCopy(file)).isInstanceOf(VaultException.Unavailable.class);
        assertThat(file).hasContent("mine");
    }
}
