package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;

/** What is said that a system will forget is what it forgets, as its clock goes on. */
class OutsideRetentionRulesTest {

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

    private List<OutsideRetention.Going> predicted(Place place, SystemKind kind, PlaceSettings settings)
            throws IOException {
        try (Reading reading = rig.vault().read()) {
            return kind.keepsCuts()
                    ? OutsideRetention.cuts(kind, settings, rig.cuts(place), rig.now())
                    : OutsideRetention.points(kind, settings, reading.outside().points(place), rig.now());
        }
    }

    private Set<String> held(Place place, SystemKind kind) throws IOException {
        rig.look(place);
        Set<String> held = new HashSet<>();
        if (kind.keepsCuts()) {
            rig.cuts(place).forEach(c -> held.add(c.key()));
        } else {
            try (Reading reading = rig.vault().read()) {
                reading.outside().points(place).forEach(h -> held.add(h.point()));
            }
        }
        return held;
    }

    private void holdsTrue(Place place, SystemKind kind, PlaceSettings settings) throws IOException {
        List<OutsideRetention.Going> going = predicted(place, kind, settings);
        assertThat(going).isNotEmpty();
        Instant last = rig.now();
        for (OutsideRetention.Going g : going) {
            last = g.when().isAfter(last) ? g.when() : last;
        }
        while (rig.now().isBefore(last.plus(Duration.ofHours(30)))) {
            rig.later(Duration.ofHours(26));
            Set<String> held = held(place, kind);
            for (OutsideRetention.Going g : going) {
                // Clocks that are some milliseconds apart are no matter.
                if (g.when().isBefore(rig.now().minusSeconds(120))) {
                    assertThat(held).as("gone at %s", rig.now()).doesNotContain(g.point());
                } else if (g.when().isAfter(rig.now().plusSeconds(120))) {
                    assertThat(held).as("there at %s", rig.now()).contains(g.point());
                }
            }
        }
    }

    @Test
    void anObjectStoreForgetsReplacedVersionsButForTheNewest() throws IOException {
        Place place = rig.place(SystemKind.OBJECT_STORE, "p", Setting.EXPIRE_DAYS, "5", Setting.EXPIRE_KEEP, "1");
        for (int i = 0; i < 4; i++) {
            rig.put(place, "a", "version " + i);
            rig.put(place, "b" + i, "other");
            rig.later(Duration.ofDays(1));
        }
        rig.system(SystemKind.OBJECT_STORE).remove("p", "b0", UUID.randomUUID().toString());
        rig.look(place);
        holdsTrue(
                place,
                SystemKind.OBJECT_STORE,
                rig.system(SystemKind.OBJECT_STORE).places().get(0).settings());
    }

    @Test
    void aFileServerForgetsTheOldestSnapshotAsNewOnesCome() throws IOException {
        Place place = rig.place(SystemKind.FILE_SERVER, "p", Setting.SNAPSHOT_KEEP, "3");
        rig.put(place, "a", "one");
        for (int i = 0; i < 3; i++) {
            rig.system(SystemKind.FILE_SERVER)
                    .snapshot("p", "", UUID.randomUUID().toString());
            rig.later(Duration.ofMinutes(1));
        }
        PlaceSettings daily =
                rig.system(SystemKind.FILE_SERVER).places().get(0).settings().with(Setting.SNAPSHOT_EVERY, "day");
        rig.look(place);
        assertThat(predicted(place, SystemKind.FILE_SERVER, daily)).hasSize(3);
        rig.system(SystemKind.FILE_SERVER).configure("p", daily);
        Set<String> before = held(place, SystemKind.FILE_SERVER);
        rig.later(Duration.ofHours(25));
        rig.look(place);
        rig.later(Duration.ofHours(25));
        rig.look(place);
        Set<String> after = held(place, SystemKind.FILE_SERVER);
        assertThat(after).hasSize(3);
        before.retainAll(after);
        assertThat(before).as("two of three went in two days").hasSize(1);
    }

    @Test
    void aSmallerNumberOfSnapshotsIsSaidToForgetAtOnceAndDoes() throws IOException {
        Place place = rig.place(SystemKind.FILE_SERVER, "p");
        rig.put(place, "a", "one");
        for (int i = 0; i < 5; i++) {
            rig.system(SystemKind.FILE_SERVER)
                    .snapshot("p", "", UUID.randomUUID().toString());
        }
        rig.look(place);
        PlaceSettings fewer =
                rig.system(SystemKind.FILE_SERVER).places().get(0).settings().with(Setting.SNAPSHOT_KEEP, "2");
        try (Reading reading = rig.vault().read()) {
            Outlook.Forgets forgets = Outlook.forgets(reading, place, SystemKind.FILE_SERVER, fewer, rig.now());
            assertThat(forgets.atOnce()).isEqualTo(3);
            assertThat(forgets.words(SystemKind.FILE_SERVER, rig.now(), ZoneOffset.UTC))
                    .startsWith("3 snapshots go at once");
        }
        rig.connecting().configure(place, fewer, rig.vault());
        assertThat(rig.cuts(place)).hasSize(2);
    }

