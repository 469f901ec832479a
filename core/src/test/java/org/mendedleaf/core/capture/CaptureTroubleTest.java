package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.CALLS_REAL_METHODS;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mockStatic;
import static org.mockito.Mockito.spy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.FolderScans;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.vault.VaultException;
import org.mockito.MockedStatic;

/** What goes wrong while a place is captured: it costs what it is about and nothing else, and is said. */
class CaptureTroubleTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private PlaceState state() throws IOException {
        try (Reading r = p.vault().read()) {
            return r.state(p.place());
        }
    }

    @Test
    void aFolderThatTheDiskCannotReadCostsItselfByName() throws Exception {
        p.save("good/a.txt", "one");
        p.save("bad/b.txt", "two");
        p.capture();
        p.save("good/a.txt", "changed");
        p.save("bad/b.txt", "changed too");
        try (MockedStatic<SafeFolder> folders = mockStatic(SafeFolder.class, CALLS_REAL_METHODS)) {
            SafeFolder root = spy(SafeFolder.open(p.folder(), ""));
            doThrow(new IOException("Input/output error")).when(root).child("bad");
            folders.when(() -> SafeFolder.open(any(), eq(""))).thenReturn(root);
            CaptureResult result = p.capture();
            assertThat(result.changed()).isEqualTo(1);
            assertThat(result.troubles()).singleElement().satisfies(t -> {
                assertThat(t.path()).isEqualTo("bad");
                assertThat(t.detail()).contains("Input/output error");
            });
        }
        assertThat(p.line("bad/b.txt").removed())
                .as("what cannot be read is not gone")
                .isEmpty();
        assertThat(state().skipped()).extracting(Skipped::path).containsExactly("bad");
        assertThat(p.capture().changed()).as("when it can be read again").isEqualTo(1);
        assertThat(state().skipped()).isEmpty();
    }

    @Test
    void aTreeOfHundredsOfLevelsCostsWhatLiesTooDeepAndNothingElse() throws Exception {
        p.save("a.txt", "one");
        p.save("z/b.txt", "two");
        String deep = DeepFolder.make(p.folder(), "d", 700, "bottom.txt", "far down");
        CaptureResult result = p.capture();
        assertThat(p.line("a.txt").versions()).hasSize(1);
        assertThat(p.line("z/b.txt").versions()).hasSize(1);
        assertThat(result.troubles())
                .singleElement()
                .satisfies(t -> assertThat(t.reason()).isEqualTo(Skipped.Reason.TOO_DEEP));
        assertThat(p.capture().points()).isZero();
        DeepFolder.deleteAll(p.folder(), deep);
    }

    @Test
    void aFolderOfTooManyNamesCostsItselfAndWhatIsKnownOfItStays() throws Exception {
        p.save("a.txt", "one");
        p.save("many/first.txt", "known");
        p.capture();
        // As many names as the test can make in a moment, and a limit below them.
        for (int i = 0; i < 60; i++) {
            p.save("many/" + i + ".txt", "");
        }
        p.save("z.txt", "two");
        p.later(5);
        TreeScanner looker =
                new TreeScanner(p.place(), new Exclusions(List.of()), FolderScans.none(), Progress.NONE, 50);
        looker.whole();
        assertThat(looker.unreadable()).containsExactly("many");
        assertThat(looker.changed()).extracting(FolderScan::path).containsExactly("");
        assertThat(looker.changed().get(0).sorted())
                .filteredOn(s -> s.name().equals("many"))
                .singleElement()
                .satisfies(s -> assertThat(s.skip().code()).isEqualTo(Skipped.Reason.TOO_MANY.code()));
        assertThatThrownBy(() -> new TreeScanner(
                                p.place(), new Exclusions(List.of()), FolderScans.none(), Progress.NONE, 2)
                        .whole())
                .as("the place itself")
                .hasMessageContaining(p.place().where());
    }

    @Test
    void whatAnotherProcessCapturedBetweenTheLookAndTheLockIsNotRemoved() throws Exception {
        p.save("a.txt", "one");
        p.capture();
        WriteSession other = p.vault().write();
        Instant before = Instant.now();
        Thread capture = new Thread(() -> {
            try (OpenVault patient = OpenVault.open(temp.resolve("vault"), "patient", Duration.ofSeconds(20))) {
                new Capture(patient, p.place(), p.clock(), p.authors()).run(CaptureScope.WHOLE, Progress.NONE);
            } catch (IOException e) {
                throw new IllegalStateException(e);
            }
        });
        capture.start();
        // Its look is over when it waits for the vault.
        while (capture.getState() != Thread.State.TIMED_WAITING && Instant.now().isBefore(before.plusSeconds(10))) {
            Thread.sleep(20);
        }
        p.save("new.txt", "came in between");
        new Capture(p.vault(), p.place(), p.clock(), p.authors()).runWithin(other, CaptureScope.WHOLE, Progress.NONE);
        other.close();
        capture.join();
        assertThat(p.path("new.txt")).exists();
        assertThat(p.line("new.txt").removed()).isEmpty();
        assertThat(p.capture().points()).isZero();
    }

    @Test
    void aFolderThatIsAwayIsSaidAtOnceAlsoWithinASession() throws Exception {
        p.save("a.txt", "one");
        p.capture();
        Files.move(p.folder(), temp.resolve("elsewhere"));
        long began = System.nanoTime();
        assertThatThrownBy(() -> p.recovery().remove(java.util.List.of("a.txt")))
                .isInstanceOf(PlaceGoneException.class)
                .hasMessageContaining("is not there");
        assertThatThrownBy(() -> new org.mendedleaf.core.snapshots.Snapshots(
                                new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                        .take("", "now", Progress.NONE))
                .isInstanceOf(PlaceGoneException.class);
        assertThat(Duration.ofNanos(System.nanoTime() - began)).isLessThan(Duration.ofSeconds(10));
        Files.move(temp.resolve("elsewhere"), p.folder());
    }

    @Test
    void anEmptyFolderWhereADiskWasIsNoRemovalUntilSomebodySaysSo() throws Exception {
        p.save("a.txt", "one");
        p.save("sub/b.txt", "two");
        p.capture();
        Files.move(p.folder(), temp.resolve("the disk"));
        Files.createDirectory(p.folder());
        assertThatThrownBy(p::capture)
                .isInstanceOf(PlaceGoneException.class)
                .hasMessageContaining("none of the 2 entries");
        assertThat(state().trouble()).contains("is another folder");
        assertThat(p.line("a.txt").removed()).isEmpty();
        Files.delete(p.folder());
        Files.move(temp.resolve("the disk"), p.folder());
        assertThat(p.capture().points()).as("the disk is back").isZero();
        assertThat(state().trouble()).isEmpty();
    }

    @Test
    void aFolderThatWasEmptiedOnPurposeIsCapturedSo() throws Exception {
        p.save("a.txt", "one");
        p.capture();
        Files.move(p.folder(), temp.resolve("emptied"));
        Files.createDirectory(p.folder());
        assertThatThrownBy(p::capture).isInstanceOf(PlaceGoneException.class);
        p.later(1);
        assertThat(new Capture(p.vault(), p.place(), p.clock(), p.authors())
                        .emptiedOnPurpose()
                        .run(CaptureScope.WHOLE, Progress.NONE)
                        .removed())
                .isEqualTo(1);
        assertThat(p.capture().points()).isZero();
    }

    @Test
    void theLastFileRemovedFromAFolderThatStaysIsARemoval() throws Exception {
        p.save("a.txt", "one");
        p.capture();
        Files.delete(p.path("a.txt"));
        assertThat(p.capture().removed()).isEqualTo(1);
    }

    @Test
    void contentThatChangedWhileSizeAndTimeDidNotIsCaptured() throws Exception {
        Path file = p.save("a.txt", "one");
        p.save("a.txt", "one");
        p.capture();
        FileTime time = Files.getLastModifiedTime(file);
        p.capture();
        Files.writeString(file, "two");
        Files.setLastModifiedTime(file, time);
        assertThat(p.capture().changed()).isEqualTo(1);
        assertThat(p.line("a.txt").versions()).hasSize(2);
    }

    @Test
    void aFolderThatIsNewAndNamedBesidesIsCapturedOnce() throws Exception {
        p.capture();
        p.save("new/a.txt", "one");
        assertThat(p.capture("", "new", "new/deeper").added()).isEqualTo(1);
        p.save("other/b.txt", "two");
        p.recovery().put(Files.writeString(temp.resolve("in"), "put in"), "put/c.txt", "", Progress.NONE);
        p.save("put/c.txt", "changed since");
        assertThat(p.capture("", "put", "other").points()).isEqualTo(1);
        assertThat(p.line("put/c.txt").versions()).hasSize(2);
        assertThat(p.line("other/b.txt").versions()).hasSize(1);
        assertThat(p.check().isClean()).isTrue();
    }

    @Test
    void aFileOfAUserThatIsNamedLikeOursIsKept() throws Exception {
        p.save(".mended-leaf-notes.txt", "mine");
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.recovery()
                .restore(
                        java.util.List.of(
                                new RestoreItem(p.line("a.txt").version(1).orElseThrow(), "a.txt")),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(p.path(".mended-leaf-notes.txt")).hasContent("mine");
        assertThat(p.line(".mended-leaf-notes.txt").versions()).hasSize(1);
    }

    @Test
    void aDefectWhileOneFileIsReadCostsThatFile() throws Exception {
        p.save("a.txt", "one");
        p.save("b.txt", "two");
        p.capture();
        p.save("a.txt", "one changed");
        p.save("b.txt", "two changed");
        try (WriteSession session = p.vault().write()) {
            assertThat(session).isNotNull();
        }
        try (MockedStatic<SafeFolder> folders = mockStatic(SafeFolder.class, CALLS_REAL_METHODS)) {
            assertThat(folders).isNotNull();
            FileReader reader = new FileReader(p.folder(), p.clock(), Progress.NONE, () -> false);
            folders.when(() -> SafeFolder.open(any(), eq(""))).thenThrow(new StackOverflowError());
            ReadTask task = new ReadTask(
                    new FolderWork("", 1, java.util.List.of()),
                    new SeenName(
                            "a.txt",
                            new org.mendedleaf.core.disk.DiskEntry(
                                    org.mendedleaf.core.disk.DiskEntry.Type.FILE, 1, 1, 0644, 1),
                            SeenName.Skip.NONE),
                    null);
            ReadTask.Result result = reader.read(task, org.mockito.Mockito.mock());
            assertThat(result.outcome()).isEqualTo(ReadTask.Outcome.UNREADABLE);
        }
        assertThat(p.capture().changed()).isEqualTo(2);
    }

    @Test
    void aVaultThatIsBusyEndsACaptureAndLosesNothing() throws Exception {
        p.save("a.txt", "one");
        try (WriteSession other = p.vault().write()) {
            assertThat(other).isNotNull();
            assertThatThrownBy(p::capture).isInstanceOf(VaultException.Busy.class);
        }
        assertThat(p.capture().added()).isEqualTo(1);
    }
}
