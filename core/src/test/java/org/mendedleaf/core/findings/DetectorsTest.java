package org.mendedleaf.core.findings;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.document.Health.Kind;
import org.mendedleaf.core.document.Health.Reason;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.vault.Digest;

/** What the detectors say of histories with harm in them, and of innocent ones. */
class DetectorsTest {

    private static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    private final List<SavedVersion> saves = new ArrayList<>();
    private final List<NameChange> turns = new ArrayList<>();
    private Instant now = START;

    private static Health health(Reason reason, Kind kind, long mass) {
        return new Health(reason, reason == Reason.OTHER_KIND ? kind.name() : "", kind, 10, mass, 500, "504b0304");
    }

    private static Health sheet() {
        return health(Reason.WELL, Kind.SHEETS, 2000);
    }

    private static Digest digest(String text) {
        return Digest.of(Digest.sha256().digest(text.getBytes(StandardCharsets.UTF_8)));
    }

    private DetectorsTest later(Duration by) {
        now = now.plus(by);
        return this;
    }

    private SavedVersion last(long line) {
        SavedVersion found = null;
        for (SavedVersion s : saves) {
            found = s.line() == line ? s : found;
        }
        return found;
    }

    /** A save of a file; its first is like nothing. */
    private SavedVersion save(long line, String path, String who, long size, Health health, Resemblance alike) {
        SavedVersion before = last(line);
        int number = before == null ? 1 : before.number() + 1;
        SavedVersion save = new SavedVersion(
                line,
                number,
                before == null ? 0 : before.number(),
                path,
                before == null ? path : before.path(),
                now,
                who,
                size,
                before == null ? 0 : before.size(),
                digest(line + "/" + number),
                false,
                false,
                Optional.of(health),
                before == null ? Optional.empty() : Optional.of(alike));
        saves.add(save);
        return save;
    }

    private SavedVersion save(long line, Health health, int shared) {
        return save(line, "f" + line + ".ods", "Ines", 1000, health, new Resemblance(shared, false, -1));
    }

    private void replaceLast(SavedVersion with) {
        saves.set(saves.size() - 1, with);
    }

    private List<Finding> found() {
        return Detectors.find(new History(1, saves, turns));
    }

    private Finding only() {
        assertThat(found()).hasSize(1);
        return found().get(0);
    }

    /** Files with a version a day each, much like the one before. */
    private void ordinaryDays(int files, int days) {
        for (int d = 0; d < days; d++) {
            for (int f = 1; f <= files; f++) {
                save(f, sheet(), 90);
                later(Duration.ofMinutes(13));
            }
            later(Duration.ofDays(1));
        }
    }

    @Test
    void nothingIsFoundInOrdinaryDays() {
        ordinaryDays(5, 10);
        assertThat(found()).isEmpty();
    }

    @Test
    void aTableThatIsADocumentNowWasSavedOver() {
        ordinaryDays(1, 3);
        save(1, health(Reason.OTHER_KIND, Kind.PROSE, 900), -1);
        Finding f = only();
        assertThat(f.kind()).isEqualTo(Finding.Kind.SAVED_OVER);
        assertThat(f.sure()).isEqualTo(Finding.Certainty.CERTAIN);
        assertThat(f.marks().get(0).good()).isEqualTo(3);
        assertThat(f.why()).containsExactly("It is a document now and was a table.");
        assertThat(f.words()).isEqualTo("f1.ods was saved over");
    }

    @Test
    void littleInCommonSaysSomethingOnlyOfFilesThatUsuallyHaveMuch() {
        ordinaryDays(1, 4);
        save(1, sheet(), 3);
        assertThat(only().sure()).isEqualTo(Finding.Certainty.LIKELY);
        saves.remove(saves.size() - 1);
        save(1, sheet(), 20);
        assertThat(only().sure()).isEqualTo(Finding.Certainty.POSSIBLE);
        saves.remove(saves.size() - 1);
        save(1, sheet(), 40);
        assertThat(found()).isEmpty();
    }

    @Test
    void anExportThatIsMadeAnewEachDayIsLeftAlone() {
        for (int d = 0; d < 6; d++) {
            save(1, sheet(), d == 1 ? 30 : 4);
            later(Duration.ofDays(1));
        }
        assertThat(found()).isEmpty();
    }

