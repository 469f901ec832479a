package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.rules.Setting;

/** Thinning and holding in other systems, through what they can do. */
class OutsideRetentionTest {

    private static final Calendar CALENDAR = new Calendar(ZoneOffset.UTC, DayOfWeek.MONDAY);
    private static final ThinPlan.Limits LAST_TWO =
            new ThinPlan.Limits(0, "", Set.of(), 2, Optional.empty(), Optional.empty(), false);

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

    private Place filled(SystemKind kind, String path, int versions) throws IOException {
        Place place = rig.place(kind, "p");
        for (int i = 1; i <= versions; i++) {
            rig.later(Duration.ofMinutes(1));
            rig.put(place, path, "version " + i);
        }
        rig.look(place);
        return place;
    }

    private OutsideThinning thinning(Place place) {
        return new OutsideThinning(rig.vault(), place, rig.registry, rig.clock(), "ines");
    }

    private Holds holds() {
        return new Holds(rig.vault(), rig.clock(), "ines");
    }

    private OutsideHolds.Taken take(Place place) throws IOException {
        return new OutsideHolds(rig.vault(), rig.registry).take(place, rig.now(), Progress.NONE);
    }

    private List<Integer> heldThere(Place place, String path) throws IOException {
        Line line = rig.line(place, path);
        return line.versions().stream()
                .map(Version::number)
                .filter(n -> {
                    try {
                        return !rig.holders(line, n).isEmpty()
                                && rig.holders(line, n).stream()
                                        .anyMatch(h -> h.kind() == org.mendedleaf.core.line.Holder.Kind.POINT);
                    } catch (IOException e) {
                        throw new java.io.UncheckedIOException(e);
                    }
                })
                .sorted()
                .toList();
    }

    @ParameterizedTest
    @EnumSource(
            value = SystemKind.class,
            names = {"LIBRARY", "OBJECT_STORE"})
    void whatGoesIsErasedThereAndWaitsInTheVault(SystemKind kind) throws IOException {
        Place place = filled(kind, "dir/a.txt", 5);
        ThinPlan plan = thinning(place).plan(RuleSet.NONE, LAST_TWO, CALENDAR);
        assertThat(plan.versions()).isEqualTo(3);
        assertThat(heldThere(place, "dir/a.txt")).as("a plan changes nothing").hasSize(5);
        OutsideThinning.Done done = thinning(place).run(plan, Progress.NONE);
        assertThat(done.erased()).isEqualTo(3);
        assertThat(done.failed()).isEmpty();
        assertThat(heldThere(place, "dir/a.txt")).containsExactly(4, 5);
        Line line = rig.line(place, "dir/a.txt");
        assertThat(rig.text(line.version(1).orElseThrow())).isEqualTo("version 1");
        try (Reading reading = rig.vault().read()) {
            assertThat(PendingDeletionStore.of(reading).waiting()).hasSize(3);
        }
        assertThat(thinning(place).plan(RuleSet.NONE, LAST_TWO, CALENDAR).versions())
                .as("nothing is left to do")
                .isZero();
    }

    @Test
    void undoKeepsWhatTheVaultHasAndOtherwiseItIsGoneAfterItsGrace() throws IOException {
        Place place = filled(SystemKind.LIBRARY, "a.txt", 4);
        thinning(place).run(thinning(place).plan(RuleSet.NONE, LAST_TWO, CALENDAR), Progress.NONE);
        rig.later(Duration.ofMinutes(1));
        try (Reading reading = rig.vault().read()) {
            var action = JournalStore.of(reading).lastUndoable().orElseThrow();
            assertThat(rig.work(place).undo(action).failed()).isEmpty();
        }
        rig.later(Duration.ofDays(10));
        assertThat(new Reclaim(rig.vault(), rig.clock()).run(Progress.NONE).versions())
                .isZero();
        assertThat(rig.text(rig.line(place, "a.txt").version(1).orElseThrow())).isEqualTo("version 1");
        // The system has it no more, so a second thinning finds nothing to erase there.
        assertThat(thinning(place).plan(RuleSet.NONE, LAST_TWO, CALENDAR).versions())
                .isZero();
    }

