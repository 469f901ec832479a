package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.words.Words;

class RollbackTest {

    @TempDir
    Path temp;

    private static RestoreResult back(TestPlace p, Instant at, boolean removeLater, String... paths)
            throws IOException {
        return p.recovery().rollBack(new Rollback(List.of(paths), at, removeLater), Progress.NONE);
    }

    @Test
    void twoFilesThatChangedTheirNamesChangeThemBackAndKeepTheirLines() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "the first");
            p.save("b", "the second");
            p.capture();
            Instant then = p.now();
            long first = p.line("a").id();
            long second = p.line("b").id();
            Files.move(p.path("a"), p.path("x"));
            Files.move(p.path("b"), p.path("a"));
            Files.move(p.path("x"), p.path("b"));
            p.capture();
            back(p, then, true, "");
            assertThat(p.read("a")).isEqualTo("the first");
            assertThat(p.read("b")).isEqualTo("the second");
            assertThat(List.of(p.line("a").id(), p.line("b").id())).containsExactly(first, second);
        }
    }

    @Test
    void aFileGoesBackAlthoughAnotherTookItsPlaceInTheSameStep() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("b", "same");
            p.save("c", "same");
            p.capture();
            Instant then = p.now();
            Files.createDirectory(p.path("d"));
            Files.move(p.path("b"), p.path("d/x"));
            p.capture();
            Files.move(p.path("c"), p.path("b"));
            p.capture();
            RestoreResult result = back(p, then, true, "");
            assertThat(result.items()).extracting(RestoreResult.Item::why).containsOnly("");
            assertThat(p.read("b")).isEqualTo("same");
            assertThat(p.read("c")).isEqualTo("same");
            assertThat(p.path("d")).doesNotExist();
        }
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aFileThatWasRemovedComesBackAlthoughAnotherWithItsContentHasItsName(boolean removeLater) throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "same");
            p.save("b", "same");
            p.capture();
            Instant then = p.now();
            long a = p.line("a").id();
            long b = p.line("b").id();
            Files.delete(p.path("b"));
            p.capture();
            Files.move(p.path("a"), p.path("b"));
            p.capture();
            assertThat(p.line("b").id()).isEqualTo(a);
            RestoreResult result = back(p, then, removeLater, "");
            assertThat(result.items()).extracting(RestoreResult.Item::why).containsOnly("");
            assertThat(p.read("a")).isEqualTo("same");
            assertThat(p.read("b")).isEqualTo("same");
            assertThat(List.of(p.line("a").id(), p.line("b").id())).containsExactly(a, b);
            assertThat(p.recovery().undo(last(p)).failed()).isEmpty();
            assertThat(p.path("a")).doesNotExist();
            assertThat(p.line("b").id()).isEqualTo(a);
        }
    }

    @Test
    void aFileThatWasRemovedComesBackAlthoughALaterOneWithItsContentGoesFromItsName() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "same");
            p.capture();
            Instant then = p.now();
            long a = p.line("a").id();
            p.save("later", "same");
            p.capture();
            Files.delete(p.path("a"));
            p.capture();
            Files.move(p.path("later"), p.path("a"));
            p.capture();
            assertThat(p.line("a").id()).isNotEqualTo(a);
            back(p, then, true, "");
            assertThat(p.read("a")).isEqualTo("same");
            assertThat(p.recovery().undo(last(p)).failed()).isEmpty();
            assertThat(p.read("a")).isEqualTo("same");
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"x", "y", "deep/x"})
    void aFileComesBackOutOfAFolderThatHasItsName(String inside) throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("x", "in the way of itself");
            p.capture();
            Instant then = p.now();
            long line = p.line("x").id();
            Files.move(p.path("x"), p.path("aside"));
            Files.createDirectories(p.path("x/" + inside).getParent());
            Files.move(p.path("aside"), p.path("x/" + inside));
            p.capture();
            assertThat(p.line("x/" + inside).id()).isEqualTo(line);
            RestoreResult result = back(p, then, true, "");
            assertThat(result.items()).extracting(RestoreResult.Item::why).containsOnly("");
            assertThat(p.read("x")).isEqualTo("in the way of itself");
            assertThat(p.line("x").id()).isEqualTo(line);
            assertThat(p.recovery().undo(last(p)).failed()).isEmpty();
            assertThat(p.read("x/" + inside)).isEqualTo("in the way of itself");
            assertThat(p.line("x/" + inside).id()).isEqualTo(line);
        }
    }

    @Test
    void aMovedFileGoesBackAlongItsLine() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("plan", "of the orchard");
            p.capture();
            Instant then = p.now();
            long line = p.line("plan").id();
            Files.createDirectory(p.path("old"));
            Files.move(p.path("plan"), p.path("old/plan"));
            p.capture();
            RestorePlan plan = p.recovery().plan(new Rollback(List.of(""), then, true), Progress.NONE);
            assertThat(plan.items()).singleElement().satisfies(i -> {
                assertThat(i.step()).isEqualTo(RestorePlan.Step.MOVE_BACK);
                assertThat(i.reason()).contains("old/plan");
            });
            back(p, then, true, "");
            assertThat(p.line("plan").id()).isEqualTo(line);
            assertThat(p.path("old"))
                    .as("a folder that came later and is empty now")
                    .doesNotExist();
            assertThat(p.line("plan").versions())
                    .as("the same content is no new version")
                    .hasSize(1);
        }
    }

    @Test
    void aFolderOfThatMomentComesBackAndTheFilesThatCameLaterStayOrGo() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("Seasons/a", "one");
            Files.createDirectory(p.path("Seasons/empty"));
            p.save("outside", "of the scope");
            p.capture();
            Instant then = p.now();
            p.save("Seasons/a", "two");
            p.save("Seasons/later", "came later");
            p.save("outside", "changed too");
            Files.delete(p.path("Seasons/empty"));
            p.capture();
            RestoreResult left = back(p, then, false, "Seasons");
            assertThat(p.read("Seasons/a")).isEqualTo("one");
            assertThat(p.read("Seasons/later")).isEqualTo("came later");
            assertThat(p.path("Seasons/empty")).isDirectory();
            assertThat(p.read("outside")).isEqualTo("changed too");
            assertThat(left.items())
                    .extracting(i -> i.plan().step())
                    .containsExactly(RestorePlan.Step.REPLACE, RestorePlan.Step.LEAVE);
            back(p, then, true, "Seasons");
            assertThat(p.path("Seasons/later")).doesNotExist();
            assertThat(p.line("Seasons/later").versions()).hasSize(1);
        }
    }

    @Test
    void chosenFilesGoBackAlone() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            p.save("b", "one");
            p.capture();
            Instant then = p.now();
            p.save("a", "two");
            p.save("b", "two");
            p.save("new", "later");
            p.capture();
            back(p, then, true, "a");
            assertThat(p.read("a")).isEqualTo("one");
            assertThat(p.read("b")).isEqualTo("two");
            assertThat(p.path("new")).exists();
            assertThatThrownBy(() -> back(p, then, true, "new")).hasMessageContaining("not there at that moment");
            assertThatThrownBy(() -> back(p, then, true, "nowhere")).isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    void aFileThatTakesTheNameOfOneOfThatMomentMakesRoomAndKeepsItsPast() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("plan", "the old one");
            p.capture();
            Instant then = p.now();
            Files.move(p.path("plan"), p.path("archive"));
            p.capture();
            p.save("plan", "another one");
            p.capture();
            long other = p.line("plan").id();
            back(p, then, false, "");
            assertThat(p.read("plan")).isEqualTo("the old one");
            assertThat(p.path("archive")).doesNotExist();
            try (Reading reading = p.vault().read()) {
                assertThat(reading.line(other).orElseThrow().versions()).hasSize(1);
                assertThat(reading.line(other).orElseThrow().removed()).isPresent();
            }
        }
    }

    @Test
    void whatIsUndoneIsListedAndSurvivesANewStart() throws IOException {
        Instant then;
        Map<String, String> before;
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            p.capture();
            then = p.now();
            p.save("a", "two");
            p.save("b", "later");
            p.capture();
            before = Trees.look(p.folder());
            p.later(5);
            back(p, then, true, "");
        }
        try (TestPlace p = new TestPlace(temp)) {
            p.at(then.plusSeconds(6000));
            List<Action> actions;
            try (Reading reading = p.vault().read()) {
                actions = JournalStore.of(reading).undoable(10);
            }
            assertThat(actions).singleElement().satisfies(a -> {
                assertThat(a.kind()).isEqualTo(ActionKind.ROLLED_BACK);
                assertThat(a.who()).isEqualTo("Tomas");
                assertThat(a.items()).hasSize(2);
            });
            p.recovery().undo(actions.get(0));
            assertThat(Trees.look(p.folder())).isEqualTo(before);
            try (Reading reading = p.vault().read()) {
                assertThat(JournalStore.of(reading).undoable(10)).isEmpty();
            }
        }
    }

    @Test
    void aCancelledUndoCanBeUndoneToItsEndLater() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            for (int i = 0; i < 5; i++) {
                p.save("d" + i + "/f", "one");
            }
            p.capture();
            Instant then = p.now();
            for (int i = 0; i < 5; i++) {
                p.save("d" + i + "/f", "two");
            }
            p.capture();
            Map<String, String> before = Trees.look(p.folder());
            back(p, then, true, "");
            Action action;
            try (Reading reading = p.vault().read()) {
                action = JournalStore.of(reading).lastUndoable().orElseThrow();
            }
            Job job = new Job("undo", () -> {});
            Progress afterTwo = new Progress() {
                private int done;

                @Override
                public void advance(long files, long bytes) {
                    done += (int) files;
                    if (done >= 2) {
                        job.cancel();
                    }
                }

                @Override
                public boolean isCancelled() {
                    return job.isCancelled();
                }
            };
            assertThat(p.recovery().undo(action, afterTwo).failed()).hasSize(3);
            assertThat(p.recovery().undo(action).failed()).isEmpty();
            assertThat(Trees.look(p.folder())).isEqualTo(before);
        }
    }

    @Test
    void aLargeFileIsCancelledInTheMiddleAndNothingOfItIsLeft() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            byte[] noise = new byte[3_000_000];
            new java.util.Random(9).nextBytes(noise);
            p.save("large", noise);
            p.capture();
            Instant then = p.now();
            p.save("large", "small now");
            p.capture();
            Job job = new Job("roll back", () -> {});
            Progress inTheMiddle = new Progress() {
                private long written;

                @Override
                public void advance(long files, long bytes) {
                    written += bytes;
                    if (written > 500_000) {
                        job.cancel();
                    }
                }

                @Override
                public boolean isCancelled() {
                    return job.isCancelled();
                }
            };
            RestoreResult result = p.recovery().rollBack(new Rollback(List.of(""), then, true), inTheMiddle);
            assertThat(result.cancelled()).isTrue();
            assertThat(result.items()).isEmpty();
            assertThat(p.read("large")).isEqualTo("small now");
            try (var left = Files.list(p.folder())) {
                assertThat(left).hasSize(1);
            }
        }
    }

    @Test
    void whatWasCutShortBetweenTheJournalAndTheFolderCanBeUndone() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            p.capture();
            Instant then = p.now();
            p.save("a", "two");
            p.capture();
            Map<String, String> before = Trees.look(p.folder());
            back(p, then, true, "");
            // As after a kill between moving into place and putting the point down: the folder is ahead of the
            // catalogue.
            Action action;
            try (Reading reading = p.vault().read()) {
                action = JournalStore.of(reading).lastUndoable().orElseThrow();
            }
            p.save("a", "something that nobody has put down yet");
            assertThat(p.recovery().undo(action).failed()).isEmpty();
            assertThat(Trees.look(p.folder())).isEqualTo(before);
            assertThat(p.line("a").versions())
                    .as("what was there is kept")
                    .anySatisfy(v -> assertThat(v.size()).isEqualTo("something that nobody has put down yet".length()));
        }
    }

    @Test
    void aFileWhereAFolderHasToBeIsRefusedWhateverIsChosen() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("sub/a", "one");
            p.capture();
            Version a = p.line("sub/a").newest().orElseThrow();
            Files.delete(p.path("sub/a"));
            Files.delete(p.path("sub"));
            p.save("sub", "a file now");
            p.capture();
            for (Collision c : Collision.values()) {
                RestorePlan plan = p.recovery().plan(List.of(new RestoreItem(a, "sub/a")), c);
                assertThat(plan.items()).extracting(RestorePlan.Item::step).containsExactly(RestorePlan.Step.REFUSE);
                RestoreResult result = p.recovery().restore(List.of(new RestoreItem(a, "sub/a")), c, Progress.NONE);
                assertThat(result.count(RestoreResult.Outcome.FAILED)).isEqualTo(1);
            }
            assertThat(p.read("sub")).isEqualTo("a file now");
        }
    }

    @Test
    void cancelledWhileItReadsWhatWasKeptNothingIsTouched() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            p.save("b", "two");
            p.capture();
            Instant then = p.now();
            p.later(5);
            p.save("a", "one, later");
            p.save("b", "two, later");
            p.save("late/c", "three");
            p.capture();
            Job job = new Job("", () -> {});
            Progress whileReading = new Progress() {
                @Override
                public void begin(String step, long files, long bytes) {
                    if (step.equals(Words.of("plan.reading"))) {
                        job.cancel();
                    }
                }

                @Override
                public boolean isCancelled() {
                    return job.isCancelled();
                }
            };
            Rollback rollback = new Rollback(List.of(""), then, true);
            assertThat(p.recovery().rollBack(rollback, whileReading)).isEqualTo(RestoreResult.CANCELLED);
            assertThatThrownBy(() -> p.recovery().plan(rollback, whileReading))
                    .isInstanceOf(InterruptedIOException.class);
            assertThat(p.read("a")).isEqualTo("one, later");
            assertThat(p.read("late/c")).isEqualTo("three");
            assertThat(p.recovery().rollBack(rollback, Progress.NONE).cancelled())
                    .isFalse();
            assertThat(p.read("a")).isEqualTo("one");
            assertThat(p.path("late")).doesNotExist();
        }
    }

    @Test
    void aFolderThatIsThereElsewhereKeepsItsOwnPermissions() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("sub/a", "one");
            p.save("new/b", "two");
            Files.setPosixFilePermissions(p.path("new"), PosixFilePermissions.fromString("rwxr-x---"));
            p.capture();
            Path into = temp.resolve("into");
            Files.createDirectories(into.resolve("sub"));
            Files.setPosixFilePermissions(into.resolve("sub"), PosixFilePermissions.fromString("rwx------"));
            RestoreRequest request;
            try (Reading reading = p.vault().read()) {
                request = new Selection(List.of(""), p.now())
                        .request(reading, p.place(), true, Collisions.all(Collision.KEEP_BOTH), Progress.NONE);
            }
            new FolderRestore(p.vault(), into).restore(request, Progress.NONE);
            assertThat(into.resolve("sub/a")).hasContent("one");
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(into.resolve("sub"))))
                    .isEqualTo("rwx------");
            assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(into.resolve("new"))))
                    .isEqualTo("rwxr-x---");
        }
    }

    @Test
    void tooLittleRoomAndNamesThatTheTargetCannotHoldAreFoundBefore() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("Plan.txt", "one");
            p.save("plan.txt", "two");
            p.save("what?.txt", "three");
            p.save("aux.txt", "four");
            p.save("fine.txt", "five");
            p.capture();
            List<RestoreItem> requested;
            try (Reading reading = p.vault().read()) {
                requested = reading.folders().treeAt(p.place(), "", p.now()).files().entrySet().stream()
                        .map(e -> new RestoreItem(e.getValue(), e.getKey()))
                        .toList();
            }
            TargetFacts stick = new TargetFacts("the stick", 5, true, true, true, false, Long.MAX_VALUE, true);
            RestoreRequest request = RestoreRequest.restore(requested, Collisions.all(Collision.REPLACE));
            RestorePlan plan = RestorePlanner.plan(request, path -> java.util.Optional.empty(), stick, Progress.NONE);
            assertThat(plan.items())
                    .extracting(i -> i.target() + " " + i.step())
                    .containsExactlyInAnyOrder(
                            "Plan.txt CREATE",
                            "plan.txt REFUSE",
                            "what?.txt REFUSE",
                            "aux.txt REFUSE",
                            "fine.txt CREATE");
            assertThat(plan.preflight().isGood()).isFalse();
            assertThat(plan.preflight().stops()).contains("7 B are needed").contains("5 B are free");
            assertThat(PlanReport.csv(plan, CsvTable.Cells.TEXT))
                    .contains("Plan.txt,1,3,Plan.txt,CREATE,nothing has this name now");
            assertThat(PlanReport.json(plan)).contains("\"step\" : \"REFUSE\"").contains("\"neededBytes\" : 7");
        }
    }

    /** Everything in a folder: files by path with their content, folders with a slash. */
    private static Map<String, String> disk(TestPlace p) throws IOException {
        Map<String, String> found = new java.util.TreeMap<>();
        try (var all = Files.walk(p.folder())) {
            for (Path path : all.filter(f -> !f.equals(p.folder())).toList()) {
                String name = p.folder().relativize(path).toString();
                found.put(
                        Files.isDirectory(path) ? name + "/" : name,
                        Files.isDirectory(path) ? "" : Files.readString(path));
            }
        }
        return found;
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aFileAndAFolderThatChangedTheirNamesChangeThemBackInOneRunAndUndoTurnsThemAgain(boolean removeLater)
            throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("x", "the file");
            p.save("y/f", "in the folder");
            p.save("y/deep/g", "deeper");
            p.capture();
            Instant then = p.now();
            Map<String, String> was = disk(p);
            long file = p.line("x").id();
            long inside = p.line("y/deep/g").id();
            Files.move(p.path("x"), p.path("z"));
            Files.move(p.path("y"), p.path("x"));
            Files.move(p.path("z"), p.path("y"));
            p.capture();
            Map<String, String> is = disk(p);
            RestorePlan plan = p.recovery().plan(new Rollback(List.of(""), then, removeLater), Progress.NONE);
            assertThat(plan.count(RestorePlan.Step.REFUSE)).isZero();
            RestoreResult result = back(p, then, removeLater, "");
            assertThat(result.count(RestoreResult.Outcome.FAILED)).isZero();
            assertThat(disk(p)).isEqualTo(was);
            assertThat(p.line("x").id()).isEqualTo(file);
            assertThat(p.line("y/deep/g").id()).isEqualTo(inside);
            assertThat(p.capture().points()).as("the catalogue knows all of it").isZero();
            assertThat(p.recovery().undo(last(p)).failed()).isEmpty();
            assertThat(disk(p)).isEqualTo(is);
            assertThat(p.capture().points()).isZero();
            assertThat(p.line("y").id()).isEqualTo(file);
        }
    }

    @Test
    void aFolderWithWhatNobodyKeepsMakesNoRoomForAFile() throws IOException {
        try (TestPlace p = new TestPlace(temp, "*.tmp")) {
            p.save("x", "the file");
            p.capture();
            Instant then = p.now();
            Files.move(p.path("x"), p.path("y"));
            p.save("x/f", "came later");
            p.save("x/work.tmp", "excluded");
            p.capture();
            RestoreResult result = back(p, then, true, "");
            assertThat(result.items())
                    .filteredOn(i -> i.outcome() == RestoreResult.Outcome.FAILED)
                    .singleElement()
                    .satisfies(i -> assertThat(i.why()).isEqualTo("a folder has this name"));
            assertThat(p.read("y")).isEqualTo("the file");
            assertThat(p.read("x/work.tmp")).isEqualTo("excluded");
        }
    }

    @Test
    void aVersionThatWasLetGoCostsItselfAndThePlanSaysSo() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            p.save("b", "one");
            p.capture();
            Instant then = p.now();
            p.save("a", "two");
            p.save("b", "two");
            p.capture();
            new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                    .erase(p.line("a").id(), Erasing.What.VERSION, 1, Progress.NONE);
            new Reclaim(p.vault(), p.clock()).endGrace("Ada", Progress.NONE);
            Rollback rollback = new Rollback(List.of(""), then, false);
            RestorePlan plan = p.recovery().plan(rollback, Progress.NONE);
            assertThat(plan.items())
                    .filteredOn(i -> i.step() == RestorePlan.Step.REFUSE)
                    .singleElement()
                    .satisfies(i -> assertThat(i.why()).startsWith("its content was let go"));
            assertThat(plan.acting()).isEqualTo(1);
            RestoreResult result = p.recovery().rollBack(rollback, Progress.NONE);
            assertThat(result.count(RestoreResult.Outcome.FAILED)).isEqualTo(1);
            assertThat(p.read("a")).isEqualTo("two");
            assertThat(p.read("b")).isEqualTo("one");
        }
    }

    private static Action last(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            return JournalStore.of(reading).lastUndoable().orElseThrow();
        }
    }
}