    @Test
    void whatSaysTooLittleIsNotJudgedByWhatItShares() {
        save(1, health(Reason.WELL, Kind.TEXT, 100), -1);
        later(Duration.ofDays(1));
        save(1, health(Reason.WELL, Kind.TEXT, 90), 0);
        assertThat(found()).isEmpty();
    }

    @Test
    void anEmptiedFileIsFoundUnlessItIsEmptiedAgainAndAgain() {
        ordinaryDays(1, 2);
        save(1, "f1.ods", "Ines", 0, health(Reason.EMPTY, Kind.EMPTY, 0), new Resemblance(-1, false, -1));
        assertThat(only().kind()).isEqualTo(Finding.Kind.EMPTIED);
        saves.clear();
        for (int i = 0; i < 4; i++) {
            save(1, "log.txt", "Ines", 900, health(Reason.WELL, Kind.TEXT, 900), new Resemblance(-1, false, -1));
            later(Duration.ofDays(1));
            save(1, "log.txt", "Ines", 0, health(Reason.EMPTY, Kind.EMPTY, 0), new Resemblance(-1, false, -1));
            later(Duration.ofDays(1));
        }
        assertThat(found()).as("only until it shows to be usual").hasSize(2);
    }

    @Test
    void aTableWithoutItsRowsWasEmptiedToo() {
        ordinaryDays(1, 2);
        save(1, health(Reason.WELL, Kind.SHEETS, 40), -1);
        assertThat(only().kind()).isEqualTo(Finding.Kind.EMPTIED);
    }

    @Test
    void whatBreaksOffIsCutShortAndWhatDoesNotOpenIsUnreadable() {
        ordinaryDays(3, 2);
        save(1, "f1.ods", "Ines", 400, health(Reason.CUT_SHORT, Kind.DATA, 0), new Resemblance(-1, false, -1));
        later(Duration.ofHours(5));
        save(2, "f2.ods", "Ines", 400, health(Reason.WELL, Kind.SHEETS, 1500), new Resemblance(90, true, -1));
        later(Duration.ofHours(5));
        save(3, "f3.ods", "Ines", 990, health(Reason.DOES_NOT_OPEN, Kind.DATA, 0), new Resemblance(-1, false, -1));
        assertThat(found())
                .extracting(Finding::kind)
                .containsExactly(Finding.Kind.UNREADABLE, Finding.Kind.CUT_SHORT, Finding.Kind.CUT_SHORT);
    }

    @Test
    void whatLostItsStructureIsUnreadable() {
        save(1, "a.plan", "Ines", 5000, health(Reason.WELL, Kind.DATA, 5000), new Resemblance(-1, false, -1));
        later(Duration.ofDays(1));
        Health noise = new Health(Reason.WELL, "", Kind.DATA, 5000, 5000, 795, "0a0b0c0d");
        save(1, "a.plan", "Ines", 5000, noise, new Resemblance(-1, false, -1));
        assertThat(only().why()).containsExactly("Its bytes look like chance and had structure before.");
    }

    @Test
    void aChangeThatLeavesTimeAndSizeIsNoSave() {
        ordinaryDays(1, 2);
        SavedVersion s = save(1, sheet(), 99);
        replaceLast(new SavedVersion(
                s.line(),
                s.number(),
                s.before(),
                s.path(),
                s.pathBefore(),
                s.at(),
                s.who(),
                s.size(),
                s.sizeBefore(),
                s.digest(),
                true,
                false,
                s.health(),
                s.likeness()));
        assertThat(only().kind()).isEqualTo(Finding.Kind.CHANGED_UNSEEN);
    }

    @Test
    void twoPeopleSaveOverEachOther() {
        ordinaryDays(1, 2);
        save(1, "f1.ods", "Jory", 1000, sheet(), new Resemblance(95, false, -1));
        later(Duration.ofMinutes(20));
        save(1, "f1.ods", "Wilma", 1000, sheet(), new Resemblance(93, false, 0));
        Finding f = only();
        assertThat(f.kind()).isEqualTo(Finding.Kind.CROSSED);
        assertThat(f.why().get(0)).contains("Jory").contains("Wilma");
        saves.remove(saves.size() - 1);
        save(1, "f1.ods", "Wilma", 1000, sheet(), new Resemblance(93, false, 80));
        assertThat(found()).as("what Jory wrote is still there").isEmpty();
    }

