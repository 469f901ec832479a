package org.mendedleaf.core.findings;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.document.Health.Kind;
import org.mendedleaf.core.document.Health.Reason;
import org.mendedleaf.core.findings.Finding.Certainty;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.vault.Digest;

/** Each detector on its own, at the very limits from which on it speaks. */
class DetectorBoundsTest {

    private static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    private final List<SavedVersion> saves = new ArrayList<>();
    private final List<NameChange> turns = new ArrayList<>();
    private Instant now = START;

    private static Health health(Reason reason, Kind kind, long mass) {
        return new Health(reason, reason == Reason.OTHER_KIND ? kind.name() : "", kind, 10, mass, 500, "504b0304");
    }

    private static Health good(Kind kind, long mass) {
        return health(Reason.WELL, kind, mass);
    }

    private static Health broken() {
        return health(Reason.DOES_NOT_OPEN, Kind.DATA, 0);
    }

    private static Digest digest(String text) {
        return Digest.of(Digest.sha256().digest(text.getBytes(StandardCharsets.UTF_8)));
    }

    /** One version; what is not set is ordinary. */
    private record Draft(
            long line,
            String path,
            long size,
            Health health,
            int shared,
            boolean beginning,
            boolean quiet,
            boolean ours) {
        Draft path(String other) {
            return new Draft(line, other, size, health, shared, beginning, quiet, ours);
        }

        Draft size(long other) {
            return new Draft(line, path, other, health, shared, beginning, quiet, ours);
        }

        Draft health(Health other) {
            return new Draft(line, path, size, other, shared, beginning, quiet, ours);
        }

        Draft shared(int other) {
            return new Draft(line, path, size, health, other, beginning, quiet, ours);
        }

        Draft isBeginning() {
            return new Draft(line, path, size, health, shared, true, quiet, ours);
        }

        Draft isQuiet() {
            return new Draft(line, path, size, health, shared, beginning, true, ours);
        }

        Draft isOurs() {
            return new Draft(line, path, size, health, shared, beginning, quiet, true);
        }
    }

    private SavedVersion save(long line, UnaryOperator<Draft> with) {
        Draft d = with.apply(
                new Draft(line, "f" + line + ".ods", 1000, good(Kind.SHEETS, 2000), 90, false, false, false));
        SavedVersion before =
                saves.stream().filter(s -> s.line() == line).reduce((a, b) -> b).orElse(null);
        int number = before == null ? 1 : before.number() + 1;
        SavedVersion s = new SavedVersion(
                line,
                number,
                number - 1,
                d.path(),
                before == null ? d.path() : before.path(),
                now,
                "Ines",
                d.size(),
                before == null ? 0 : before.size(),
                digest(line + "/" + number),
                d.quiet(),
                d.ours(),
                Optional.of(d.health()),
                before == null ? Optional.empty() : Optional.of(new Resemblance(d.shared(), d.beginning(), -1)));
        saves.add(s);
        return s;
    }

    private void later(Duration by) {
        now = now.plus(by);
    }

    private List<Finding> by(Detector detector) {
        return detector.detect(new History(7, saves, turns));
    }

    private Certainty sure(Detector detector) {
        List<Finding> found = by(detector);
        assertThat(found).hasSize(1);
        assertThat(found.get(0).place()).isEqualTo(7);
        return found.get(0).sure();
    }

    /** A file with versions a day, each much like the one before. */
    private void file(long line, int versions, UnaryOperator<Draft> with) {
        for (int i = 0; i < versions; i++) {
            save(line, with);
            later(Duration.ofDays(1));
        }
    }

    // Many at once.

    /** Each of these files gets a version within minutes, of which the first ones have little in common. */
    private void burst(int files, int little, int shared) {
        for (int f = 1; f <= files; f++) {
            file(f, 1, d -> d);
        }
        later(Duration.ofDays(3));
        for (int f = 1; f <= files; f++) {
            int share = f <= little ? shared : 90;
            save(f, d -> d.shared(share));
            later(Duration.ofSeconds(5));
        }
    }

    @ParameterizedTest
    @CsvSource({"20, 20, 49, 1", "19, 19, 10, 0", "20, 20, 50, 0", "40, 20, 10, 1", "42, 20, 10, 0", "25, 21, 0, 1"})
    void twentyFilesWithLittleInCommonThatAreHalfOfARunAreABurst(int files, int little, int shared, int found) {
        burst(files, little, shared);
        assertThat(by(new ManyChanged())).hasSize(found);
    }

