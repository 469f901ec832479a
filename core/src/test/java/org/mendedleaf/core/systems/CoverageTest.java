package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;

/** How well each place is covered, and what is said about it. */
class CoverageTest {

    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");

    @TempDir
    Path temp;

    private Rig rig;

    @BeforeEach
    void start() throws IOException {
        rig = new Rig(temp);
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    private static OutsidePlaceState facts(SystemKind kind) {
        return new OutsidePlaceState(
                kind, kind.standardSettings(), Role.OWNER, 10, 100, Optional.empty(), 0, Optional.empty());
    }

    private static Place place(int minutes) {
        return new Place(
                1, new Source.Outside("S", "p"), "p", Rhythm.every(minutes), List.of(), NOW.minus(Duration.ofDays(9)));
    }

    private static CoverageState judge(String trouble, OutsidePlaceState facts, long missed, int gaps) {
        boolean drive = facts.kind() == SystemKind.BACKUP_DRIVE;
        return CoverageJudge.judge(place(10), trouble, Optional.of(facts), Optional.of(NOW), missed, drive, gaps);
    }

    @Test
    void theWorstThatIsTrueIsSaid() {
        OutsidePlaceState drive = facts(SystemKind.BACKUP_DRIVE);
        OutsidePlaceState store = facts(SystemKind.OBJECT_STORE);
        assertThat(judge("", store, 0, 0)).isEqualTo(CoverageState.GOOD);
        assertThat(judge("", store, 0, 2)).isEqualTo(CoverageState.GAPS);
        assertThat(judge("", store, 3, 2)).isEqualTo(CoverageState.LATE);
        assertThat(judge("wrong", store, 3, 2)).isEqualTo(CoverageState.FAILING);
        assertThat(judge("no space", drive.filled(), 3, 2)).isEqualTo(CoverageState.FULL);
        assertThat(judge("it refuses", drive, 3, 2)).isEqualTo(CoverageState.FAILING);
        assertThat(judge("wrong", drive.away(NOW), 3, 2)).isEqualTo(CoverageState.AWAY);
        assertThat(judge("", drive, 1, 0)).as("one missed run is not late yet").isEqualTo(CoverageState.GOOD);
        assertThat(judge("", drive, 2, 0)).isEqualTo(CoverageState.LATE);
    }

    @Test
    void aFolderThatIsGoneIsNotCoveredThoughNobodyHasLookedSince() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        Files.move(rig.desk.folder(), rig.desk.folder().resolveSibling("moved away"));
        Coverage.Row row =
                Coverage.of(rig.vault(), rig.now(), java.time.ZoneOffset.UTC).get(0);
        assertThat(row.state()).isEqualTo(CoverageState.FAILING);
        assertThat(Warning.of(List.of(row), rig.now(), ZoneOffset.UTC).get(0).words())
                .as("where it is, once")
                .containsOnlyOnce(rig.desk.folder().toString());
    }

    @Test
    void whatASystemDoesNotKeepIsSaid() {
        OutsidePlaceState store = facts(SystemKind.OBJECT_STORE);
        OutsidePlaceState off = new OutsidePlaceState(
                store.kind(),
                store.settings().with(Setting.VERSIONING, "off"),
                Role.OWNER,
                -1,
                -1,
                Optional.empty(),
                0,
                Optional.empty());
        assertThat(judge("", off, 0, 0)).isEqualTo(CoverageState.OFF);
        OutsidePlaceState interrupted = new OutsidePlaceState(
                SystemKind.BACKUP_DRIVE,
                SystemKind.BACKUP_DRIVE.standardSettings(),
                Role.OWNER,
                1,
                2,
                Optional.of(NOW),
                0,
                Optional.empty());
        assertThat(judge("", interrupted, 0, 0)).isEqualTo(CoverageState.INTERRUPTED);
        assertThat(CoverageJudge.judge(place(10), "", Optional.empty(), Optional.empty(), 0, false, 0))
                .isEqualTo(CoverageState.NEVER);
    }

