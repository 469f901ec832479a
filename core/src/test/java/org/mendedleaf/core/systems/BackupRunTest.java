package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.Setting;

/** Runs onto a drive that has limited space and can be unplugged. */
class BackupRunTest {

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

    private Place set(Object... settings) throws IOException {
        Place set = rig.place(SystemKind.BACKUP_DRIVE, "desk", settings);
        rig.relate(rig.desk.place(), "", set, "");
        return set;
    }

    private BackupRun.Result run(Place set) throws IOException {
        rig.later(Duration.ofMinutes(1));
        return new BackupRun(rig.vault(), set, rig.registry.system(set), rig.clock()).run(Progress.NONE);
    }

    private Coverage.Row row(Place place) throws IOException {
        return Coverage.of(rig.vault(), rig.now(), java.time.ZoneOffset.UTC).stream()
                .filter(r -> r.place().orElseThrow().id() == place.id())
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aRunHoldsTheFolderAndTheNextOneSendsOnlyWhatChanged() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.save("b/c.txt", "two");
        rig.desk.capture();
        Place set = set();
        assertThat(run(set).sent()).isEqualTo(2);
        rig.desk.save("a.txt", "changed");
        rig.desk.capture();
        BackupRun.Result second = run(set);
        assertThat(second.files()).isEqualTo(2);
        assertThat(second.sent()).isEqualTo(1);
        assertThat(rig.cuts(set)).hasSize(2);
        assertThat(rig.line(set, "a.txt").versions()).hasSize(2);
        assertThat(rig.line(set, "a.txt").newest().orElseThrow().origin()).isEqualTo(Origin.BACKED_UP);
        assertThat(rig.holders(rig.line(set, "b/c.txt"), 1))
                .extracting(Holder::kind)
                .containsExactly(Holder.Kind.CUT, Holder.Kind.CUT);
    }