    @Test
    void aBurstNamesEachFileOnceWithItsLastGoodVersion() {
        burst(20, 20, 10);
        save(1, d -> d.shared(90));
        Finding f = by(new ManyChanged()).get(0);
        assertThat(f.kind()).isEqualTo(Finding.Kind.BURST);
        assertThat(f.marks()).hasSize(20).allMatch(m -> m.number() == 2 && m.good() == 1);
        assertThat(Duration.between(f.from(), f.to())).isPositive();
        assertThat(f.why()).anyMatch(w -> w.contains("21"));
    }

    @Test
    void whatIsUsualInAPlaceIsNoBurst() {
        for (int f = 1; f <= 30; f++) {
            file(f, 1, d -> d);
        }
        for (int day = 0; day < 4; day++) {
            later(Duration.ofDays(1));
            for (int f = 1; f <= 8; f++) {
                save(f, d -> d);
            }
        }
        later(Duration.ofDays(1));
        for (int f = 1; f <= 30; f++) {
            save(f, d -> d.shared(5));
        }
        assertThat(by(new ManyChanged())).as("30 are less than four times 8").isEmpty();
    }

    @Test
    void whatWeRestoredOurselvesAndWhatIsMadeAnewEachTimeIsNone() {
        for (int f = 1; f <= 25; f++) {
            file(f, 1, d -> d);
        }
        later(Duration.ofDays(1));
        for (int f = 1; f <= 25; f++) {
            save(f, d -> d.shared(5).isOurs());
        }
        assertThat(by(new ManyChanged())).isEmpty();
        later(Duration.ofDays(1));
        for (int f = 1; f <= 25; f++) {
            save(f, d -> d.shared(5));
        }
        assertThat(by(new ManyChanged())).as("they had little in common before").isEmpty();
    }

    // Removed.

    private void removed(int files) {
        for (int f = 1; f <= files; f++) {
            turns.add(new NameChange(f, now, "Jory", "f" + f + ".ods", "", 2));
        }
    }

    @ParameterizedTest
    @CsvSource({"5, ", "6, POSSIBLE", "23, POSSIBLE", "24, LIKELY"})
    void sixRemovedAtOnceAreWorthALookAndFourTimesAsManyMoreSo(int files, Certainty sure) {
        for (int f = 1; f <= files; f++) {
            file(f, 2, d -> d);
        }
        removed(files);
        List<Finding> found = by(new RemovedInBulk());
        if (sure == null) {
            assertThat(found).isEmpty();
        } else {
            assertThat(sure(new RemovedInBulk())).isEqualTo(sure);
            assertThat(found.get(0).marks()).hasSize(files).allMatch(m -> m.good() == 2);
        }
    }

    @Test
    void itHasToBeThreeTimesWhatIsUsual() {
        for (int week = 0; week < 4; week++) {
            removed(4);
            later(Duration.ofDays(7));
        }
        removed(11);
        assertThat(by(new RemovedInBulk())).isEmpty();
        removed(12);
        assertThat(by(new RemovedInBulk())).hasSize(1);
    }

    @Test
    void ofARemovedFileTheLastSoundVersionIsNamed() {
        for (int f = 1; f <= 6; f++) {
            file(f, 1, d -> d);
            save(f, d -> d.health(broken()));
        }
        removed(6);
        assertThat(by(new RemovedInBulk()).get(0).marks()).allMatch(m -> m.number() == 2 && m.good() == 1);
    }

    // New endings.

    private void renamed(int files, String ending) {
        for (int f = 1; f <= files; f++) {
            turns.add(new NameChange(f, now, "Adele", "f" + f + ".ods", "f" + f + ".ods" + ending, 1));
        }
    }

    @ParameterizedTest
    @CsvSource({"3, ", "4, POSSIBLE", "11, POSSIBLE", "12, LIKELY"})
    void fourWithTheSameNewEndingAreAlikeAndTwelveMostLikely(int files, Certainty sure) {
        for (int f = 1; f <= files; f++) {
            file(f, 1, d -> d);
        }
        renamed(files, ".lost");
        List<Finding> found = by(new NewEndings());
        if (sure == null) {
            assertThat(found).isEmpty();
        } else {
            assertThat(found).hasSize(1);
            assertThat(found.get(0).sure()).isEqualTo(sure);
            assertThat(found.get(0).marks())
                    .allMatch(m -> m.good() == 1
                            && m.goodPath().endsWith(".ods")
                            && m.path().endsWith(".lost"));
        }
    }

