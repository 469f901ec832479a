package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.Child;

/** What is needed for a moment lies in one folder, and goes however the process ended. */
class TemporaryFilesTest {

    private static final Instant NOW = Instant.now();

    @TempDir
    Path temp;

    private Path base() throws IOException {
        return TemporaryFiles.base(temp, "ines");
    }

    @Test
    void theFolderIsTheUsersAlone() throws IOException {
        Path base = base();
        assertThat(base).isEqualTo(temp.resolve("mended-leaf-ines"));
        assertThat(base()).as("the same again").isEqualTo(base);
        assumeTrue(Files.getFileStore(temp).supportsFileAttributeView("posix"));
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(base)))
                .isEqualTo("rwx------");
    }

    @Test
    void aNameThatCouldLeadElsewhereDoesNot() throws IOException {
        assertThat(TemporaryFiles.base(temp, "../office/ines").getParent()).isEqualTo(temp);
    }

    @Test
    void whereSomethingElseHasTheNameAnotherOneIsTaken() throws IOException {
        Files.writeString(temp.resolve("mended-leaf-ines"), "a file");
        assertThat(base()).isDirectory().isNotEqualTo(temp.resolve("mended-leaf-ines"));
        Files.delete(temp.resolve("mended-leaf-ines"));
        Path elsewhere = Files.createDirectory(temp.resolve("elsewhere"));
        Files.createSymbolicLink(temp.resolve("mended-leaf-ines"), elsewhere);
        assertThat(base()).isNotEqualTo(temp.resolve("mended-leaf-ines"));
        assertThat(elsewhere).isEmptyDirectory();
    }

    @Test
    void whatAProcessHoldsStaysUntilItEnds() throws IOException {
        Path base = base();
        TemporaryFiles files = TemporaryFiles.open(base);
        Files.writeString(files.root().resolve("content"), "on its way");
        TemporaryFiles.clean(base, NOW.plus(Duration.ofDays(30)));
        assertThat(files.root().resolve("content")).exists();
        files.end();
        assertThat(base).isEmptyDirectory();
    }

    @Test
    void aFolderThatIsJustBeingMadeStaysAndAnOldOneGoes() throws IOException {
        Path base = base();
        Path fresh = Files.createDirectory(base.resolve("run1"));
        Path old = Files.createDirectories(base.resolve("run2/sub")).getParent();
        Files.writeString(old.resolve("sub/content"), "left");
        Files.setLastModifiedTime(old, FileTime.from(NOW.minus(Duration.ofHours(2))));
        TemporaryFiles.clean(base, NOW);
        assertThat(fresh).exists();
        assertThat(old).doesNotExist();
    }

    @Test
    void whatALinkLeadsToIsNotRemoved() throws IOException {
        Path base = base();
        Path outside = Files.createDirectory(temp.resolve("outside"));
        Files.writeString(outside.resolve("kept.txt"), "kept");
        TemporaryFiles files = TemporaryFiles.open(base);
        Files.createSymbolicLink(files.root().resolve("link"), outside);
        Files.createSymbolicLink(base.resolve("run9"), outside);
        files.end();
        TemporaryFiles.clean(base, NOW.plus(Duration.ofDays(30)));
        assertThat(outside.resolve("kept.txt")).exists();
    }

    /** Makes a file and waits. */
    static final class Holds {
        public static void main(String[] arguments) throws IOException {
            TemporaryFiles files = TemporaryFiles.open(Path.of(arguments[0]));
            Files.writeString(files.root().resolve("content"), "on its way");
            System.out.println(files.root());
            System.in.read();
            files.end();
        }
    }

    @Test
    void whatAKilledProcessLeftGoesAndWhatALivingOneHoldsStays() throws Exception {
        Path base = base();
        try (Child killed = Child.start(Holds.class, base);
                Child living = Child.start(Holds.class, base)) {
            Path left = Path.of(killed.says());
            Path held = Path.of(living.says());
            killed.kill();
            assertThat(left.resolve("content")).exists();
            TemporaryFiles.clean(base, NOW);
            assertThat(left).doesNotExist();
            assertThat(held.resolve("content")).exists();
            living.tell("end");
            assertThat(living.end()).isZero();
            assertThat(held).doesNotExist();
        }
    }

    @Test
    void filesAndFoldersAreMadeForWhoeverNeedsThem() throws IOException {
        Path file = TemporaryFiles.file(".content");
        Path folder = TemporaryFiles.folder();
        assertThat(file).isRegularFile().hasFileName(file.getFileName().toString());
        assertThat(file.getParent()).isEqualTo(folder.getParent());
        assertThat(folder).isEmptyDirectory();
        Files.delete(file);
        Files.delete(folder);
    }
}
