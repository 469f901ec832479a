package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.SpaceTree;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.rules.Setting;

/** What a system says comes onto lines, once. */
class MirrorTest {

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

    private Place store(Object... settings) throws IOException {
        return rig.place(SystemKind.OBJECT_STORE, "archive", settings);
    }

    @Test
    void versionsOfAnObjectStoreBecomeALineAndASecondLookAddsNothing() throws IOException {
        Place place = store();
        rig.put(place, "2026/press.csv", "one", "first");
        rig.later(Duration.ofHours(1));
        rig.put(place, "2026/press.csv", "two");
        rig.later(Duration.ofHours(1));
        assertThat(rig.look(place).points()).isEqualTo(2);

        Line line = rig.line(place, "2026/press.csv");
        assertThat(line.versions()).extracting(Version::origin).containsOnly(Origin.UPLOADED);
        assertThat(line.versions().get(1).note()).isEqualTo("first");
        assertThat(line.versions().get(1).saved()).isBetween(Rig.START.minusSeconds(5), Rig.START.plusSeconds(60));
        assertThat(line.versions()).allMatch(v -> v.recipe().isElsewhere());
        assertThat(rig.holders(line, 1)).extracting(Holder::kind).containsExactly(Holder.Kind.POINT);
        assertThat(rig.look(place).points()).isZero();
        assertThat(rig.line(place, "2026/press.csv").points()).hasSize(2);
    }

    @Test
    void aListingAtAMomentIsWhatTheSystemHeldThen() throws IOException {
        Place place = store();
        rig.put(place, "a", "one");
        rig.later(Duration.ofHours(1));
        rig.put(place, "dir/b", "one");
        rig.later(Duration.ofHours(1));
        rig.system(SystemKind.OBJECT_STORE)
                .remove("archive", "a", UUID.randomUUID().toString());
        rig.later(Duration.ofHours(1));
        rig.look(place);
        assertThat(rig.listing(place, "", Rig.START.plus(Duration.ofMinutes(30))))
                .containsExactly("a");
        assertThat(rig.listing(place, "", Rig.START.plus(Duration.ofMinutes(90))))
                .containsExactly("a", "dir");
        assertThat(rig.listing(place, "", rig.now())).containsExactly("dir");
    }

    @Test
    void aPathOfThreeThousandLevelsStopsNothingThatComesAfterIt() throws Exception {
        // With less space than any thread of the program has: nothing may need more for a deeper path.
        AtomicReference<Throwable> failed = new AtomicReference<>();
        Thread small = new Thread(null, () -> failed.set(deepPath()), "a small stack", 160 << 10);
        small.start();
        small.join();
        assertThat(failed.get()).isNull();
    }

    private @Nullable Throwable deepPath() {
        try {
            lookAtDeepPath();
            return null;
        } catch (IOException | RuntimeException | Error e) {
            return e;
        }
    }

    private void lookAtDeepPath() throws IOException {
        Place place = store();
        String deep = "d/".repeat(3000) + "deep.txt";
        rig.put(place, "a", "before");
        rig.put(place, deep, "far down");
        rig.put(place, "z", "after");
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        assertThat(rig.listing(place, "", rig.now())).containsExactly("a", "d", "z");
        assertThat(rig.text(rig.line(place, "z").newest().orElseThrow())).isEqualTo("after");
        assertThat(rig.text(rig.line(place, deep).newest().orElseThrow())).isEqualTo("far down");
        rig.put(place, "z", "and later");
        rig.later(Duration.ofMinutes(1));
        assertThat(rig.look(place).points()).isEqualTo(1);
        assertThat(rig.desk.check().isClean()).isTrue();
        try (Reading reading = rig.vault().read()) {
            SpaceTree space = SpaceTree.of(VersionTable.of(reading), rig.now());
            assertThat(space.root().files()).isEqualTo(3);
            assertThat(space.find(place.id(), deep)).isPresent();
        }
    }