    @Test
    void anEndingThatThePlaceKnewAnHourBeforeIsNotNew() {
        for (int f = 1; f <= 4; f++) {
            file(f, 1, d -> d);
        }
        save(50, d -> d.path("other.lost"));
        later(Duration.ofMinutes(59));
        renamed(4, ".lost");
        assertThat(by(new NewEndings())).as("it came within the same event").hasSize(1);
        turns.clear();
        later(Duration.ofMinutes(2));
        renamed(4, ".lost");
        assertThat(by(new NewEndings())).isEmpty();
    }

    @Test
    void filesThatAreSavedUnderANewEndingCountAsTheRenamedOnesDo() {
        for (int f = 1; f <= 4; f++) {
            file(f, 2, d -> d);
        }
        for (int f = 1; f <= 4; f++) {
            save(f, d -> d.path(d.path() + ".lost").health(broken()));
        }
        Finding found = by(new NewEndings()).get(0);
        assertThat(found.marks()).allMatch(m -> m.number() == 3 && m.good() == 2);
        saves.removeIf(s -> s.number() == 3);
        for (int f = 1; f <= 4; f++) {
            save(f, d -> d.path(d.path() + ".lost").isOurs());
        }
        assertThat(by(new NewEndings())).as("we did that").isEmpty();
    }

    @Test
    void aRemovalAndANameWithoutEndingSayNothing() {
        for (int f = 1; f <= 6; f++) {
            file(f, 1, d -> d);
            turns.add(new NameChange(f, now, "Adele", "f" + f + ".ods", "", 1));
            turns.add(new NameChange(f, now, "Adele", "f" + f + ".ods", "folder.d/f" + f, 1));
            turns.add(new NameChange(f, now, "Adele", "f" + f + ".ods", ".hidden" + f, 1));
        }
        assertThat(by(new NewEndings())).isEmpty();
    }

    // One file.

    @ParameterizedTest
    @CsvSource({"899, LIKELY", "900, ", "1, LIKELY", "0, "})
    void aTextThatIsTheBeginningOfWhatItWasIsCutShortWhenATenthIsGone(long size, Certainty sure) {
        file(1, 1, d -> d);
        save(1, d -> d.size(size).isBeginning());
        assertThat(by(new CutShort())).hasSize(sure == null ? 0 : 1).allMatch(f -> f.sure() == sure);
        saves.clear();
        save(1, d -> d.health(broken()));
        save(1, d -> d.size(size).isBeginning());
        assertThat(by(new CutShort()))
                .as("what was no good before is not judged")
                .isEmpty();
    }

    @Test
    void aFormatThatMissesItsEndIsCertain() {
        file(1, 1, d -> d);
        save(1, d -> d.size(990).health(health(Reason.CUT_SHORT, Kind.DATA, 0)));
        assertThat(sure(new CutShort())).isEqualTo(Certainty.CERTAIN);
        assertThat(by(new CutShort()).get(0).why()).hasSize(2);
    }

