package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.Tries;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.intake.FolderLines;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.snapshots.Snapshots;

/** Undoing says what it undid, and can be taken back. */
class UndoingTest {

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

    private interface Question<T> {
        T ask(JournalStore journal) throws IOException;
    }

    private <T> T journal(Question<T> question) throws IOException {
        try (Reading reading = p.vault().read()) {
            return question.ask(JournalStore.of(reading));
        }
    }

    private List<Action> undoable() throws IOException {
        return journal(j -> j.undoable(9));
    }

    private FileWork.Undone undo() throws IOException {
        return p.recovery().undo(journal(j -> j.lastUndoable().orElseThrow()));
    }

    private FileWork.Undone redo() throws IOException {
        return p.recovery().redo(journal(j -> j.lastRedoable().orElseThrow()), Progress.NONE);
    }

    private void versions(String... texts) throws IOException {
        for (String text : texts) {
            p.save("a.txt", text);
            p.capture();
        }
    }

    private Version version(int number) throws IOException {
        return p.line("a.txt").version(number).orElseThrow();
    }

    private int waiting() throws IOException {
        try (Reading reading = p.vault().read()) {
            return PendingDeletionStore.of(reading).waiting().size();
        }
    }

    static LongStream seeds() {
        return Tries.seeds(3);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void undosAndTheirTakingBackGoThroughTheSameStates(long seed) throws IOException {
        Random random = new Random(seed);
        for (int i = 0; i < 12; i++) {
            Trees.change(p, random);
            p.capture();
        }
        java.time.Instant then = p.now();
        for (int i = 0; i < 8; i++) {
            Trees.change(p, random);
            p.capture();
        }
        List<Map<String, String>> states = new ArrayList<>();
        states.add(Trees.look(p.folder()));
        for (int i = 0; i < 4; i++) {
            boolean acted = act(random, then);
            if (acted) {
                states.add(Trees.look(p.folder()));
            }
        }
        for (int round = 0; round < 2; round++) {
            for (int i = states.size() - 2; i >= 0; i--) {
                assertThat(undo().failed()).isEmpty();
                assertThat(Trees.look(p.folder())).as("undone to %s", i).isEqualTo(states.get(i));
            }
            for (int i = 1; i < states.size(); i++) {
                assertThat(redo().failed()).isEmpty();
                assertThat(Trees.look(p.folder())).as("done again to %s", i).isEqualTo(states.get(i));
            }
            assertThat(journal(JournalStore::lastRedoable)).isEmpty();
        }
        assertThat(p.check().isClean()).isTrue();
    }

    private boolean act(Random random, java.time.Instant then) throws IOException {
        List<String> files = new ArrayList<>();
        Trees.look(p.folder()).keySet().stream().filter(f -> !f.endsWith("/")).forEach(files::add);
        return switch (files.isEmpty() ? 0 : random.nextInt(3)) {
            case 0 ->
                p.recovery()
                                .rollBack(new Rollback(List.of(""), then, random.nextBoolean()), Progress.NONE)
                                .action()
                        != 0;
            case 1 ->
                p.recovery()
                                .remove(List.of(files.get(random.nextInt(files.size()))))
                                .action()
                        != 0;
            default -> {
                Path file = Files.writeString(temp.resolve("in.txt"), "put in " + random.nextInt());
                p.recovery().put(file, files.get(random.nextInt(files.size())), "", Progress.NONE);
                yield true;
            }
        };
    }

    @Test
    void anUndoSaysWhatItUndid() throws IOException {
        versions("one", "two");
        p.recovery().restore(List.of(new RestoreItem(version(1), "a.txt")), Collision.REPLACE, Progress.NONE);
        assertThat(undo().undoneWords()).isEqualTo("Undone: a.txt restored (Tomas). 1 file is as it was before.");
        assertThat(p.read("a.txt")).isEqualTo("two");
        assertThat(redo().redoneWords())
                .isEqualTo("Done again: a.txt restored (Tomas). 1 file is as it was after that.");
        assertThat(p.read("a.txt")).isEqualTo("one");
    }

    @Test
    void anUndoThatFindsAllAsItWasSaysSo() throws IOException {
        versions("one", "two");
        p.recovery().restore(List.of(new RestoreItem(version(1), "a.txt")), Collision.REPLACE, Progress.NONE);
        Version two = version(2);
        Files.writeString(p.path("a.txt"), "two");
        Files.setLastModifiedTime(
                p.path("a.txt"),
                java.nio.file.attribute.FileTime.from(two.mtimeNanos(), java.util.concurrent.TimeUnit.NANOSECONDS));
        assertThat(undo().undoneWords())
                .isEqualTo("Undone: a.txt restored (Tomas). Everything was as before already;"
                        + " nothing had to be changed.");
    }

    @Test
    void aRestoreThatFoundAllAsItWasIsNoAction() throws IOException {
        versions("one", "two");
        p.recovery().remove(List.of("a.txt"));
        undo();
        p.save("b.txt", "other");
        p.recovery().remove(List.of("b.txt"));
        p.recovery().restore(List.of(new RestoreItem(version(2), "a.txt")), Collision.REPLACE, Progress.NONE);
        assertThat(undo().action().kind()).isEqualTo(ActionKind.REMOVED);
        assertThat(p.read("b.txt")).isEqualTo("other");
    }

    @Test
    void whatIsDoneAfterAnUndoEndsTheWayBackThroughIt() throws IOException {
        versions("one", "two");
        p.recovery().restore(List.of(new RestoreItem(version(1), "a.txt")), Collision.REPLACE, Progress.NONE);
        undo();
        Action first = journal(j -> j.lastRedoable().orElseThrow());
        p.save("b.txt", "other");
        p.recovery().remove(List.of("b.txt"));
        assertThat(journal(JournalStore::lastRedoable)).isEmpty();
        List<Action> others = journal(j -> j.redoable(9));
        assertThat(others).extracting(Action::id).containsExactly(first.id());
        p.recovery().redo(first, Progress.NONE);
        assertThat(p.read("a.txt")).isEqualTo("one");
    }

    @Test
    void eraseIsOneActionThatIsUndoneAndDoneAgain() throws IOException {
        versions("one", "two", "three");
        long line = p.line("a.txt").id();
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                .erase(line, Erasing.What.VERSION, 3, Progress.NONE);
        assertThat(p.read("a.txt")).isEqualTo("two");
        assertThat(undoable()).extracting(Action::kind).containsExactly(ActionKind.LET_GO);
        undo();
        assertThat(p.read("a.txt")).isEqualTo("three");
        assertThat(waiting()).isZero();
        assertThat(undoable()).as("nothing is left to undo").isEmpty();
        redo();
        assertThat(p.read("a.txt")).isEqualTo("two");
        assertThat(waiting()).isEqualTo(1);
        undo();
        assertThat(p.read("a.txt")).isEqualTo("three");
    }

    @Test
    void onlyThePastErasedComesBackAndGoesAgain() throws IOException {
        versions("one", "two", "three");
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                .erase(p.line("a.txt").id(), Erasing.What.OLDER, 0, Progress.NONE);
        assertThat(waiting()).isEqualTo(2);
        undo();
        assertThat(waiting()).isZero();
        assertThat(redo().done()).containsExactly("a.txt");
        assertThat(waiting()).isEqualTo(2);
        assertThat(p.read("a.txt")).isEqualTo("three");
    }

    @Test
    void notesAndSnapshotsComeBackAndGoAgain() throws IOException {
        versions("one");
        new FolderLines(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                .note(version(1), "for the bank");
        undo();
        assertThat(version(1).note()).isEmpty();
        redo();
        assertThat(version(1).note()).isEqualTo("for the bank");
        Snapshots snapshots = new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"));
        p.later(1);
        Snapshot s = snapshots.take("", "closing", Progress.NONE);
        snapshots.erase(List.of(s.id()));
        undo();
        assertThat(erased(s)).isEmpty();
        redo();
        assertThat(erased(s)).isPresent();
        undo();
        assertThat(erased(s)).isEmpty();
    }

    private Optional<java.time.Instant> erased(Snapshot s) throws IOException {
        try (Reading reading = p.vault().read()) {
            return SnapshotStore.of(reading).snapshot(s.id()).orElseThrow().erased();
        }
    }
}
