package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Totals;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;

/**
 * What a vault is asked, by topic. One small history: a folder with a letter that is saved three times, moved, and removed;
 * a copy of it; and a folder that nobody touches.
 */
class QueriesTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private Instant first;
    private Instant second;
    private Instant moved;
    private Instant removed;
    private Reading r;

    @BeforeEach
    void live() throws IOException {
        p = new TestPlace(temp);
        p.save("mail/letter.txt", "one");
        p.save("still/other.txt", "untouched");
        p.capture();
        first = p.now();
        p.save("mail/letter.txt", "second");
        p.save("mail/copy.txt", "one");
        p.capture();
        second = p.now();
        p.later(60);
        Files.move(p.path("mail/letter.txt"), p.path("moved.txt"));
        p.capture();
        moved = p.now();
        p.later(60);
        Files.delete(p.path("moved.txt"));
        p.capture();
        removed = p.now();
        r = p.vault().read();
    }

    @AfterEach
    void end() throws IOException {
        r.close();
        p.close();
    }

    private List<String> names(String folder, Instant at, boolean gone) throws IOException {
        return r.folders().listing(p.place(), folder, at, gone).stream()
                .map(Entry::name)
                .sorted()
                .toList();
    }

    private Line letter() throws IOException {
        return r.line(p.place(), "moved.txt").orElseThrow();
    }

    // Folders.

    @Test
    void aFolderIsListedAsItWasAtEachMoment() throws IOException {
        assertThat(names("mail", first, false)).containsExactly("letter.txt");
        assertThat(names("mail", second, false)).containsExactly("copy.txt", "letter.txt");
        assertThat(names("mail", moved, false)).containsExactly("copy.txt");
        assertThat(names("", moved, false)).containsExactly("mail", "moved.txt", "still");
        assertThat(names("", removed, false)).containsExactly("mail", "still");
        assertThat(names("mail", TestPlace.START.minusSeconds(60), false)).isEmpty();
    }

    @Test
    void whatWasRemovedIsListedWhereItWasOnlyWhenThatIsAskedFor() throws IOException {
        assertThat(names("", removed, true)).containsExactly("mail", "moved.txt", "still");
        assertThat(names("mail", removed, true))
                .as("it was moved from there, not removed")
                .containsExactly("copy.txt");
        Entry gone = r.folders().listing(p.place(), "", removed, true).stream()
                .filter(e -> e.name().equals("moved.txt"))
                .findFirst()
                .orElseThrow();
        assertThat(gone.removed()).hasValueSatisfying(r -> assertThat(r.at()).isBetween(moved, removed));
    }

    @Test
    void whatNeverWasAFolderHoldsNothing() throws IOException {
        assertThat(r.folders().isFolder(p.place(), "mail")).isTrue();
        assertThat(r.folders().isFolder(p.place(), "never")).isFalse();
        assertThat(names("never", removed, true)).isEmpty();
        assertThat(r.folders().totals(p.place(), "never", removed)).isEqualTo(new Totals(0, 0, 0, 0, 0));
        assertThat(r.folders().tree(p.place(), "never", removed)).isEmpty();
        assertThat(r.folders().treeAt(p.place(), "never", removed).files()).isEmpty();
    }

    @Test
    void sumsAreThoseOfTheFolderAndAllBelowIt() throws IOException {
        Totals all = r.folders().totals(p.place(), "", second);
        assertThat(all.files()).isEqualTo(3);
        assertThat(all.size()).isEqualTo("second".length() + "one".length() + "untouched".length());
        assertThat(r.folders().totals(p.place(), "still", second).files()).isEqualTo(1);
        assertThat(r.folders().totals(p.place(), "", removed).files()).isEqualTo(2);
    }

    @Test
    void aTreeHoldsAllPathsAndTheVersionsThatWereThere() throws IOException {
        Map<String, Entry> tree = r.folders().tree(p.place(), "", second);
        assertThat(tree.keySet())
                .containsExactly("mail", "mail/copy.txt", "mail/letter.txt", "still", "still/other.txt");
        Map<String, Version> files = r.folders().treeAt(p.place(), "", first).files();
        assertThat(files.keySet()).containsExactly("mail/letter.txt", "still/other.txt");
        assertThat(files.get("mail/letter.txt").number()).isEqualTo(1);
    }

    @Test
    void twoMomentsDifferInWhatOnlyOneOfThemHolds() throws IOException {
        assertThat(r.folders().difference(p.place(), "still", first, removed).before())
                .isEmpty();
        assertThat(r.folders().difference(p.place(), "", first, second).after())
                .extracting(a -> a.path())
                .contains("mail/letter.txt", "mail/copy.txt");
        assertThat(r.folders().difference(p.place(), "", second, first).after())
                .as("the earlier one comes first")
                .isEmpty();
    }

    @Test
    void whatIsThereNowIsKnownByItsPath() throws IOException {
        assertThat(r.folders().live(p.place(), "mail/copy.txt")).isPresent();
        assertThat(r.folders().live(p.place(), "mail/letter.txt")).isEmpty();
        assertThat(r.folders().liveFiles(p.place()))
                .extracting(FolderQuery.LiveFile::path)
                .containsExactlyInAnyOrder("mail/copy.txt", "still/other.txt");
    }

    // Changes.

    @Test
    void changesOfAFolderAreItsOwn() throws IOException {
        assertThat(r.changes().changeBefore(p.place(), "mail", removed))
                .hasValueSatisfying(at -> assertThat(at).isAfter(second).isBeforeOrEqualTo(moved));
        assertThat(r.changes().changeAfter(p.place(), "mail", moved)).isEmpty();
        assertThat(r.changes().changeAfter(p.place(), "mail", first))
                .hasValueSatisfying(at -> assertThat(at).isAfter(first).isBeforeOrEqualTo(second));
        assertThat(r.changes().changeBefore(p.place(), "never", removed)).isEmpty();
    }

    @Test
    void theLastChangeIsThatOfWhatIsAskedAbout() throws IOException {
        assertThat(r.changes().lastChange(p.place(), "still"))
                .as("its first capture is no change")
                .isEmpty();
        assertThat(r.changes().lastChange(p.place(), ""))
                .hasValueSatisfying(at -> assertThat(at).isAfter(moved));
        assertThat(r.changes().lastChange(p.place(), "moved.txt"))
                .hasValueSatisfying(at -> assertThat(at).isAfter(moved));
        assertThat(r.changes().lastChange(p.place(), "never")).isEmpty();
    }

    @Test
    void capturesAreThoseThatChangedSomethingAndTheFirstIsMarked() throws IOException {
        p.later(60);
        p.capture();
        List<CaptureRecord> captures = r.changes().captures(p.place());
        assertThat(captures).hasSize(4);
        assertThat(captures.get(0).first()).isTrue();
        assertThat(captures.subList(1, 4)).noneMatch(CaptureRecord::first);
        assertThat(r.changes().firstCapture(p.place())).contains(captures.get(0).started());
        assertThat(r.changes().lastSave(p.place())).contains(captures.get(3).ended());
        assertThat(r.changes().firstChangeFrom(p.place(), second.plusSeconds(1)))
                .hasValueSatisfying(at -> assertThat(at).isAfter(second).isBeforeOrEqualTo(moved));
        assertThat(r.changes().firstChangeFrom(p.place(), removed.plus(Duration.ofDays(1))))
                .isEmpty();
    }

    @Test
    void changesAreCountedByTheHour() throws IOException {
        long hour = TestPlace.START.getEpochSecond() / 3600;
        Map<Long, Integer> density = r.changes().density(p.place(), hour, hour + 10);
        assertThat(density.values().stream().mapToInt(n -> n).sum()).isPositive();
        assertThat(r.changes().density(p.place(), hour - 20, hour - 10)).isEmpty();
    }

    // Lines and contents.

    @Test
    void aLineIsFoundUnderEveryNameItHadAndKnowsWhereItWas() throws IOException {
        Line line = letter();
        assertThat(r.line(p.place(), "mail/letter.txt").orElseThrow().id()).isEqualTo(line.id());
        assertThat(line.removed()).isPresent();
        assertThat(r.lines().pathAt(line.id(), first)).contains("mail/letter.txt");
        assertThat(r.lines().pathAt(line.id(), moved)).contains("moved.txt");
        assertThat(r.lines().pathAt(line.id(), removed)).isEmpty();
        assertThat(r.lines().numberAt(line.id(), first)).contains(1);
        assertThat(r.lines().numberAt(line.id(), moved)).contains(2);
        assertThat(r.lines().numberAt(line.id(), removed)).isEmpty();
        assertThat(r.line(999_999)).isEmpty();
        assertThat(r.version(line.id(), 9)).isEmpty();
    }

    @Test
    void linesAndVersionsOfAPlaceAreCounted() throws IOException {
        assertThat(r.lines().ids(p.place())).hasSize(3);
        assertThat(r.lines().versions(p.place())).isEqualTo(4);
    }

    @Test
    void aContentIsKnownWhereverItIs() throws IOException {
        Version one = letter().version(1).orElseThrow();
        assertThat(r.content().versions(one.digest()))
                .extracting(Version::path)
                .containsExactlyInAnyOrder("mail/letter.txt", "mail/copy.txt");
        assertThat(r.content().paths(p.place(), one.digest(), one.size())).containsExactly("mail/copy.txt");
        assertThat(r.content().paths(p.place(), one.digest(), one.size() + 1))
                .as("another size is another content")
                .isEmpty();
        Digest nobody = Digest.of(Digest.sha256().digest());
        assertThat(r.content().versions(nobody)).isEmpty();
        assertThat(r.content().outsideLines(nobody)).isEmpty();
        assertThat(r.content().folderLines(nobody, 0)).isEmpty();
    }

    // One state.

    @Test
    void allThatOneReadingIsAskedIsOfOneState() throws IOException {
        try (Reading reading = p.vault().read()) {
            String state = reading.state();
            p.save("mail/new.txt", "came while it was read");
            p.capture();
            assertThat(reading.state()).isEqualTo(state);
            assertThat(reading.folders().live(p.place(), "mail/new.txt")).isEmpty();
            assertThat(reading.changes().captures(p.place())).hasSize(4);
            assertThat(reading.lines().ids(p.place())).hasSize(3);
            assertThat(r.state()).as("one that begins later").isNotEqualTo(state);
        }
        assertThat(r.folders().live(p.place(), "mail/new.txt")).isPresent();
    }

    @Test
    void aPlaceInAnotherSystemIsKnownByItsNamesOnly() throws IOException {
        assertThat(r.outsidePlace("Library", "Minutes")).isEmpty();
        assertThat(r.outside().files(p.place())).isEmpty();
        assertThat(r.outside().points(p.place())).isEmpty();
        assertThat(r.outside().cuts(p.place())).isEmpty();
        assertThat(r.outside().relations()).isEmpty();
        assertThat(r.outside().facts(p.place())).isEmpty();
        assertThat(r.outside().holders(letter()))
                .as("the vault holds each version")
                .containsOnlyKeys(1, 2);
    }
}