    @Test
    void aQuietChangeIsFoundTheFirstTimeAndWhenItDoesHarm() {
        file(1, 1, d -> d);
        save(1, Draft::isQuiet);
        assertThat(sure(new ChangedUnseen())).isEqualTo(Certainty.LIKELY);
        save(1, Draft::isQuiet);
        assertThat(by(new ChangedUnseen()))
                .as("a program that does it each time")
                .hasSize(1);
        save(1, d -> d.isQuiet().health(broken()));
        assertThat(by(new ChangedUnseen()))
                .extracting(Finding::sure)
                .containsExactly(Certainty.LIKELY, Certainty.CERTAIN);
        saves.clear();
        save(1, d -> d);
        save(1, d -> d.health(broken()));
        assertThat(by(new ChangedUnseen())).as("its time changed").isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"2000, 119, 1", "2000, 120, 0", "200, 11, 1", "199, 1, 0", "2000, 0, 1"})
    void nextToNothingOfWhatItSaidIsLessThanSixInAHundred(long was, long now, int found) {
        file(1, 1, d -> d.health(good(Kind.PROSE, was)));
        save(1, d -> d.health(good(Kind.PROSE, now)));
        assertThat(by(new Emptied()))
                .hasSize(found)
                .allMatch(f -> f.sure() == (now == 0 ? Certainty.CERTAIN : Certainty.LIKELY));
    }

    @ParameterizedTest
    @EnumSource(
            value = Kind.class,
            names = {"TEXT", "SHEETS", "PROSE", "SLIDES", "PAGES", "MAIL", "PICTURE", "ARCHIVE", "DATA"})
    void onlyWhatSaysSomethingCanBeEmptiedOfIt(Kind kind) {
        boolean says = kind != Kind.PICTURE && kind != Kind.ARCHIVE && kind != Kind.DATA;
        file(1, 1, d -> d.health(good(kind, 2000)));
        save(1, d -> d.health(good(kind, 10)));
        assertThat(by(new Emptied())).hasSize(says ? 1 : 0);
    }

    @Test
    void anEmptyFileThatWasEmptyBeforeWasNotEmptied() {
        Health empty = health(Reason.EMPTY, Kind.EMPTY, 0);
        save(1, d -> d.size(0).health(empty));
        save(1, d -> d.size(0).health(empty));
        assertThat(by(new Emptied())).isEmpty();
        saves.clear();
        save(1, d -> d.size(1));
        save(1, d -> d.size(0).health(empty));
        assertThat(sure(new Emptied())).isEqualTo(Certainty.CERTAIN);
    }

    @ParameterizedTest
    @CsvSource({"7, 4, LIKELY", "8, 4, POSSIBLE", "24, 4, POSSIBLE", "25, 4, ", "24, 2, ", "7, 2, LIKELY"})
    void howLittleIsLittleDependsOnWhatIsUsual(int shared, int versions, Certainty sure) {
        file(1, versions, d -> d);
        save(1, d -> d.shared(shared));
        assertThat(by(new SavedOver())).hasSize(sure == null ? 0 : 1).allMatch(f -> f.sure() == sure);
    }

    @ParameterizedTest
    @CsvSource({"TEXT, 400, 2, 1", "TEXT, 399, 2, 0", "TEXT, 150, 4, 1", "TEXT, 149, 4, 0", "PICTURE, 1, 2, 1"})
    void whatSaysTooLittleIsNotJudged(Kind kind, long mass, int versions, int found) {
        file(1, versions, d -> d.size(2000).health(good(kind, mass)));
        save(1, d -> d.size(2000).health(good(kind, mass)).shared(0));
        assertThat(by(new SavedOver())).hasSize(found);
    }

    @Test
    void picturesAndArchivesAreWeighedByTheirBytes() {
        file(1, 2, d -> d.size(1999).health(good(Kind.PICTURE, 9000)));
        save(1, d -> d.size(1999).health(good(Kind.PICTURE, 9000)).shared(0));
        assertThat(by(new SavedOver())).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "PICTURE, PROSE, 1",
        "TEXT, SHEETS, 0",
        "MAIL, PROSE, 0",
        "DATA, PROSE, 0",
        "PROSE, DATA, 0",
        "ARCHIVE, SHEETS, 1"
    })
    void anotherKindIsFoundWhereKindsAreNotTakenForOneAnother(Kind now, Kind was, int found) {
        file(1, 2, d -> d.health(good(was, 2000)));
        save(1, d -> d.health(good(now, 2000)).shared(-1));
        assertThat(by(new SavedOver())).hasSize(found).allMatch(f -> f.sure() == Certainty.LIKELY);
    }

    @Test
    void whatDoesNotOpenIsNoMatterOfBeingSavedOver() {
        file(1, 3, d -> d);
        save(1, d -> d.health(broken()).shared(0));
        assertThat(by(new SavedOver())).isEmpty();
        save(1, d -> d.shared(0));
        assertThat(by(new SavedOver())).as("it was no good before").isEmpty();
    }

    @Test
    void whatIsUsualIsTheMiddleOfWhatWasWithoutWhatWasMended() {
        file(1, 3, d -> d.shared(80));
        save(1, d -> d.shared(2));
        save(1, d -> d.shared(90).isOurs());
        save(1, d -> d.shared(80));
        save(1, d -> d.shared(20));
        assertThat(by(new SavedOver())).extracting(Finding::sure).containsExactly(Certainty.LIKELY, Certainty.POSSIBLE);
    }
}
