package org.mendedleaf.core.snapshots;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotSpace;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.SnapshotSchedule;

class SnapshotsTest {

    @TempDir
    Path temp;

    private static Snapshots of(TestPlace p) {
        p.later(1);
        return new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"));
    }

    @Test
    void aSnapshotHoldsWhatWasThereAtItsMomentAndCopiesNothing() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            Snapshot first = of(p).take("", " before pressing ", Progress.NONE);
            assertThat(first.label()).isEqualTo("before pressing");
            assertThat(p.line("a").versions()).as("what was live is captured").hasSize(1);
            long stored = stored(p);
            p.save("a", "two");
            Files.createDirectories(p.path("sub"));
            Snapshot second = of(p).take("", "", Progress.NONE);
            Files.delete(p.path("a"));
            p.capture();
            assertThat(p.names(first.at())).containsExactly("a");
            assertThat(p.tree(first.at()).get("a").number()).isEqualTo(1);
            assertThat(p.names(second.at())).containsExactly("a", "sub");
            assertThat(p.tree(second.at()).get("a").number()).isEqualTo(2);
            assertThat(of(p).take("", "", Progress.NONE).at()).isAfter(second.at());
            assertThat(stored(p) - stored).as("only the small new content").isLessThan(3000);
        }
    }

    private static long stored(TestPlace p) throws IOException {
        try (var packs = Files.list(p.vault().folder().packs())) {
            return packs.mapToLong(f -> f.toFile().length()).sum();
        }
    }

    @Test
    void whatIsSavedWithAnOldTimeAfterASnapshotDoesNotComeIntoIt() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            Snapshot s = of(p).take("", "", Progress.NONE);
            Files.writeString(p.path("a"), "later, with an old time");
            Files.setLastModifiedTime(p.path("a"), FileTime.from(s.at()));
            Files.writeString(p.path("new"), "later, with an old time");
            Files.setLastModifiedTime(p.path("new"), FileTime.from(TestPlace.START));
            p.capture();
            assertThat(p.tree(s.at()).get("a").number()).isEqualTo(1);
            assertThat(p.names(s.at())).containsExactly("a");
        }
    }

    @Test
    void aSnapshotIsRenamedHeldAndErasedAndComesBack() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            Snapshot s = of(p).take("", "first", Progress.NONE);
            of(p).rename(s.id(), "before the pressing");
            of(p).hold(s.id(), "the insurance asks for it", Optional.empty());
            assertThatThrownBy(() -> of(p).erase(List.of(s.id())))
                    .hasMessageContaining("before the pressing")
                    .hasMessageContaining("insurance");
            of(p).hold(s.id(), "", Optional.empty());
            of(p).erase(List.of(s.id()));
            assertThat(of(p).standing()).isEmpty();
            assertThatThrownBy(() -> of(p).rename(s.id(), "x")).hasMessageContaining("no snapshot");
            try (Reading reading = p.vault().read()) {
                p.recovery().undo(JournalStore.of(reading).lastUndoable().orElseThrow());
            }
            assertThat(of(p).standing()).extracting(Snapshot::label).containsExactly("before the pressing");
        }
    }

    @Test
    void aSnapshotOfAFolderThatIsNoneIsRefused() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            assertThatThrownBy(() -> of(p).take("nowhere", "", Progress.NONE))
                    .hasMessageContaining("no folder nowhere");
        }
    }

    @Test
    void snapshotsAndSchedulesComeBackFromThePacksAlone() throws IOException {
        SnapshotSchedule schedule;
        Snapshot s;
        try (TestPlace p = new TestPlace(temp)) {
            p.save("sub/a", "one");
            p.capture();
            s = of(p).take("sub", "first", Progress.NONE);
            schedule = of(p).schedule(daily(p, 3, SnapshotSchedule.Missed.CATCH_UP));
        }
        Rebuild.run(temp.resolve("vault"), "test", Duration.ZERO, Clock.fixed(Instant.EPOCH, ZoneOffset.UTC));
        try (TestPlace p = new TestPlace(temp)) {
            assertThat(of(p).standing()).containsExactly(s);
            assertThat(of(p).schedules()).containsExactly(schedule);
        }
    }

    private static SnapshotSchedule daily(TestPlace p, int keep, SnapshotSchedule.Missed missed) {
        return new SnapshotSchedule(
                0,
                p.place().id(),
                "",
                "evening",
                Recurrence.daily(),
                LocalDateTime.of(2026, 5, 4, 18, 0),
                ZoneOffset.UTC,
                keep,
                missed,
                Instant.EPOCH,
                false);
    }

    @Test
    void aScheduleTakesItsSnapshotsAndKeepsSoManyOfThem() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            SnapshotSchedule schedule = of(p).schedule(daily(p, 2, SnapshotSchedule.Missed.SKIP));
            of(p).take("", "by hand", Progress.NONE);
            assertThat(of(p).seeToSchedules(Progress.NONE)).as("not yet").isEmpty();
            for (int day = 4; day < 8; day++) {
                p.at(LocalDateTime.of(2026, 5, day, 18, 1).toInstant(ZoneOffset.UTC));
                assertThat(of(p).seeToSchedules(Progress.NONE)).hasSize(1);
                assertThat(of(p).seeToSchedules(Progress.NONE)).isEmpty();
            }
            assertThat(of(p).standing()).hasSize(3);
            assertThat(of(p).standing().stream().filter(s -> s.schedule() == schedule.id()))
                    .extracting(s -> s.at().atZone(ZoneOffset.UTC).getDayOfMonth())
                    .containsExactly(6, 7);
            of(p).end(schedule.id());
            p.later(60 * 24 * 3);
            assertThat(of(p).seeToSchedules(Progress.NONE)).isEmpty();
            assertThat(of(p).standing())
                    .as("an ended schedule leaves its snapshots")
                    .hasSize(3);
        }
    }

    @Test
    void aHeldSnapshotIsNotCountedAndNotTaken() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            of(p).schedule(daily(p, 1, SnapshotSchedule.Missed.SKIP));
            List<Snapshot> taken = new ArrayList<>();
            for (int day = 4; day < 7; day++) {
                p.at(LocalDateTime.of(2026, 5, day, 18, 1).toInstant(ZoneOffset.UTC));
                taken.addAll(of(p).seeToSchedules(Progress.NONE));
                if (day == 4) {
                    of(p).hold(taken.get(0).id(), "for the audit", Optional.empty());
                }
            }
            assertThat(of(p).standing())
                    .extracting(Snapshot::id)
                    .containsExactly(taken.get(0).id(), taken.get(2).id());
        }
    }

    @Test
    void aHoldThatHasEndedKeepsNoSnapshotAnyMore() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            Snapshot s = of(p).take("", "season", Progress.NONE);
            Instant end = p.now().plus(Duration.ofDays(30));
            of(p).hold(s.id(), "audit", Optional.of(end));
            assertThat(of(p).standing()).singleElement().satisfies(held -> {
                assertThat(held.holdEnds()).contains(end);
                assertThat(held.isHeld(end.minusSeconds(1))).isTrue();
                assertThat(held.isHeld(end)).isFalse();
            });
            assertThatThrownBy(() -> of(p).erase(List.of(s.id()))).hasMessageContaining("audit");
            assertThatThrownBy(() -> of(p).hold(s.id(), "audit", Optional.of(p.now())))
                    .hasMessageContaining("past");
            p.at(end.plusSeconds(1));
            of(p).erase(List.of(s.id()));
            assertThat(of(p).standing()).isEmpty();
        }
    }

    @Test
    void aMissedTimeIsCaughtUpOnceOrSkippedAsChosen() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            of(p).schedule(daily(p, 0, SnapshotSchedule.Missed.SKIP));
            of(p).schedule(daily(p, 0, SnapshotSchedule.Missed.CATCH_UP));
            p.later(60 * 24 * 5);
            assertThat(of(p).seeToSchedules(Progress.NONE))
                    .as("one for all that were missed")
                    .hasSize(1);
            assertThat(of(p).seeToSchedules(Progress.NONE)).isEmpty();
        }
    }

    @Test
    void aCatalogueFromBeforeThereWereSnapshotsIsBroughtUpToDate() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            p.capture();
        }
        try (var catalogue = java.sql.DriverManager.getConnection("jdbc:sqlite:" + temp.resolve("vault/catalogue.db"));
                var statement = catalogue.createStatement()) {
            for (String table : List.of(
                    "snapshot",
                    "schedule",
                    "packed",
                    "packed_due",
                    "rule",
                    "member",
                    "edition",
                    "checkout",
                    "comment",
                    "noted",
                    "card",
                    "finding",
                    "taken",
                    "ruleset",
                    "hold",
                    "let_go",
                    "damaged",
                    "duty",
                    "held_line",
                    "kept_after_all",
                    "decision",
                    "fine",
                    "journal_link",
                    "moved_aside",
                    "vault_copy",
                    "copy_state",
                    "sound_pack",
                    "journal_end",
                    "setting_change",
                    "to_unfold",
                    "unfold_sketch",
                    "replaced_recipe",
                    "recent_change",
                    "emptied")) {
                statement.execute("DROP TABLE " + table);
            }
            statement.execute("DROP INDEX version_noted");
            statement.execute("PRAGMA user_version = 2");
        }
        try (TestPlace p = new TestPlace(temp)) {
            p.later(10);
            assertThat(p.line("a").versions()).hasSize(1);
            of(p).take("", "the first", Progress.NONE);
            assertThat(of(p).standing()).hasSize(1);
        }
    }

    @Test
    void twoProgramsTakeOneSnapshotBetweenThem() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            of(p).schedule(daily(p, 0, SnapshotSchedule.Missed.CATCH_UP));
            p.later(60 * 24);
            List<Snapshot> taken = java.util.Collections.synchronizedList(new ArrayList<>());
            List<Thread> programs = new ArrayList<>();
            try (OpenVault other = OpenVault.open(temp.resolve("vault"), "another program", Duration.ofSeconds(10))) {
                for (OpenVault vault : List.of(p.vault(), other)) {
                    Snapshots snapshots =
                            new Snapshots(new WorkContext(vault, p.place(), p.clock(), p.authors(), "Ines"));
                    Thread program = new Thread(() -> {
                        for (int i = 0; i < 20; i++) {
                            try {
                                taken.addAll(snapshots.seeToSchedules(Progress.NONE));
                                return;
                            } catch (IOException e) {
                                // The other one writes; at the next round again.
                            }
                        }
                    });
                    programs.add(program);
                    program.start();
                }
                for (Thread program : programs) {
                    program.join();
                }
            }
            assertThat(taken).hasSize(1);
            assertThat(of(p).standing()).hasSize(1);
        }
    }

    @Test
    void theKeeperSeesToWhatIsDueAndSaysWhenAFolderIsAway() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a", "one");
            of(p).schedule(daily(p, 0, SnapshotSchedule.Missed.CATCH_UP));
            p.later(60 * 24);
            List<String> heard = java.util.Collections.synchronizedList(new ArrayList<>());
            Path away = temp.resolve("away");
            Files.move(p.folder(), away);
            SnapshotKeeper.Listener listener = new SnapshotKeeper.Listener() {
                @Override
                public void taken(Place place, Snapshot snapshot) {
                    heard.add("taken");
                }

                @Override
                public void failed(Place place, IOException why) {
                    heard.add("failed");
                }
            };
            List<String> told = java.util.Collections.synchronizedList(new ArrayList<>());
            Supervisor.Backoff soon = new Supervisor.Backoff(Duration.ofMillis(50), Duration.ofMillis(200));
            try (Supervisor supervisor =
                    new Supervisor(soon, new Duties(p.vault(), p.clock(), f -> told.add(f.trouble())))) {
                supervisor.add(new SnapshotKeeper(p.vault(), p.clock(), p.authors(), "Ines", listener));
                await(heard, "failed");
                for (int i = 0; i < 100 && told.isEmpty(); i++) {
                    Thread.sleep(50);
                }
                assertThat(told.get(0)).contains("is not there");
                try (Reading r = p.vault().read()) {
                    assertThat(Duties.failing(r))
                            .singleElement()
                            .satisfies(f -> assertThat(f.trouble()).contains("is not there"));
                }
                Files.move(away, p.folder());
                await(heard, "taken");
                await(told, "");
            }
            try (Reading r = p.vault().read()) {
                assertThat(Duties.failing(r)).isEmpty();
            }
            assertThat(of(p).standing()).hasSize(1);
        }
    }

    private static void await(List<String> heard, String what) {
        for (int i = 0; i < 100 && !heard.contains(what); i++) {
            try {
                Thread.sleep(50);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
        assertThat(heard).contains(what);
    }

    @Test
    void theRoomThatASnapshotAloneHoldsIsExact() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            byte[] noise = new byte[300_000];
            new Random(5).nextBytes(noise);
            p.save("live", "stays as it is");
            p.save("big", noise);
            Snapshot first = of(p).take("", "", Progress.NONE);
            p.save("big", "small now");
            Snapshot second = of(p).take("", "", Progress.NONE);
            p.save("big", "smaller");
            p.capture();
            try (Reading reading = p.vault().read()) {
                var holds = SnapshotSpace.of(reading, p.place(), of(p).standing());
                SnapshotSpace.Holds one = holds.get(first.id());
                assertThat(one.files()).isEqualTo(2);
                assertThat(one.bytes()).isEqualTo(300_000 + "stays as it is".length());
                assertThat(one.aloneVersions()).isEqualTo(1);
                assertThat(one.aloneBytes()).isBetween(300_000L, 301_000L);
                assertThat(holds.get(second.id()).aloneVersions()).isEqualTo(1);
                assertThat(holds.get(second.id()).aloneBytes()).isLessThan(200);
            }
            Snapshot third = of(p).take("", "", Progress.NONE);
            try (Reading reading = p.vault().read()) {
                assertThat(SnapshotSpace.of(reading, p.place(), of(p).standing())
                                .get(third.id())
                                .aloneVersions())
                        .as("what is live is held by nobody alone")
                        .isZero();
            }
        }
    }
}
