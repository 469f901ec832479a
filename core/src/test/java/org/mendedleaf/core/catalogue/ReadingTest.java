package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Totals;

class ReadingTest {

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

    private List<Entry> listing(String folder, Instant at, boolean removed) throws IOException {
        try (Reading r = p.vault().read()) {
            return r.folders().listing(p.place(), folder, at, removed);
        }
    }

    @Test
    void removedFilesAreListedInTheirPlaceFromTheirRemovalOn() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        Instant before = p.now();
        Files.delete(p.path("a.txt"));
        p.capture();
        assertThat(listing("", p.now(), false)).isEmpty();
        assertThat(listing("", p.now(), true))
                .singleElement()
                .satisfies(e -> assertThat(e.removed()).isPresent());
        assertThat(listing("", before, true))
                .singleElement()
                .satisfies(e -> assertThat(e.removed()).isEmpty());
    }

    @Test
    void aFileThatCameBackIsNotListedAsRemoved() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        Files.delete(p.path("a.txt"));
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        assertThat(listing("", p.now(), true))
                .singleElement()
                .satisfies(e -> assertThat(e.removed()).isEmpty());
    }

    @Test
    void aRenamedFileIsNotListedAsRemovedUnderItsOldName() throws IOException {
        p.save("old.txt", "one");
        p.save("folder/b.txt", "two");
        p.capture();
        Files.move(p.path("old.txt"), p.path("new.txt"));
        Files.move(p.path("folder"), p.path("other"));
        p.capture();
        assertThat(listing("", p.now(), true)).extracting(Entry::name).containsExactlyInAnyOrder("new.txt", "other");
    }

    @Test
    void aRemovedFolderIsListedWithWhatWasLostInIt() throws IOException {
        p.save("folder/b.txt", "two");
        p.capture();
        Files.delete(p.path("folder/b.txt"));
        Files.delete(p.path("folder"));
        p.capture();
        assertThat(listing("", p.now(), true))
                .singleElement()
                .satisfies(e -> assertThat(e.removed()).isPresent());
        assertThat(listing("folder", p.now(), true)).extracting(Entry::name).containsExactly("b.txt");
    }

    @Test
    void sumsAreThoseOfTheMoment() throws IOException {
        p.save("folder/a.txt", "12345");
        p.save("folder/deep/b.txt", "123");
        p.capture();
        Instant then = p.now();
        p.save("folder/a.txt", "1234567890");
        Files.delete(p.path("folder/deep/b.txt"));
        p.capture();
        try (Reading r = p.vault().read()) {
            assertThat(r.folders().totals(p.place(), "folder", then).size()).isEqualTo(8);
            assertThat(r.folders().totals(p.place(), "folder", then).files()).isEqualTo(2);
            Totals now = r.folders().totals(p.place(), "folder", p.now());
            assertThat(now.size()).isEqualTo(10);
            assertThat(now.files()).isEqualTo(1);
            assertThat(now.versions()).isEqualTo(2);
            assertThat(now.versionBytes()).isEqualTo(15);
        }
    }

    @Test
    void changesAreCountedPerHourWithoutTheFirstCapture() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.later(120);
        p.save("a.txt", "two");
        long hour = p.now().getEpochSecond() / 3600;
        p.capture();
        try (Reading r = p.vault().read()) {
            assertThat(r.changes().density(p.place(), 0, Long.MAX_VALUE)).containsOnly(java.util.Map.entry(hour, 1));
            assertThat(r.changes().captures(p.place())).hasSize(2);
            assertThat(r.changes().captures(p.place()).get(0).first()).isTrue();
        }
    }

    @Test
    void stepsLeadFromChangeToChange() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        Instant second = p.now();
        p.later(10);
        p.capture();
        p.save("a.txt", "three");
        Instant third = p.now();
        p.later(10);
        p.capture();
        try (Reading r = p.vault().read()) {
            assertThat(r.changes().changeBefore(p.place(), "", p.now())).contains(third);
            assertThat(r.changes().changeBefore(p.place(), "", third)).contains(second);
            assertThat(r.changes().changeAfter(p.place(), "", second)).contains(third);
            assertThat(r.changes().changeAfter(p.place(), "", third)).isEmpty();
            assertThat(r.changes().firstChangeFrom(p.place(), second)).contains(second);
        }
    }

    @Test
    void aPathMeansTheFileThatIsThereBeforeThoseThatWere() throws IOException {
        p.save("a.txt", "first");
        p.capture();
        Files.move(p.path("a.txt"), p.path("b.txt"));
        p.capture();
        p.save("a.txt", "second");
        p.capture();
        long second = p.line("a.txt").id();
        Files.delete(p.path("a.txt"));
        p.capture();
        assertThat(p.line("a.txt").id())
                .as("the removed one before the renamed one")
                .isEqualTo(second);
    }

    @Test
    void whatWasNeverThereIsNotFound() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        try (Reading r = p.vault().read()) {
            assertThat(r.line(p.place(), "b.txt")).isEmpty();
            assertThat(r.line(p.place(), "no/such/folder.txt")).isEmpty();
            assertThat(r.line(p.place(), "")).isEmpty();
            assertThat(r.line(999)).isEmpty();
            assertThat(r.folders().listing(p.place(), "no", p.now(), true)).isEmpty();
        }
    }

    private List<String> states() throws IOException {
        try (Reading r = p.vault().read()) {
            return List.of(r.state(), r.state(p.place().id()));
        }
    }

    private interface Work {
        void in(WriteSession session) throws IOException;
    }

    private void commit(Work work) throws IOException {
        try (WriteSession session = p.vault().write()) {
            work.in(session);
            session.commit();
        }
    }

    /** Who looked in the middle of it has not seen all, and looks again when it has ended. */
    @Test
    void aFirstCaptureAndAnActionMakeOneStateWhenTheyBeginAndAnotherWhenTheyHaveEnded() throws IOException {
        long[] id = new long[2];
        List<String> first = states();
        Instant began = p.now();
        commit(s -> id[0] = new PlaceWriter(s).capture(p.place(), 0, new CaptureRecord(began, began, true, 0, 0)));
        List<String> capturing = states();
        commit(s -> new PlaceWriter(s)
                .capture(p.place(), id[0], new CaptureRecord(began, began.plusSeconds(9), true, 5, 50)));
        List<String> captured = states();
        commit(s -> id[1] = JournalStore.begin(
                s, new Action(0, began, "Ines", ActionKind.RESTORED, p.place().id(), 0, true, List.of())));
        List<String> acting = states();
        try (WriteSession session = p.vault().write()) {
            JournalStore.end(session, id[1], new JournalEnds.End(java.time.Duration.ofSeconds(3), 0));
            session.commit();
        }
        List<String> acted = states();
        for (int i = 0; i < 2; i++) {
            assertThat(List.of(first.get(i), capturing.get(i), captured.get(i), acting.get(i), acted.get(i)))
                    .doesNotHaveDuplicates();
        }
        assertThat(states()).isEqualTo(acted);
    }

    @Test
    void whatHappensInOnePlaceLeavesTheStateOfAnother() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        List<String> before = states();
        commit(s -> new PlaceWriter(s)
                .capture(
                        new PlaceWriter(s)
                                .protect(
                                        Files.createDirectories(temp.resolve("other"))
                                                .toRealPath(),
                                        "other",
                                        PlaceChange.to(Rhythm.BY_HAND),
                                        p.now()),
                        0,
                        new CaptureRecord(p.now(), p.now(), true, 1, 1)));
        assertThat(states().get(0)).isNotEqualTo(before.get(0));
        assertThat(states().get(1)).isEqualTo(before.get(1));
    }
}