    @Test
    void aDeletionPointThatIsTakenAwayBringsTheFileBack() throws IOException {
        Place place = store();
        rig.put(place, "a", "one");
        OutsideSystem system = rig.system(SystemKind.OBJECT_STORE);
        system.remove("archive", "a", UUID.randomUUID().toString());
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        assertThat(rig.line(place, "a").removed()).isPresent();
        system.bringBack("archive", "a", UUID.randomUUID().toString());
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        Line back = rig.line(place, "a");
        assertThat(back.removed()).isEmpty();
        assertThat(back.newest().orElseThrow().origin()).isEqualTo(Origin.RETURNED);
        assertThat(rig.text(back.newest().orElseThrow())).isEqualTo("one");
        assertThat(rig.look(place).points()).isZero();
    }

    @Test
    void whenTheNewestVersionIsErasedTheOneBeforeIsCurrentAgain() throws IOException {
        Place place = store();
        rig.put(place, "a", "one");
        String two = rig.put(place, "a", "two");
        rig.look(place);
        rig.system(SystemKind.OBJECT_STORE)
                .erase("archive", "a", two, UUID.randomUUID().toString());
        rig.later(Duration.ofMinutes(1));
        assertThat(rig.look(place).forgotten()).isEqualTo(1);
        Line line = rig.line(place, "a");
        assertThat(line.versions()).hasSize(3);
        assertThat(rig.text(line.newest().orElseThrow())).isEqualTo("one");
        assertThat(rig.holders(line, 2)).as("version 2 is held by nobody").isEmpty();
    }

    @Test
    void whatExpiresIsForgottenAndItsPointStays() throws IOException {
        Place place = store(Setting.EXPIRE_DAYS, "7");
        rig.put(place, "a", "one");
        rig.later(Duration.ofDays(1));
        rig.put(place, "a", "two");
        rig.look(place);
        Line line = rig.line(place, "a");
        assertThat(rig.holders(line, 1).get(0).expires().orElseThrow())
                .isBetween(
                        rig.now().plus(Duration.ofDays(7)).minusSeconds(60),
                        rig.now().plus(Duration.ofDays(7)).plusSeconds(60));
        rig.later(Duration.ofDays(8));
        assertThat(rig.look(place).forgotten()).isEqualTo(1);
        assertThat(rig.line(place, "a").versions()).hasSize(2);
        assertThat(rig.holders(rig.line(place, "a"), 1)).isEmpty();
    }

    @Test
    void aVersionIsHeldByEverySnapshotInWhichItWasCurrent() throws IOException {
        Place share = rig.place(SystemKind.FILE_SERVER, "common");
        OutsideSystem server = rig.system(SystemKind.FILE_SERVER);
        rig.put(share, "rota.ods", "one");
        rig.later(Duration.ofHours(1));
        server.snapshot("common", "s1", "k1");
        rig.later(Duration.ofHours(1));
        server.snapshot("common", "s2", "k2");
        rig.put(share, "rota.ods", "two");
        rig.later(Duration.ofHours(1));
        server.snapshot("common", "s3", "k3");
        rig.put(share, "rota.ods", "three");
        rig.later(Duration.ofHours(1));
        rig.look(share);

        Line line = rig.line(share, "rota.ods");
        assertThat(line.versions()).hasSize(3);
        assertThat(rig.holders(line, 1)).extracting(Holder::label).containsExactly("s1", "s2");
        assertThat(rig.holders(line, 2)).extracting(Holder::label).containsExactly("s3");
        assertThat(rig.holders(line, 3)).extracting(Holder::kind).containsExactly(Holder.Kind.LIVE);
        assertThat(rig.text(line.version(1).orElseThrow())).isEqualTo("one");
        assertThat(rig.text(line.version(3).orElseThrow())).isEqualTo("three");

        server.eraseCut("common", rig.cuts(share).get(2).key());
        assertThat(rig.look(share).forgotten()).isEqualTo(1);
        assertThat(rig.holders(rig.line(share, "rota.ods"), 2)).isEmpty();
    }