    @Test
    void filesThatWereHarmedWithinMinutesAreOneFinding() {
        ordinaryDays(8, 3);
        for (int f = 1; f <= 6; f++) {
            save(
                    f,
                    "f" + f + ".ods",
                    "Adele",
                    990,
                    health(Reason.DOES_NOT_OPEN, Kind.DATA, 0),
                    new Resemblance(0, false, -1));
            later(Duration.ofSeconds(20));
        }
        Finding f = only();
        assertThat(f.kind()).isEqualTo(Finding.Kind.BURST);
        assertThat(f.marks()).hasSize(6).allMatch(m -> m.good() == 3);
        assertThat(f.why()).anyMatch(e -> e.contains("6 do not open"));
        assertThat(f.words()).isEqualTo("6 files were harmed within minutes");
    }

    @Test
    void aNewEndingOnManyFilesIsPartOfTheSameEvent() {
        ordinaryDays(6, 3);
        for (int f = 1; f <= 6; f++) {
            save(
                    f,
                    "f" + f + ".ods.lost",
                    "Adele",
                    990,
                    health(Reason.DOES_NOT_OPEN, Kind.DATA, 0),
                    new Resemblance(0, false, -1));
            turns.add(new NameChange(f, now, "Adele", "f" + f + ".ods", "f" + f + ".ods.lost", 4));
            later(Duration.ofSeconds(20));
        }
        Finding f = only();
        assertThat(f.why()).anyMatch(e -> e.contains(".lost"));
        assertThat(f.marks()).hasSize(6).allMatch(m -> m.goodPath().endsWith(".ods"));
    }

    @Test
    void filesThatAPersonRenamesToAKindThatIsKnownAreLeftAlone() {
        ordinaryDays(6, 3);
        save(7, "g.xlsx", "Ines", 1000, sheet(), new Resemblance(-1, false, -1));
        later(Duration.ofDays(2));
        for (int f = 1; f <= 6; f++) {
            turns.add(new NameChange(f, now, "Ines", "f" + f + ".ods", "2026/f" + f + ".ods", 3));
            turns.add(new NameChange(f, now, "Ines", "2026/f" + f + ".ods", "2026/f" + f + ".xlsx", 3));
        }
        assertThat(found()).isEmpty();
    }

    @Test
    void aFolderThatIsRemovedIsFoundWhereNothingIsRemovedOtherwise() {
        ordinaryDays(12, 3);
        for (int f = 1; f <= 9; f++) {
            turns.add(new NameChange(f, now, "Jory", "f" + f + ".ods", "", 3));
        }
        Finding f = only();
        assertThat(f.kind()).isEqualTo(Finding.Kind.REMOVED);
        assertThat(f.marks()).hasSize(9).allMatch(m -> m.good() == 3);
    }

    @Test
    void whereManyAreRemovedEveryWeekItIsUsual() {
        ordinaryDays(60, 1);
        for (int week = 0; week < 5; week++) {
            for (int f = 1; f <= 9; f++) {
                turns.add(new NameChange(week * 9 + f, now, "Jory", "f" + f + ".ods", "", 1));
            }
            later(Duration.ofDays(7));
        }
        assertThat(found()).isEmpty();
    }

    @Test
    void whatSomebodyBroughtBackIsNoHarm() {
        ordinaryDays(1, 3);
        SavedVersion s = save(1, sheet(), 2);
        replaceLast(new SavedVersion(
                s.line(),
                s.number(),
                s.before(),
                s.path(),
                s.pathBefore(),
                s.at(),
                s.who(),
                s.size(),
                s.sizeBefore(),
                saves.get(0).digest(),
                false,
                false,
                s.health(),
                s.likeness()));
        assertThat(found()).isEmpty();
    }

    @Test
    void theIdOfAFindingIsTheSameWheneverItIsFound() {
        ordinaryDays(1, 3);
        save(1, health(Reason.DOES_NOT_OPEN, Kind.DATA, 0), 0);
        String id = only().id();
        later(Duration.ofDays(3));
        save(2, sheet(), -1);
        assertThat(only().id()).isEqualTo(id).hasSize(6);
    }
}