    @Test
    void theDriveIsAHolderOnTheFoldersOwnLine() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        Place set = set();
        run(set);
        MergedLine line = MergedLine.of(rig.vault(), rig.desk.line("a.txt"), rig.registry, true);
        assertThat(line.points()).hasSize(1);
        assertThat(line.points().get(0).holders("vault")).containsExactly("vault", "backup-drive:desk");
    }

    @Test
    void anUnpluggedDriveIsAwayWithItsMissedRunsCounted() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        Place set = set();
        run(set);
        rig.outside.drive().plug(false);
        rig.later(Duration.ofDays(2).plusHours(1));
        assertThatThrownBy(() -> run(set)).isInstanceOf(SystemException.Unplugged.class);
        assertThat(row(set).state()).isEqualTo(CoverageState.AWAY);
        assertThat(row(set).missed()).isEqualTo(2);
        rig.outside.drive().plug(true);
        run(set);
        assertThat(row(set).state()).isEqualTo(CoverageState.GOOD);
        assertThat(row(set).missed()).isZero();
    }

    @Test
    void whenRoomIsNeededTheOldestRunsGoButNeverTheNewest() throws IOException {
        Random random = new Random(1);
        Place set = null;
        for (int i = 0; i < 4; i++) {
            byte[] big = new byte[9_000_000];
            random.nextBytes(big);
            rig.desk.save("big.bin", big);
            rig.desk.capture();
            set = set == null ? set() : set;
            run(set);
        }
        assertThat(rig.cuts(set)).as("24 MB hold two runs of 9 MB").hasSize(2);
    }

    @Test
    void aDriveOnWhichNothingMayGoIsFullAndSaysSo() throws IOException {
        Random random = new Random(1);
        byte[] big = new byte[14_000_000];
        random.nextBytes(big);
        rig.desk.save("big.bin", big);
        rig.desk.capture();
        Place set = set(Setting.BACKUP_KEEP, "for-good");
        run(set);
        random.nextBytes(big);
        rig.desk.save("big.bin", big);
        rig.desk.capture();
        assertThatThrownBy(() -> run(set)).isInstanceOf(SystemException.Full.class);
        assertThat(row(set).state()).isEqualTo(CoverageState.FULL);
        assertThat(rig.cuts(set)).hasSize(1);
    }

    private static byte[] noise(int bytes) {
        byte[] all = new byte[bytes];
        new Random(bytes).nextBytes(all);
        return all;
    }

    @Test
    void aFileThatIsTooLargeIsLeftOutAndNamedAndTheOthersAreKept() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.save("sub/huge.bin", noise(25_000_000));
        rig.desk.save("z.txt", "two");
        rig.desk.capture();
        Place set = set();
        BackupRun.Result result = run(set);
        assertThat(result.finished()).isTrue();
        assertThat(result.failed()).containsOnlyKeys("sub/huge.bin");
        assertThat(rig.registry.system(set).tree("desk", rig.cuts(set).get(0).key()))
                .extracting(OutsideSystem.InTree::path)
                .containsExactlyInAnyOrder("a.txt", "z.txt");
        assertThat(row(set).state()).isEqualTo(CoverageState.GAPS);
        assertThat(row(set).gaps()).singleElement().satisfies(gap -> {
            assertThat(gap.path()).contains("huge.bin");
            assertThat(gap.words()).contains("the next run tries again").contains("no space");
        });
        rig.look(set);
        assertThat(row(set).gaps()).as("after another scan").hasSize(1);
    }

    @Test
    void whatWasTooLargeWedgesNoLaterRunNeitherWhileItIsThereNorWhenItIsGone() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.save("huge.bin", noise(25_000_000));
        rig.desk.capture();
        Place set = set();
        run(set);
        rig.desk.save("a.txt", "changed");
        rig.desk.capture();
        assertThat(run(set).failed()).containsOnlyKeys("huge.bin");
        assertThat(rig.cuts(set)).hasSize(2);
        java.nio.file.Files.delete(rig.desk.folder().resolve("huge.bin"));
        rig.desk.capture();
        assertThat(run(set).failed()).isEmpty();
        assertThat(rig.cuts(set)).hasSize(3);
        assertThat(row(set).state()).isEqualTo(CoverageState.GOOD);
        assertThat(row(set).gaps()).isEmpty();
    }

    @Test
    void aFileThatIsRefusedGoesOverWithTheNextRunThatIsNotRefused() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.save("b.txt", "two");
        rig.desk.capture();
        Place set = set();
        rig.standIn(SystemKind.BACKUP_DRIVE).faults().refuse("/b.txt");
        assertThat(run(set).failed()).containsOnlyKeys("b.txt");
        rig.standIn(SystemKind.BACKUP_DRIVE).faults().clear();
        BackupRun.Result second = run(set);
        assertThat(second.failed()).isEmpty();
        assertThat(second.sent()).isEqualTo(1);
        assertThat(rig.line(set, "b.txt").versions()).hasSize(1);
    }

    @Test
    void aDriveThatTakesNothingKeepsTheRunOpenAndWhatItSaidIsTold() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        Place set = set();
        rig.standIn(SystemKind.BACKUP_DRIVE).faults().refuse("/a.txt");
        assertThatThrownBy(() -> run(set)).isInstanceOf(SystemException.Refused.class);
        assertThat(rig.cuts(set)).isEmpty();
        assertThat(row(set).trouble()).isNotEmpty();
        assertThat(row(set).state()).isEqualTo(CoverageState.FAILING);
        rig.standIn(SystemKind.BACKUP_DRIVE).faults().clear();
        assertThat(run(set).failed()).isEmpty();
        assertThat(row(set).trouble()).isEmpty();
        assertThat(rig.cuts(set)).hasSize(1);
    }

    @Test
    void anOpenRunOfAMomentAtWhichNothingWasKeptIsGivenUp() throws IOException {
        Place set = set();
        rig.registry.system(set).target().open("desk", rig.now());
        rig.later(Duration.ofHours(1));
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        assertThat(run(set).sent()).isEqualTo(1);
        assertThat(rig.cuts(set))
                .singleElement()
                .satisfies(cut -> assertThat(cut.at()).isAfter(Rig.START.plus(Duration.ofMinutes(59))));
    }

    @Test
    void aSetWithoutAFolderHasNothingToDoAndSaysWhatToDo() throws IOException {
        Place set = rig.place(SystemKind.BACKUP_DRIVE, "desk");
        assertThatThrownBy(() -> run(set))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("Choose");
    }

    @Test
    void theWatchRunsWhatIsDueAndCatchesUpWhenTheDriveIsBack() throws Exception {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        Place set = set();
        rig.look(set);
        try (Supervisor watch = watch()) {
            assertThat(watch.names()).hasSize(1);
            await(() -> rig.cuts(set).size() == 1);
        }
        rig.outside.drive().plug(false);
        rig.later(Duration.ofDays(1).plusHours(1));
        try (Supervisor watch = watch()) {
            assertThat(watch.names()).hasSize(1);
            await(() -> row(set).state() == CoverageState.AWAY);
        }
        rig.outside.drive().plug(true);
        rig.later(Duration.ofMinutes(1));
        try (Supervisor watch = watch()) {
            assertThat(watch.names()).hasSize(1);
            await(() -> rig.cuts(set).size() == 2);
        }
        RemoteSnapshot second = rig.cuts(set).get(1);
        assertThat(rig.read(set, "a.txt", second.key())).isEqualTo("one");
    }

    private Supervisor watch() {
        Supervisor watch = new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(rig.vault(), rig.clock(), f -> {}));
        watch.add(new SystemWatch(rig.vault(), rig.registry, rig.clock(), new Quiet()));
        return watch;
    }

    private static final class Quiet implements SystemWatch.Listener {
        @Override
        public Progress begins(Place place, boolean backup) {
            return Progress.NONE;
        }

        @Override
        public void ended(Place place, boolean changed) {}

        @Override
        public void failed(Place place, IOException why) {}
    }

    private interface Condition {
        boolean holds() throws IOException;
    }

    private static void await(Condition condition) throws Exception {
        for (int i = 0; i < 300 && !condition.holds(); i++) {
            Thread.sleep(100);
        }
        assertThat(condition.holds()).isTrue();
    }
}
