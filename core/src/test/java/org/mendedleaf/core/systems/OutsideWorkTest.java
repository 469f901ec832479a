package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.recovery.Rollback;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.rules.Setting;

/** Work in a system as in a folder: the same for every kind that can be written to. */
class OutsideWorkTest {

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

    private Place place(SystemKind kind) throws IOException {
        assumeTrue(kind.can(Capability.WRITING) && kind != SystemKind.WEBDAV);
        return rig.place(kind, "p");
    }

    private PutResult put(Place place, String path, String text) throws IOException {
        rig.later(Duration.ofMinutes(1));
        return rig.work(place).put(List.of(new Revision(rig.file("in.txt", text), path, "why")), Progress.NONE);
    }

    private Action last() throws IOException {
        try (Reading reading = rig.vault().read()) {
            return JournalStore.of(reading).lastUndoable().orElseThrow();
        }
    }

    private RestoreResult restore(Place place, String path, int number) throws IOException {
        rig.later(Duration.ofMinutes(1));
        Version v = rig.line(place, path).version(number).orElseThrow();
        return rig.work(place).restore(List.of(new RestoreItem(v, path)), Collision.REPLACE, Progress.NONE);
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void aFileIsPutInAndPutInAgainAndUndone(SystemKind kind) throws IOException {
        Place place = place(kind);
        assertThat(put(place, "dir/a.txt", "one").labels()).containsEntry("dir/a.txt", "1");
        assertThat(put(place, "dir/a.txt", "two").labels()).containsEntry("dir/a.txt", "2");
        assertThat(rig.live(place, "dir/a.txt")).contains("two");
        rig.work(place).undo(last());
        assertThat(rig.live(place, "dir/a.txt")).contains("one");
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void anEarlierVersionIsMadeCurrentAgainAndSaysWhereItCameFrom(SystemKind kind) throws IOException {
        Place place = place(kind);
        put(place, "a.txt", "good");
        if (kind.can(Capability.SNAPSHOTS)) {
            rig.later(Duration.ofMinutes(1));
            rig.erasing(place).snapshot("before");
        }
        put(place, "a.txt", "bad");
        RestoreResult result = restore(place, "a.txt", 1);
        assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(1);
        assertThat(rig.live(place, "a.txt")).contains("good");
        Version newest = rig.line(place, "a.txt").newest().orElseThrow();
        assertThat(newest.origin()).isEqualTo(Origin.RESTORED);
        assertThat(newest.source()).isEqualTo(1);
        rig.work(place).undo(last());
        assertThat(rig.live(place, "a.txt")).contains("bad");
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void aRemovedFileComesBackByUndo(SystemKind kind) throws IOException {
        Place place = place(kind);
        put(place, "a.txt", "one");
        rig.later(Duration.ofMinutes(1));
        assertThat(rig.work(place).remove(List.of("a.txt")).failed()).isEmpty();
        assertThat(rig.live(place, "a.txt")).isEmpty();
        assertThat(rig.line(place, "a.txt").removed()).isPresent();
        rig.later(Duration.ofMinutes(1));
        rig.work(place).undo(last());
        assertThat(rig.live(place, "a.txt")).contains("one");
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void aPutThatIsUndoneLeavesNothingBehind(SystemKind kind) throws IOException {
        Place place = place(kind);
        put(place, "a.txt", "one");
        rig.later(Duration.ofMinutes(1));
        rig.work(place).undo(last());
        assertThat(rig.live(place, "a.txt")).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void manyFilesGoAtOnceAndABadOneDoesNotStopTheRest(SystemKind kind) throws IOException {
        Place place = place(kind);
        List<Revision> many = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            many.add(new Revision(rig.file("in" + i, "text " + i), "d/f" + i, ""));
        }
        // A file cannot be put where a folder is.
        many.add(new Revision(rig.file("bad", "x"), "d", ""));
        PutResult result = rig.work(place).put(many, Progress.NONE);
        assertThat(result.labels().keySet()).hasSizeGreaterThanOrEqualTo(20);
        for (int i = 0; i < 20; i++) {
            assertThat(rig.text(rig.line(place, "d/f" + i).newest().orElseThrow()))
                    .isEqualTo("text " + i);
        }
    }

    @Test
    void undoingAThinningOfWhatTheVaultHasLeavesTheSystemAlone() throws IOException {
        Place share = rig.place(SystemKind.FILE_SERVER, "p");
        for (String text : List.of("one", "two", "three")) {
            put(share, "a.txt", text);
        }
        ThinPlan plan;
        try (Reading reading = rig.vault().read()) {
            VersionTable t = VersionTable.of(reading);
            Verdicts v = Verdicts.of(
                    t, List.of(), RuleSet.NONE, rig.now(), new Calendar(java.time.ZoneOffset.UTC, DayOfWeek.MONDAY));
            plan = ThinPlan.of(
                    v,
                    new SpaceTable(t),
                    new ThinPlan.Limits(
                            share.id(), "", java.util.Set.of(), 1, Optional.empty(), Optional.empty(), false));
        }
        assertThat(plan.versions()).isPositive();
        new Thinning(rig.vault(), rig.clock(), "ines").thin(plan, Progress.NONE);
        rig.later(Duration.ofMinutes(1));
        assertThat(rig.work(share).undo(last()).done()).containsExactly("a.txt");
        assertThat(rig.live(share, "a.txt")).contains("three");
        try (Reading reading = rig.vault().read()) {
            assertThat(PendingDeletionStore.of(reading).waiting()).isEmpty();
        }
    }

    @Test
    void whatAServerWouldLoseIsInTheVaultBeforeItIsReplaced() throws IOException {
        Place share = rig.place(SystemKind.FILE_SERVER, "p");
        put(share, "a.txt", "saved by nobody else");
        put(share, "a.txt", "new");
        Version first = rig.line(share, "a.txt").version(1).orElseThrow();
        assertThat(first.recipe().isElsewhere()).isFalse();
        assertThat(rig.text(first)).isEqualTo("saved by nobody else");
    }

    @Test
    void withVersionsOffTheVaultKeepsWhatIsReplacedByUs() throws IOException {
        Place store = rig.place(SystemKind.OBJECT_STORE, "p", Setting.VERSIONING, "off");
        put(store, "a.txt", "one");
        put(store, "a.txt", "two");
        assertThat(rig.text(rig.line(store, "a.txt").version(1).orElseThrow())).isEqualTo("one");
    }

    @Test
    void whatALimitOfOneVersionWouldDropIsInTheVaultFirst() throws IOException {
        Place library = rig.place(SystemKind.LIBRARY, "p", Setting.KEEP_VERSIONS, "1");
        put(library, "a.txt", "one");
        put(library, "a.txt", "two");
        assertThat(rig.text(rig.line(library, "a.txt").version(1).orElseThrow()))
                .isEqualTo("one");
        Place brief = rig.place(SystemKind.LIBRARY, "q", Setting.REMOVED_DAYS, "0");
        put(brief, "a.txt", "short-lived");
        rig.work(brief).remove(List.of("a.txt"));
        rig.later(Duration.ofDays(1));
        rig.look(brief);
        assertThat(rig.text(rig.line(brief, "a.txt").version(1).orElseThrow())).isEqualTo("short-lived");
    }

    @Test
    void anErasedVersionIsInTheVaultAndNotInTheSystem() throws IOException {
        Place store = rig.place(SystemKind.OBJECT_STORE, "p");
        put(store, "a.txt", "one");
        put(store, "a.txt", "two");
        rig.erasing(store).erase(rig.line(store, "a.txt").version(1).orElseThrow(), Progress.NONE);
        Line line = rig.line(store, "a.txt");
        assertThat(rig.holders(line, 1)).hasSize(1);
        assertThat(rig.text(line.version(1).orElseThrow())).isEqualTo("one");
        rig.outside.objects().faults().away(true);
        assertThat(rig.text(line.version(1).orElseThrow())).isEqualTo("one");
    }

    @Test
    void aPlanSaysWhatWillHappenAndChangesNothing() throws IOException {
        Place store = rig.place(SystemKind.OBJECT_STORE, "p");
        put(store, "a.txt", "one");
        put(store, "a.txt", "two");
        put(store, "dir/b.txt", "three");
        Version one = rig.line(store, "a.txt").version(1).orElseThrow();
        OutsideWork work = rig.work(store);
        assertThat(step(work, one, "a.txt", Collision.REPLACE)).isEqualTo(RestorePlan.Step.REPLACE);
        assertThat(step(work, one, "a.txt", Collision.SKIP)).isEqualTo(RestorePlan.Step.SKIP);
        assertThat(step(work, one, "a.txt", Collision.KEEP_BOTH)).isEqualTo(RestorePlan.Step.KEEP_BOTH);
        assertThat(step(work, one, "new.txt", Collision.REPLACE)).isEqualTo(RestorePlan.Step.CREATE);
        assertThat(step(work, one, "dir", Collision.REPLACE)).isEqualTo(RestorePlan.Step.REFUSE);
        assertThat(step(work, rig.line(store, "a.txt").newest().orElseThrow(), "a.txt", Collision.REPLACE))
                .isEqualTo(RestorePlan.Step.UNCHANGED);
        assertThat(rig.line(store, "a.txt").versions()).hasSize(2);
    }

    private static RestorePlan.Step step(OutsideWork work, Version v, String target, Collision rule)
            throws IOException {
        return work.plan(List.of(new RestoreItem(v, target)), rule)
                .items()
                .get(0)
                .step();
    }

    @Test
    void aBackupDriveTakesNoSingleFiles() throws IOException {
        Place set = rig.place(SystemKind.BACKUP_DRIVE, "p");
        assertThatThrownBy(() -> put(set, "a.txt", "one")).isInstanceOf(SystemException.Unable.class);
    }

    @Test
    void aFullSystemSaysSoAndNothingIsLost() throws IOException {
        Place library = rig.place(SystemKind.LIBRARY, "p", Setting.QUOTA_MB, "1");
        put(library, "a.txt", "x".repeat(600_000));
        PutResult result = put(library, "a.txt", "y".repeat(600_000));
        assertThat(result.failed().get("a.txt")).contains("no space");
        assertThat(rig.live(library, "a.txt").orElseThrow()).startsWith("xxx");
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void aPlaceIsRolledBackToAMomentAndTheUndoTakesItBack(SystemKind kind) throws IOException {
        Place place = place(kind);
        put(place, "a.txt", "one");
        put(place, "sub/b.txt", "stays");
        if (kind.keepsCuts()) {
            rig.erasing(place).snapshot("then");
        }
        Instant then = rig.later(Duration.ofMinutes(5)).now();
        put(place, "a.txt", "two");
        put(place, "later.txt", "came later");
        rig.later(Duration.ofMinutes(1));
        Rollback rollback = new Rollback(List.of(""), then, true);
        RestorePlan plan = rig.work(place).plan(rollback, Progress.NONE);
        assertThat(plan.items())
                .extracting(i -> i.target() + " " + i.step())
                .containsExactly("a.txt REPLACE", "later.txt REMOVE");
        RestoreResult result = rig.work(place).rollBack(rollback, Progress.NONE);
        assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(2);
        assertThat(rig.live(place, "a.txt")).contains("one");
        assertThat(rig.live(place, "later.txt")).isEmpty();
        rig.later(Duration.ofMinutes(1));
        assertThat(rig.work(place).undo(last()).failed()).isEmpty();
        assertThat(rig.live(place, "a.txt")).contains("two");
        assertThat(rig.live(place, "later.txt")).contains("came later");
        assertThat(rig.live(place, "sub/b.txt")).contains("stays");
    }

    @ParameterizedTest
    @EnumSource(SystemKind.class)
    void filesTakeEachOthersNamesBackAndNoneIsRemovedFromUnderAnother(SystemKind kind) throws IOException {
        Place place = place(kind);
        put(place, "a.txt", "of a");
        put(place, "b.txt", "of b");
        put(place, "c.txt", "of c");
        RestoreRequest request = RestoreRequest.restore(
                List.of(
                        new RestoreItem(newest(place, "a.txt"), "b.txt", "a.txt"),
                        new RestoreItem(newest(place, "b.txt"), "a.txt", "b.txt"),
                        new RestoreItem(newest(place, "c.txt"), "d.txt", "c.txt")),
                Collisions.all(Collision.REPLACE));
        rig.later(Duration.ofMinutes(1));
        RestoreResult result = rig.work(place).restore(request, Progress.NONE);
        assertThat(result.items()).extracting(RestoreResult.Item::why).containsOnly("");
        assertThat(result.items()).extracting(i -> i.plan().step()).containsOnly(RestorePlan.Step.MOVE_BACK);
        assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(3);
        assertThat(rig.live(place, "b.txt")).contains("of a");
        assertThat(rig.live(place, "a.txt")).contains("of b");
        assertThat(rig.live(place, "d.txt")).contains("of c");
        assertThat(rig.live(place, "c.txt")).isEmpty();
        rig.later(Duration.ofMinutes(1));
        assertThat(rig.work(place).undo(last()).failed()).isEmpty();
        assertThat(rig.live(place, "a.txt")).contains("of a");
        assertThat(rig.live(place, "b.txt")).contains("of b");
        assertThat(rig.live(place, "c.txt")).contains("of c");
        assertThat(rig.live(place, "d.txt")).isEmpty();
    }

    private Version newest(Place place, String path) throws IOException {
        return rig.line(place, path).newest().orElseThrow();
    }

    @Test
    void whatOnlyASnapshotHoldsIsInTheVaultBeforeItIsErased() throws IOException {
        Place share = place(SystemKind.FILE_SERVER);
        put(share, "a.txt", "only the snapshot has it");
        RemoteSnapshot cut = rig.erasing(share).snapshot("then");
        rig.system(SystemKind.FILE_SERVER)
                .put("p", rig.request("a.txt", "replaced by somebody else", "", "another-key"));
        rig.later(Duration.ofMinutes(1));
        rig.work(share).look(Progress.NONE);
        rig.erasing(share).eraseSnapshot(cut, Progress.NONE);
        assertThat(rig.cuts(share)).noneMatch(c -> c.key().equals(cut.key()));
        Version first = rig.line(share, "a.txt").versions().stream()
                .filter(v -> v.size() == "only the snapshot has it".length())
                .findFirst()
                .orElseThrow();
        assertThat(first.recipe().isElsewhere()).isFalse();
        assertThat(rig.text(first)).isEqualTo("only the snapshot has it");
    }
}
