package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.ZoneOffset;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;

class RecoveryTest {

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

    private Version version(String path, int number) throws IOException {
        return p.line(path).version(number).orElseThrow();
    }

    private RestoreResult restore(String path, int number, Collision rule) throws IOException {
        return p.recovery().restore(List.of(new RestoreItem(version(path, number), path)), rule, Progress.NONE);
    }

    private Action last() throws IOException {
        try (Reading r = p.vault().read()) {
            return JournalStore.of(r).lastUndoable().orElseThrow();
        }
    }

    private List<Path> ownFiles() throws IOException {
        try (Stream<Path> all = Files.walk(p.folder())) {
            return all.filter(f -> SafeFolder.isOwnName(f.getFileName().toString()))
                    .toList();
        }
    }

    @Test
    void whatGoesAgainBeforeTheNextLookIsNotTakenToBeThereForEver() throws Exception {
        p.save("d/a.txt", "one");
        p.save("d/b.txt", "two");
        p.capture();
        p.recovery().put(Files.writeString(temp.resolve("in"), "put in"), "d/new.txt", "", Progress.NONE);
        Files.move(p.path("d/new.txt"), p.path("moved.txt"));
        p.recovery().remove(List.of("d/b.txt"));
        p.save("d/b.txt", "two");
        p.later(5);
        p.capture();
        assertThat(p.names(Moment.FAR))
                .contains("d/a.txt", "d/b.txt", "moved.txt")
                .doesNotContain("d/new.txt");
        assertThat(p.capture().points()).isZero();
    }

    @Test
    void anEarlierVersionBecomesTheCurrentOneAndAllOthersStay() throws IOException {
        Path file = p.save("a.txt", "one");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r-----"));
        p.capture();
        long mtime = version("a.txt", 1).mtimeNanos();
        p.save("a.txt", "two");
        p.capture();
        RestoreResult result = restore("a.txt", 1, Collision.REPLACE);
        assertThat(result.items().get(0).number()).isEqualTo(3);
        assertThat(p.read("a.txt")).isEqualTo("one");
        Line line = p.line("a.txt");
        Version newest = line.newest().orElseThrow();
        assertThat(newest.origin()).isEqualTo(Origin.RESTORED);
        assertThat(newest.source()).isEqualTo(1);
        assertThat(newest.who()).isEqualTo("Tomas");
        assertThat(newest.mtimeNanos()).isEqualTo(mtime);
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-r-----");
        assertThat(line.versions()).hasSize(3);
        assertThat(p.capture().points()).as("the restored file is known").isZero();
        assertThat(ownFiles()).isEmpty();
    }