    @Test
    void awayCountsFromTheFirstTime() {
        OutsidePlaceState away = facts(SystemKind.LIBRARY).away(NOW).away(NOW.plusSeconds(3600));
        assertThat(away.awaySince()).contains(NOW);
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void whatIsKnownOfAPlaceIsRememberedWhole(SystemKind kind) throws IOException {
        OutsidePlaceState facts = new OutsidePlaceState(
                kind,
                kind.standardSettings().with(List.of(new Member("Rana", Role.EDITOR))),
                Role.READER,
                7,
                9,
                Optional.of(NOW),
                -90,
                Optional.of(NOW.plusSeconds(1)));
        assertThat(OutsidePlaceState.read(facts.json())).isEqualTo(facts);
        assertThat(OutsidePlaceState.read(facts.filled().json()))
                .isEqualTo(facts.filled())
                .isNotEqualTo(facts);
    }

    @Test
    void foldersAndPlacesStandInOneTableWithWhatBelongsTogether() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        Place minutes = rig.place(SystemKind.LIBRARY, "Minutes");
        rig.put(minutes, "march.odt", "x");
        rig.look(minutes);
        rig.relate(rig.desk.place(), "Lease", minutes, "");
        List<Coverage.Row> rows = Coverage.of(rig.vault(), rig.now(), java.time.ZoneOffset.UTC);
        assertThat(rows)
                .extracting(Coverage.Row::where)
                .containsExactly(rig.desk.folder().toString(), "library:Minutes");
        assertThat(rows.get(0).related()).containsExactly("Lease = library:Minutes");
        assertThat(rows.get(1).related()).containsExactly("desk/Lease");
        assertThat(rows.get(1).files()).isEqualTo(1);
        assertThat(rows.get(1).usedBytes()).isEqualTo(1);
        assertThat(rows.get(1).next().orElseThrow()).isEqualTo(rig.now().plus(Duration.ofMinutes(10)));
        assertThat(Warning.of(rows, rig.now(), ZoneOffset.UTC)).isEmpty();
    }

    @Test
    void aPlaceThatIsNotLookedAtInTimeIsLate() throws IOException {
        Place minutes = rig.place(SystemKind.LIBRARY, "Minutes");
        rig.look(minutes);
        rig.later(Duration.ofMinutes(45));
        Coverage.Row row = Coverage.of(rig.vault(), rig.now(), java.time.ZoneOffset.UTC).stream()
                .filter(r -> r.where().equals("library:Minutes"))
                .findFirst()
                .orElseThrow();
        assertThat(row.state()).isEqualTo(CoverageState.LATE);
        assertThat(Warning.of(List.of(row), rig.now(), ZoneOffset.UTC).get(0).words())
                .contains("library:Minutes is late")
                .contains("4 missed");
    }

    @Test
    void theWorstWarningComesFirstAndEachNamesTheNextStep() throws IOException {
        Files.createDirectories(temp.resolve("user/Documents"));
        Place set = rig.place(SystemKind.BACKUP_DRIVE, "desk");
        rig.look(set);
        rig.outside.drive().plug(false);
        try {
            rig.look(set);
        } catch (SystemException.Unplugged e) {
            assertThat(e.words()).contains("Plug it in");
        }
        List<Coverage.Row> rows =
                new java.util.ArrayList<>(Coverage.of(rig.vault(), rig.now(), java.time.ZoneOffset.UTC));
        rows.addAll(Coverage.uncovered(temp.resolve("user"), rows));
        List<Warning> warnings = Warning.of(rows, rig.now(), ZoneOffset.UTC);
        assertThat(warnings).extracting(w -> w.row().state()).startsWith(CoverageState.UNCOVERED, CoverageState.AWAY);
        assertThat(warnings.get(0).step()).isEqualTo(Warning.Step.PROTECT);
        assertThat(warnings.get(1).words()).contains("Plug it in");
        for (Warning w : warnings) {
            assertThat(w.words()).doesNotContain("{");
        }
    }

    @Test
    void aFolderThatIsProtectedOrHoldsOneIsNotCalledUncovered() throws IOException {
        Path user = rig.desk.folder().getParent();
        Files.createDirectories(user.resolve("Documents"));
        assertThat(Coverage.uncovered(user, List.of())).hasSize(1);
        Place documents = new Place(9, user.resolve("Documents/sub"), "sub", Rhythm.ON_SAVE, List.of(), NOW);
        Coverage.Row held = new Coverage.Row(
                Optional.of(documents),
                Optional.empty(),
                "sub",
                "",
                Optional.empty(),
                CoverageState.GOOD,
                Optional.empty(),
                Optional.empty(),
                0,
                0,
                0,
                -1,
                -1,
                List.of(),
                "",
                Optional.empty(),
                List.of());
        assertThat(Coverage.uncovered(user, List.of(held))).isEmpty();
    }
}
