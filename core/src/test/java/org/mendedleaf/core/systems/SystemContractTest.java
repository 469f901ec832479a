package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.standins.Fault;

/** What every system promises, by capability; run against each stand-in over its real connection. */
class SystemContractTest {

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

    private static void needs(SystemKind kind, Capability capability) {
        assumeTrue(kind.can(capability), () -> kind + " does not claim " + capability);
    }

    private List<OutsideSystem.Point> points(Place place, String path) throws IOException {
        List<OutsideSystem.Point> found = new ArrayList<>();
        rig.registry.system(place).files(Rig.name(place), Map.of(), f -> {
            if (f.path().equals(path)) {
                found.addAll(f.points().orElseThrow());
            }
        });
        return found;
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aSystemSaysWhatItIsAndWhatItsClockShows(SystemKind kind) throws IOException {
        assertThat(Systems.kindOf(
                        "x",
                        new Endpoint(
                                rig.standIn(kind).address(), rig.standIn(kind).token("ines")),
                        Rig.QUICK))
                .isEqualTo(kind);
        assertThat(rig.system(kind).state().clock())
                .isBetween(rig.now().minusSeconds(1), rig.now().plusSeconds(60));
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aPlaceHasTheSettingsItWasMadeWithAndThoseItGetsLater(SystemKind kind) throws IOException {
        Setting setting = kind.settings().get(0);
        List<String> choices = kind.choices(setting);
        PlaceSettings made = kind.standardSettings().with(setting, choices.get(choices.size() - 1));
        rig.system(kind).create("Minutes & more", made);
        assertThat(settings(kind)).isEqualTo(made);

        PlaceSettings changed = made.with(setting, choices.get(1));
        rig.system(kind).configure("Minutes & more", changed);
        assertThat(settings(kind)).isEqualTo(changed);
    }

    private PlaceSettings settings(SystemKind kind) throws IOException {
        List<OutsideSystem.OutsidePlace> places = rig.system(kind).places();
        assertThat(places).hasSize(1);
        return places.get(0).settings();
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void twoPlacesCannotHaveOneName(SystemKind kind) throws IOException {
        rig.system(kind).create("Seeds", kind.standardSettings());
        assertThatThrownBy(() -> rig.system(kind).create("Seeds", kind.standardSettings()))
                .isInstanceOf(SystemException.Conflict.class);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aWrongTokenIsRefused(SystemKind kind) {
        OutsideSystem stranger =
                Systems.open("x", kind, new Endpoint(rig.standIn(kind).address(), "guess"), Rig.QUICK, rig.clock());
        assertThatThrownBy(stranger::state).isInstanceOf(SystemException.Refused.class);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aNameWithItsTokenAsPasswordIsAcceptedToo(SystemKind kind) throws IOException {
        String password = "ines:" + rig.standIn(kind).token("ines");
        OutsideSystem system =
                Systems.open("x", kind, new Endpoint(rig.standIn(kind).address(), password), Rig.QUICK, rig.clock());
        assertThat(system.state()).isNotNull();
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aSystemThatIsAwayIsSaidToBeAwayAndIsFoundAgain(SystemKind kind) throws IOException {
        rig.standIn(kind).faults().away(true);
        assertThatThrownBy(() -> rig.system(kind).state()).isInstanceOf(SystemException.Unreachable.class);
        rig.standIn(kind).faults().away(false);
        assertThat(rig.system(kind).state()).isNotNull();
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void whatASystemCannotDoItSays(SystemKind kind) throws IOException {
        OutsideSystem system = rig.system(kind);
        rig.place(kind, "p");
        if (!kind.can(Capability.WRITING)) {
            assertThatThrownBy(() -> system.remove("p", "a", "k")).isInstanceOf(SystemException.Unable.class);
        }
        if (!kind.can(Capability.SNAPSHOTS)) {
            assertThatThrownBy(() -> system.snapshot("p", "", "k")).isInstanceOf(SystemException.Unable.class);
        }
        if (!kind.can(Capability.VERSIONS)) {
            assertThatThrownBy(() -> system.files("p", Map.of(), f -> {})).isInstanceOf(SystemException.Unable.class);
        }
        if (!kind.can(Capability.ERASING)) {
            assertThatThrownBy(() -> system.erase("p", "a", "1", "k")).isInstanceOf(SystemException.Unable.class);
        }
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void eachPutIsAVersionWithWhoWhenSizeDigestAndNote(SystemKind kind) throws IOException {
        needs(kind, Capability.VERSIONS);
        Place place = rig.place(kind, "p");
        String first = rig.put(place, "Bäume/Äpfel & Birnen %1.txt", "one");
        rig.later(Duration.ofMinutes(5));
        String second = rig.put(place, "Bäume/Äpfel & Birnen %1.txt", "two, longer", "nach der Sitzung");

        List<OutsideSystem.Point> points = points(place, "Bäume/Äpfel & Birnen %1.txt");
        assertThat(points).extracting(OutsideSystem.Point::id).containsExactly(first, second);
        assertThat(points.get(1).note()).isEqualTo("nach der Sitzung");
        assertThat(points.get(1).size()).isEqualTo(11);
        assertThat(points.get(1).sha256()).isEqualTo(Rig.sha("two, longer".getBytes()));
        assertThat(points.get(1).who()).isEqualTo("ines");
        assertThat(rig.read(place, "Bäume/Äpfel & Birnen %1.txt", first)).isEqualTo("one");
        assertThat(rig.read(place, "Bäume/Äpfel & Birnen %1.txt", second)).isEqualTo("two, longer");
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void withVersioningOffNoEarlierContentIsKept(SystemKind kind) throws IOException {
        needs(kind, Capability.VERSIONS);
        Place place = rig.place(kind, "p", Setting.VERSIONING, "off");
        rig.put(place, "a", "one");
        rig.put(place, "a", "two");
        assertThat(points(place, "a")).hasSize(1);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void pausedKeepsWhatExistsAndAddsNothing(SystemKind kind) throws IOException {
        needs(kind, Capability.PAUSING);
        Place place = rig.place(kind, "p");
        String one = rig.put(place, "a", "one");
        String two = rig.put(place, "a", "two");
        rig.system(kind).configure("p", settings(kind).with(Setting.VERSIONING, "paused"));
        rig.put(place, "a", "three");
        String four = rig.put(place, "a", "four");
        assertThat(points(place, "a")).extracting(OutsideSystem.Point::id).containsExactly(one, two, four);
        assertThatThrownBy(() -> rig.system(kind).configure("p", settings(kind).with(Setting.VERSIONING, "off")))
                .isInstanceOf(SystemException.Conflict.class);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aRemovalIsAPointThatCanBeTakenAway(SystemKind kind) throws IOException {
        needs(kind, Capability.DELETION_POINTS);
        Place place = rig.place(kind, "p");
        rig.put(place, "a", "one");
        rig.system(kind).remove("p", "a", UUID.randomUUID().toString());
        assertThat(points(place, "a")).extracting(OutsideSystem.Point::removal).containsExactly(false, true);
        rig.system(kind).bringBack("p", "a", UUID.randomUUID().toString());
        assertThat(points(place, "a")).extracting(OutsideSystem.Point::removal).containsExactly(false);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void anErasedVersionIsGoneAndTheOthersStay(SystemKind kind) throws IOException {
        needs(kind, Capability.ERASING);
        Place place = rig.place(kind, "p");
        String one = rig.put(place, "a", "one");
        String two = rig.put(place, "a", "two");
        rig.system(kind).erase("p", "a", two, UUID.randomUUID().toString());
        assertThat(points(place, "a")).extracting(OutsideSystem.Point::id).containsExactly(one);
        assertThatThrownBy(() -> rig.read(place, "a", two)).isInstanceOf(SystemException.Missing.class);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aNoteCanBeWrittenLater(SystemKind kind) throws IOException {
        needs(kind, Capability.NOTES);
        Place place = rig.place(kind, "p");
        String one = rig.put(place, "a", "one");
        rig.system(kind).note("p", "a", one, "signed \"final\" <copy>");
        assertThat(points(place, "a").get(0).note()).isEqualTo("signed \"final\" <copy>");
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aSnapshotHoldsWhatWasThereWhateverComesAfter(SystemKind kind) throws IOException {
        needs(kind, Capability.SNAPSHOTS);
        needs(kind, Capability.WRITING);
        Place place = rig.place(kind, "p");
        rig.put(place, "deep/er/a", "one");
        RemoteSnapshot cut = rig.system(kind)
                .snapshot("p", "before pressing", UUID.randomUUID().toString());
        rig.put(place, "deep/er/a", "two");
        rig.put(place, "b", "new");
        assertThat(rig.read(place, "deep/er/a", cut.key())).isEqualTo("one");
        assertThat(rig.system(kind).tree("p", cut.key()))
                .extracting(OutsideSystem.InTree::path)
                .containsExactly("deep/er/a");
        assertThat(rig.system(kind).cuts("p")).extracting(RemoteSnapshot::label).containsExactly("before pressing");
        rig.system(kind).eraseCut("p", cut.key());
        assertThat(rig.system(kind).cuts("p")).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aSystemWithScheduleAndNumberLimitKeepsToBoth(SystemKind kind) throws IOException {
        needs(kind, Capability.SNAPSHOTS);
        needs(kind, Capability.WRITING);
        Place place = rig.place(kind, "p", Setting.SNAPSHOT_EVERY, "day", Setting.SNAPSHOT_KEEP, "3");
        rig.put(place, "a", "one");
        for (int day = 0; day < 6; day++) {
            rig.later(Duration.ofDays(1));
            rig.system(kind).state();
        }
        assertThat(rig.system(kind).cuts("p")).hasSize(3);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void aContentComesWholeThoughTheConnectionDropsOnTheWay(SystemKind kind) throws IOException {
        needs(kind, Capability.WRITING);
        Place place = rig.place(kind, "p");
        String text = "leaf ".repeat(200_000);
        String id = rig.put(place, "a", text);
        rig.standIn(kind)
                .faults()
                .schedule(List.of(Fault.HALF_DOWNLOAD, Fault.DROP_BEFORE, Fault.HALF_DOWNLOAD, Fault.REFUSE));
        assertThat(rig.read(place, "a", id.isEmpty() ? RemoteSnapshot.LIVE : id))
                .isEqualTo(text);
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void anAnswerThatStandsStillIsGivenUpAndAskedForAgain(SystemKind kind) throws IOException {
        Retry impatient = new Retry(3, Duration.ofMillis(1), Duration.ofMillis(2), Duration.ofMillis(200));
        OutsideSystem system = Systems.open(
                "x",
                kind,
                new Endpoint(rig.standIn(kind).address(), rig.standIn(kind).token("ines")),
                impatient,
                rig.clock());
        rig.standIn(kind).faults().schedule(List.of(Fault.STALL));
        assertThat(system.state()).isNotNull();
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void halfAnUploadIsNeverTakenForAWholeOne(SystemKind kind) throws IOException {
        needs(kind, Capability.WRITING);
        Place place = rig.place(kind, "p");
        String text = "leaf ".repeat(100_000);
        rig.standIn(kind).faults().schedule(List.of(Fault.HALF_UPLOAD, Fault.HALF_UPLOAD));
        String id = rig.put(place, "a", text);
        assertThat(rig.read(place, "a", id.isEmpty() ? RemoteSnapshot.LIVE : id))
                .isEqualTo(text);
        if (kind.can(Capability.VERSIONS)) {
            assertThat(points(place, "a")).hasSize(1);
        }
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void badNamesAndPathsAreRefusedAndNothingIsMade(SystemKind kind) throws IOException {
        assertThatThrownBy(() -> rig.connecting()
                        .create(
                                rig.home.connection(kind.text()).orElseThrow(),
                                "a:b",
                                kind.standardSettings(),
                                rig.vault()))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(rig.system(kind).places()).isEmpty();
        if (kind.can(Capability.WRITING)) {
            Place place = rig.place(kind, "p");
            assertThatThrownBy(() -> rig.put(place, "../out", "x")).isInstanceOf(SystemException.class);
        }
    }

    @ParameterizedTest
    @EnumSource(value = SystemKind.class, mode = EnumSource.Mode.EXCLUDE, names = "WEBDAV")
    void theSameContentIsReadByItsDigestOrRefused(SystemKind kind) throws IOException {
        needs(kind, Capability.WRITING);
        Place place = rig.place(kind, "p");
        String id = rig.put(place, "a", "one");
        assertThatThrownBy(() -> rig.registry
                        .system(place)
                        .read(
                                "p",
                                "a",
                                id.isEmpty() ? RemoteSnapshot.LIVE : id,
                                Optional.of(Rig.sha(new byte[] {1})),
                                java.io.OutputStream.nullOutputStream()))
                .isInstanceOf(SystemException.Garbled.class);
    }
}