    @Test
    void whatIsLiveAndNotYetCapturedIsCapturedFirst() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two, never captured");
        restore("a.txt", 1, Collision.REPLACE);
        assertThat(p.read("a.txt")).isEqualTo("one");
        try (Reading r = p.vault().read()) {
            byte[] second = r.contents().head(version("a.txt", 2).recipe(), 100);
            assertThat(new String(second, java.nio.charset.StandardCharsets.UTF_8))
                    .isEqualTo("two, never captured");
        }
    }

    @Test
    void aRemovedFileComesBackWithItsFoldersAndItsHistory() throws IOException {
        p.save("deep/down/a.txt", "one");
        p.capture();
        Files.delete(p.path("deep/down/a.txt"));
        Files.delete(p.path("deep/down"));
        p.capture();
        restore("deep/down/a.txt", 1, Collision.REPLACE);
        assertThat(p.read("deep/down/a.txt")).isEqualTo("one");
        Line line = p.line("deep/down/a.txt");
        assertThat(line.removed()).isEmpty();
        assertThat(line.versions()).hasSize(2);
        assertThat(p.capture().points()).isZero();
        p.recovery().undo(last());
        assertThat(p.path("deep/down")).doesNotExist();
        assertThat(p.path("deep")).exists();
    }

    @Test
    void undoGivesBackWhatWasThere() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        restore("a.txt", 1, Collision.REPLACE);
        Recovery.Undone undone = p.recovery().undo(last());
        assertThat(undone.failed()).isEmpty();
        assertThat(p.read("a.txt")).isEqualTo("two");
        try (Reading r = p.vault().read()) {
            assertThat(JournalStore.of(r).lastUndoable()).as("undone once").isEmpty();
        }
    }

    @Test
    void undoAfterAnotherEditLosesNothing() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        restore("a.txt", 1, Collision.REPLACE);
        p.save("a.txt", "edited since");
        p.recovery().undo(last());
        assertThat(p.read("a.txt")).isEqualTo("two");
        assertThat(p.line("a.txt").versions()).hasSize(5);
    }

    @Test
    void removingKeepsTheContentAndUndoBringsItBack() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two, never captured");
        Recovery.Removal removal = p.recovery().remove(List.of("a.txt"));
        assertThat(removal.failed()).isEmpty();
        assertThat(p.path("a.txt")).doesNotExist();
        assertThat(p.line("a.txt").removed()).isPresent();
        assertThat(p.line("a.txt").versions()).hasSize(2);
        p.recovery().undo(last());
        assertThat(p.read("a.txt")).isEqualTo("two, never captured");
    }

    @Test
    void keepingBothPutsItBesideUnderANumberedName() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.save("a (2).txt", "in the way");
        p.capture();
        restore("a.txt", 1, Collision.KEEP_BOTH);
        assertThat(p.read("a.txt")).isEqualTo("two");
        assertThat(p.read("a (2).txt")).isEqualTo("in the way");
        assertThat(p.read("a (3).txt")).isEqualTo("one");
        p.recovery().undo(last());
        assertThat(p.path("a (3).txt")).doesNotExist();
    }

    @Test
    void skippingLeavesWhatIsThere() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        RestoreResult result = restore("a.txt", 1, Collision.SKIP);
        assertThat(result.items().get(0).outcome()).isEqualTo(RestoreResult.Outcome.LEFT);
        assertThat(p.read("a.txt")).isEqualTo("two");
    }

    @Test
    void planAndOutcomeAgree() throws IOException {
        p.save("a.txt", "one");
        p.save("gone.txt", "gone");
        p.capture();
        p.save("a.txt", "two");
        Files.delete(p.path("gone.txt"));
        p.capture();
        List<RestoreItem> requested = List.of(
                new RestoreItem(version("a.txt", 1), "a.txt"),
                new RestoreItem(version("a.txt", 2), "a.txt"),
                new RestoreItem(version("gone.txt", 1), "gone.txt"));
        RestorePlan plan = p.recovery().plan(requested, Collision.REPLACE);
        assertThat(plan.items())
                .extracting(RestorePlan.Item::step)
                .containsExactly(RestorePlan.Step.REPLACE, RestorePlan.Step.KEEP_BOTH, RestorePlan.Step.CREATE);
        RestoreResult result = p.recovery().restore(requested, Collision.REPLACE, Progress.NONE);
        assertThat(result.items())
                .extracting(i -> i.plan().step())
                .containsExactlyElementsOf(
                        plan.items().stream().map(RestorePlan.Item::step).toList());
        assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(3);
    }

    @Test
    void whatNobodyKeepsIsNotReplaced() throws IOException {
        p.save("lock.tmp", "left out by a standing pattern");
        p.save("a.txt", "one");
        p.capture();
        RestoreResult result = p.recovery()
                .restore(List.of(new RestoreItem(version("a.txt", 1), "lock.tmp")), Collision.REPLACE, Progress.NONE);
        assertThat(result.items().get(0).outcome()).isEqualTo(RestoreResult.Outcome.FAILED);
        assertThat(p.read("lock.tmp")).isEqualTo("left out by a standing pattern");
    }

    @Test
    void craftedNamesCannotLeaveTheFolder() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        for (String path : List.of("../evil.txt", "sub/../../evil.txt", "/evil.txt", "sub//evil.txt", "./evil.txt")) {
            assertThatThrownBy(() -> p.recovery()
                            .restore(
                                    List.of(new RestoreItem(version("a.txt", 1), path)),
                                    Collision.REPLACE,
                                    Progress.NONE))
                    .as(path)
                    .isInstanceOf(IllegalArgumentException.class);
        }
        assertThat(temp.resolve("evil.txt")).doesNotExist();
    }

    @Test
    void aLinkInTheWayIsNotFollowed() throws IOException {
        p.save("sub/a.txt", "one");
        p.capture();
        Files.delete(p.path("sub/a.txt"));
        Files.delete(p.path("sub"));
        Path outside = Files.createDirectory(temp.resolve("outside"));
        Files.createSymbolicLink(p.path("sub"), outside);
        RestoreResult result = p.recovery()
                .restore(
                        List.of(new RestoreItem(p.line("sub/a.txt").newest().orElseThrow(), "sub/a.txt")),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(result.count(RestoreResult.Outcome.DONE)).isZero();
        assertThat(outside).isEmptyDirectory();
        assertThatThrownBy(() -> SafeFolder.open(p.folder(), "sub")).isInstanceOf(NotDirectoryException.class);
    }

    @Test
    void aLinkComesBackAsALink() throws IOException {
        Files.createSymbolicLink(p.path("link"), Path.of("target one"));
        p.capture();
        Files.delete(p.path("link"));
        p.capture();
        restore("link", 1, Collision.REPLACE);
        assertThat(Files.isSymbolicLink(p.path("link"))).isTrue();
        assertThat(Files.readSymbolicLink(p.path("link"))).hasToString("target one");
        assertThat(Files.exists(p.path("link"), LinkOption.NOFOLLOW_LINKS)).isTrue();
    }

    @Test
    void aReadOnlyFolderIsSaidAndNothingIsLost() throws IOException {
        p.save("sub/a.txt", "one");
        p.capture();
        p.save("sub/a.txt", "two");
        p.capture();
        Files.setPosixFilePermissions(p.path("sub"), PosixFilePermissions.fromString("r-xr-xr-x"));
        assumeTrue(!Files.isWritable(p.path("sub")), "the administrator may write everywhere");
        RestoreResult result = restore("sub/a.txt", 1, Collision.REPLACE);
        assertThat(result.items().get(0).why()).isEqualTo("no permission");
        assertThat(p.read("sub/a.txt")).isEqualTo("two");
    }

    @Test
    void copiesOfTheSameVersionNeverCollide() throws IOException {
        p.save("plan.txt", "one");
        p.capture();
        FolderRestore elsewhere = new FolderRestore(p.vault(), temp.resolve("copies"));
        Path first = elsewhere.copy(version("plan.txt", 1), ZoneOffset.UTC, Progress.NONE);
        Path second = elsewhere.copy(version("plan.txt", 1), ZoneOffset.UTC, Progress.NONE);
        assertThat(first.getFileName()).hasToString("plan – v1, 2026-05-04 0801.txt");
        assertThat(second.getFileName()).hasToString("plan – v1, 2026-05-04 0801 (2).txt");
        assertThat(second).hasContent("one");
    }

    @Test
    void elsewhereNothingIsReplacedSinceNobodyKeepsIt() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        Path other = Files.createDirectory(temp.resolve("other"));
        Files.writeString(other.resolve("a.txt"), "mine");
        FolderRestore elsewhere = new FolderRestore(p.vault(), other);
        List<RestoreItem> requested = List.of(new RestoreItem(version("a.txt", 1), "a.txt"));
        assertThat(elsewhere
                        .restore(requested, Collision.REPLACE, Progress.NONE)
                        .count(RestoreResult.Outcome.FAILED))
                .isEqualTo(1);
        assertThat(other.resolve("a.txt")).hasContent("mine");
        elsewhere.restore(requested, Collision.KEEP_BOTH, Progress.NONE);
        assertThat(other.resolve("a (2).txt")).hasContent("one");
    }

    @Test
    void aLineThatWasRenamedIsRestoredUnderItsNameOfToday() throws IOException {
        p.save("old.txt", "one");
        p.capture();
        Files.move(p.path("old.txt"), p.path("new.txt"));
        p.save("new.txt", "two");
        p.capture();
        Files.move(p.path("new.txt"), p.path("newer.txt"));
        p.capture();
        Line line = p.line("newer.txt");
        assertThat(line.path()).isEqualTo("newer.txt");
        p.recovery()
                .restore(
                        List.of(new RestoreItem(
                                line.versions().get(line.versions().size() - 1), line.path())),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(p.read("newer.txt")).isIn("one", "two");
        assertThat(p.path("old.txt")).doesNotExist();
    }
}