    @Test
    void anAwaySystemKeepsItsLinesAndIsSaidToBeAway() throws IOException {
        Place place = store();
        rig.put(place, "a", "one");
        rig.look(place);
        rig.outside.objects().faults().away(true);
        rig.later(Duration.ofHours(2));
        Instant gone = rig.now();
        assertThatThrownBy(() -> rig.look(place)).isInstanceOf(SystemException.Unreachable.class);
        rig.later(Duration.ofHours(2));
        assertThatThrownBy(() -> rig.look(place)).isInstanceOf(SystemException.Unreachable.class);
        Coverage.Row row = row(place);
        assertThat(row.state()).isEqualTo(CoverageState.AWAY);
        assertThat(row.facts().orElseThrow().awaySince()).contains(gone);
        assertThat(rig.listing(place, "", rig.now())).containsExactly("a");
        rig.outside.objects().faults().away(false);
        rig.look(place);
        assertThat(row(place).state()).isEqualTo(CoverageState.GOOD);
    }

    private Coverage.Row row(Place place) throws IOException {
        return Coverage.of(rig.vault(), rig.now(), java.time.ZoneOffset.UTC).stream()
                .filter(r -> r.place().orElseThrow().id() == place.id())
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aClockThatIsWrongThereIsSetRightHere() throws IOException {
        Place place = store();
        rig.outside.objects().setClock(Rig.START.plus(Duration.ofHours(30)));
        rig.put(place, "a", "one");
        rig.look(place);
        assertThat(rig.line(place, "a").newest().orElseThrow().saved())
                .isBetween(Rig.START.minusSeconds(5), Rig.START.plusSeconds(60));
    }

    @Test
    void theCatalogueWithOtherSystemsIsMadeAnewFromThePacks() throws IOException {
        Place place = store();
        rig.put(place, "a", "one");
        rig.put(place, "a", "two");
        Place share = rig.place(SystemKind.FILE_SERVER, "common");
        rig.put(share, "a", "three");
        rig.system(SystemKind.FILE_SERVER).snapshot("common", "s1", "k1");
        rig.look(place);
        rig.look(share);
        rig.relate(rig.desk.place(), "", share, "");
        Line before = rig.line(place, "a");
        List<Holder> held = rig.holders(before, 1);
        rig.vault().close();
        Rebuild.run(rig.vault().folder().root(), "test", Duration.ofSeconds(1), rig.clock());
        try (var again = org.mendedleaf.core.catalogue.OpenVault.open(
                        rig.vault().folder().root(), "test", Duration.ofSeconds(1));
                var reading = again.read()) {
            Line after = reading.line(place, "a").orElseThrow();
            assertThat(after.points()).isEqualTo(before.points());
            assertThat(reading.outside().holders(after).get(1)).isEqualTo(held);
            assertThat(reading.outside().cuts(share)).hasSize(2);
            assertThat(reading.outside().relations()).hasSize(1);
        }
    }

    @Test
    void aNewFileUnderTheNameOfARemovedOneHasALineOfItsOwnAndStays() throws IOException {
        Place place = rig.place(SystemKind.LIBRARY, "Minutes");
        OutsideSystem library = rig.system(SystemKind.LIBRARY);
        rig.put(place, "march.odt", "the old one");
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        long old = rig.line(place, "march.odt").id();
        library.remove("Minutes", "march.odt", UUID.randomUUID().toString());
        rig.later(Duration.ofMinutes(1));
        rig.put(place, "march.odt", "the new one");
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        Line line = rig.line(place, "march.odt");
        assertThat(line.removed()).isEmpty();
        assertThat(line.id()).isNotEqualTo(old);
        assertThat(rig.text(line.newest().orElseThrow())).isEqualTo("the new one");
        // A note changes what is said of the new one; the removed one must not end it again.
        library.note("Minutes", "march.odt", rig.holders(line, 1).get(0).point(), "as sent");
        rig.connecting()
                .configure(place, library.places().get(0).settings().with(Setting.REMOVED_DAYS, "9"), rig.vault());
        assertThat(rig.line(place, "march.odt").removed()).isEmpty();
        assertThat(rig.line(place, "march.odt").newest().orElseThrow().note()).isEqualTo("as sent");
        assertThat(rig.look(place).points()).isZero();
    }

    @Test
    void ofTwoRemovedFilesOfOneNameTheLastOneComesBack() throws IOException {
        Place place = rig.place(SystemKind.LIBRARY, "Minutes");
        OutsideSystem library = rig.system(SystemKind.LIBRARY);
        for (String text : List.of("first", "second")) {
            rig.put(place, "a.odt", text);
            rig.later(Duration.ofMinutes(1));
            library.remove("Minutes", "a.odt", UUID.randomUUID().toString());
            rig.later(Duration.ofMinutes(1));
        }
        library.bringBack("Minutes", "a.odt", UUID.randomUUID().toString());
        rig.look(place);
        assertThat(rig.text(rig.line(place, "a.odt").newest().orElseThrow())).isEqualTo("second");
    }

    @Test
    void manyLooksAtOncePutEachPointDownOnce() throws Exception {
        Place place = store();
        for (int i = 0; i < 20; i++) {
            rig.put(place, "f" + i, "text " + i);
        }
        List<Thread> threads = new java.util.ArrayList<>();
        for (int i = 0; i < 4; i++) {
            Thread thread = new Thread(() -> {
                try {
                    rig.look(place);
                } catch (IOException e) {
                    throw new java.io.UncheckedIOException(e);
                }
            });
            thread.start();
            threads.add(thread);
        }
        for (Thread thread : threads) {
            thread.join();
        }
        try (var reading = rig.vault().read()) {
            assertThat(reading.lines().ids(place)).hasSize(20);
        }
        for (int i = 0; i < 20; i++) {
            assertThat(rig.line(place, "f" + i).versions()).hasSize(1);
        }
    }

    @Test
    void aNameThatCannotStandOnALineIsAGapAndTheRestIsTaken() throws IOException {
        OutsideSystem odd = org.mockito.Mockito.mock(OutsideSystem.class);
        Place place = store();
        rig.put(place, "good", "text");
        OutsideSystem real = rig.system(SystemKind.OBJECT_STORE);
        org.mockito.Mockito.when(odd.kind()).thenReturn(SystemKind.OBJECT_STORE);
        org.mockito.Mockito.when(odd.state()).thenReturn(real.state());
        org.mockito.Mockito.when(odd.places()).thenReturn(real.places());
        org.mockito.Mockito.doAnswer(call -> {
                    java.util.function.Consumer<OutsideSystem.File> each = call.getArgument(2);
                    real.files("archive", java.util.Map.of(), f -> {
                        each.accept(f);
                        for (String path : List.of("a//b", "/top", "x/../y", "folder/")) {
                            each.accept(new OutsideSystem.File(path, path, "t", f.points()));
                        }
                    });
                    return null;
                })
                .when(odd)
                .files(org.mockito.Mockito.any(), org.mockito.Mockito.any(), org.mockito.Mockito.any());
        new Mirror(rig.vault(), place, odd, rig.clock()).run(org.mendedleaf.core.jobs.Progress.NONE);
        assertThat(rig.listing(place, "", rig.now().plusSeconds(60))).containsExactly("good");
        assertThat(row(place).state()).isEqualTo(CoverageState.GAPS);
        assertThat(row(place).gaps()).hasSize(4);
    }

    @Test
    void aRemovalInTheSystemIsAnEventWithWhoDidIt() throws IOException {
        Place place = rig.place(SystemKind.LIBRARY, "Minutes");
        rig.put(place, "march.odt", "text");
        rig.look(place);
        rig.later(Duration.ofMinutes(3));
        rig.system(SystemKind.LIBRARY)
                .remove("Minutes", "march.odt", UUID.randomUUID().toString());
        rig.look(place);
        Event removed = rig.line(place, "march.odt").points().stream()
                .filter(Event.class::isInstance)
                .map(Event.class::cast)
                .findFirst()
                .orElseThrow();
        assertThat(removed.who()).isEqualTo("ines");
    }
}