    @Test
    void whichSnapshotGoesForOneMoreIsSaidBeforeItIsTaken() throws IOException {
        Place place = rig.place(SystemKind.FILE_SERVER, "p", Setting.SNAPSHOT_KEEP, "2");
        rig.put(place, "a", "one");
        RemoteSnapshot first = rig.erasing(place).snapshot("first");
        try (Reading reading = rig.vault().read()) {
            assertThat(Outlook.goesForOneMore(reading, place)).isEmpty();
        }
        rig.later(Duration.ofHours(1));
        rig.erasing(place).snapshot("second");
        try (Reading reading = rig.vault().read()) {
            assertThat(Outlook.goesForOneMore(reading, place).orElseThrow().key())
                    .isEqualTo(first.key());
            assertThat(Outlook.snapshotWords(reading, place, rig.now(), ZoneOffset.UTC))
                    .contains("The oldest one, of today 08:00, goes for it");
        }
        rig.erasing(place).snapshot("third");
        assertThat(rig.cuts(place)).extracting(RemoteSnapshot::label).containsExactly("second", "third");
    }

    @Test
    void aLibraryForgetsByNumberAndRemovedFilesByDays() throws IOException {
        Place place = rig.place(SystemKind.LIBRARY, "p", Setting.REMOVED_DAYS, "3");
        for (int i = 0; i < 5; i++) {
            rig.put(place, "a", "version " + i);
        }
        rig.put(place, "b", "other");
        rig.system(SystemKind.LIBRARY).remove("p", "b", UUID.randomUUID().toString());
        rig.look(place);
        PlaceSettings fewer =
                rig.system(SystemKind.LIBRARY).places().get(0).settings().with(Setting.KEEP_VERSIONS, "2");
        List<OutsideRetention.Going> going = predicted(place, SystemKind.LIBRARY, fewer);
        assertThat(going).hasSize(4);
        rig.connecting().configure(place, fewer, rig.vault());
        Set<String> held = held(place, SystemKind.LIBRARY);
        going.stream()
                .filter(g -> !g.when().isAfter(rig.now()))
                .forEach(g -> assertThat(held).doesNotContain(g.point()));
        rig.later(Duration.ofDays(4));
        assertThat(held(place, SystemKind.LIBRARY)).hasSize(2);
    }

    @Test
    void aDriveForgetsRunsAfterTheirTimeButNeverTheNewest() throws IOException {
        rig.desk.save("a.txt", "one");
        rig.desk.capture();
        Place set = rig.place(SystemKind.BACKUP_DRIVE, "p", Setting.BACKUP_KEEP, "1-month");
        rig.relate(rig.desk.place(), "", set, "");
        for (int i = 0; i < 3; i++) {
            rig.later(Duration.ofDays(1));
            new BackupRun(rig.vault(), set, rig.registry.system(set), rig.clock()).run(Progress.NONE);
        }
        PlaceSettings settings =
                rig.system(SystemKind.BACKUP_DRIVE).places().get(0).settings();
        assertThat(predicted(set, SystemKind.BACKUP_DRIVE, settings)).hasSize(2);
        RemoteSnapshot newest = rig.cuts(set).get(2);
        rig.later(Duration.ofDays(60));
        rig.look(set);
        assertThat(rig.cuts(set)).extracting(RemoteSnapshot::key).containsExactly(newest.key());
    }

    @Test
    void whatSettingsMeanIsSaidInWords() {
        PlaceSettings drafts = SystemKind.LIBRARY.standardSettings().with(Setting.NUMBERING, "drafts");
        assertThat(Outlook.effects(SystemKind.LIBRARY, drafts))
                .anyMatch(w -> w.contains("until somebody publishes"))
                .anyMatch(w -> w.contains("Readers get the newest published"));
        PlaceSettings whole = SystemKind.LIBRARY.standardSettings();
        assertThat(Outlook.effects(SystemKind.LIBRARY, whole)).noneMatch(w -> w.contains("draft"));
        for (SystemKind kind : SystemKind.values()) {
            PlaceSettings s = kind.standardSettings();
            for (Setting setting : kind.settings()) {
                for (String choice : setting.isNumber() ? List.of("0", "1", "7") : kind.choices(setting)) {
                    if (!(setting == Setting.SNAPSHOT_KEEP && choice.equals("0"))) {
                        assertThat(Outlook.effects(kind, s.with(setting, choice)))
                                .allMatch(w -> !w.contains("{"));
                    }
                }
            }
        }
    }
}