    @Test
    void whatIsHeldStaysThereAndIsInTheVaultBeforeTheSystemForgetsIt() throws IOException {
        Place place = filled(SystemKind.LIBRARY, "a.txt", 4);
        Line line = rig.line(place, "a.txt");
        holds().version(place, line.id(), 1, "a.txt", "the auditors want it", Optional.empty());
        assertThat(take(place).versions()).isEqualTo(1);
        assertThat(take(place).versions()).as("once is enough").isZero();
        assertThat(thinning(place)
                        .run(thinning(place).plan(RuleSet.NONE, LAST_TWO, CALENDAR), Progress.NONE)
                        .erased())
                .isEqualTo(1);
        assertThat(heldThere(place, "a.txt")).containsExactly(1, 3, 4);
        Version first = rig.line(place, "a.txt").version(1).orElseThrow();
        assertThatThrownBy(() -> rig.erasing(place).erase(first, Progress.NONE))
                .isInstanceOf(SystemException.Refused.class)
                .hasMessageContaining("the auditors want it");
        // The system is set to keep two versions, and forgets the held one.
        rig.connecting()
                .configure(
                        place,
                        rig.registry.system(place).places().get(0).settings().with(Setting.KEEP_VERSIONS, "2"),
                        rig.vault());
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        assertThat(heldThere(place, "a.txt")).containsExactly(3, 4);
        assertThat(rig.text(rig.line(place, "a.txt").version(1).orElseThrow())).isEqualTo("version 1");
    }

    @Test
    void aHeldFileAndAHeldFolderAreTakenWithWhatComesOntoThemLater() throws IOException {
        Place place = filled(SystemKind.OBJECT_STORE, "dir/a.txt", 2);
        holds().folder(place, "dir", "the case is open", Optional.empty());
        assertThat(take(place).versions()).isEqualTo(2);
        rig.later(Duration.ofMinutes(1));
        rig.put(place, "dir/a.txt", "version 3");
        rig.put(place, "other.txt", "not held");
        rig.look(place);
        assertThat(take(place).versions()).isEqualTo(1);
        assertThat(rig.line(place, "other.txt").newest().orElseThrow().recipe().isElsewhere())
                .isTrue();
    }

    @Test
    void whatIsHeldOfAFileServersSnapshotsIsTakenToo() throws IOException {
        Place place = rig.place(SystemKind.FILE_SERVER, "p");
        rig.put(place, "a.txt", "one");
        rig.later(Duration.ofMinutes(1));
        rig.erasing(place).snapshot("before");
        holds().line(place, rig.line(place, "a.txt").id(), "a.txt", "why not", Optional.empty());
        assertThat(take(place).versions()).isEqualTo(1);
    }

    @Test
    void aSystemThatIsAwayKeepsWhatItHasAndSaysSo() throws IOException {
        Place place = filled(SystemKind.LIBRARY, "a.txt", 4);
        ThinPlan plan = thinning(place).plan(RuleSet.NONE, LAST_TWO, CALENDAR);
        Line line = rig.line(place, "a.txt");
        holds().version(place, line.id(), 1, "a.txt", "why not", Optional.empty());
        rig.standIn(SystemKind.LIBRARY).close();
        assertThat(take(place).failed()).hasSize(1);
        OutsideThinning.Done done = thinning(place).run(plan, Progress.NONE);
        assertThat(done.erased()).isZero();
        assertThat(done.failed()).hasSize(2);
        assertThat(done.letGo()).isEmpty();
        try (Reading reading = rig.vault().read()) {
            assertThat(PendingDeletionStore.of(reading).waiting()).isEmpty();
        }
    }

    @Test
    void aCancelledThinningLetsGoOnlyWhatIsErased() throws IOException {
        Place place = filled(SystemKind.LIBRARY, "a.txt", 6);
        ThinPlan plan = thinning(place).plan(RuleSet.NONE, LAST_TWO, CALENDAR);
        int[] asked = {0};
        Progress after = new Progress() {
            @Override
            public boolean isCancelled() {
                return asked[0]++ >= 2;
            }
        };
        OutsideThinning.Done done = thinning(place).run(plan, after);
        assertThat(done.erased()).isEqualTo(2);
        assertThat(done.failed()).hasSize(2);
        assertThat(heldThere(place, "a.txt")).containsExactly(3, 4, 5, 6);
        try (Reading reading = rig.vault().read()) {
            assertThat(PendingDeletionStore.of(reading).waiting()).hasSize(2);
        }
    }

    @Test
    void systemsThatCannotEraseSayWhatCanBeDoneInstead() throws IOException {
        Place server = rig.place(SystemKind.FILE_SERVER, "p");
        assertThatThrownBy(() -> thinning(server).plan(RuleSet.NONE, LAST_TWO, CALENDAR))
                .isInstanceOf(SystemException.Unable.class)
                .hasMessageContaining("place set");
    }
}
