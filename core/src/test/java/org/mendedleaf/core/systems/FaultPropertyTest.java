package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.standins.Fault;

/** Whatever goes wrong with requests: what was acknowledged is there, and nothing is there twice. */
class FaultPropertyTest {

    private static void with(Check check) throws IOException {
        Path temp = Files.createTempDirectory("faults");
        try (Rig rig = new Rig(temp)) {
            check.run(rig);
        } finally {
            try (Stream<Path> all = Files.walk(temp)) {
                all.sorted(Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
            }
        }
    }

    /** All faults but the slow one, which has a test of its own. */
    @Provide
    Arbitrary<List<Fault>> faults() {
        return Arbitraries.of(Fault.values())
                .filter(f -> f != Fault.STALL)
                .list()
                .ofMaxSize(25);
    }

    private interface Check {
        void run(Rig rig) throws IOException;
    }

    private static void putsUnderFaults(Rig rig, SystemKind kind, List<Fault> faults, long seed) throws IOException {
        Place place = rig.place(kind, "p");
        Random random = new Random(seed);
        Map<String, List<String>> acknowledged = new HashMap<>();
        rig.standIn(kind).faults().schedule(faults);
        for (int i = 0; i < 8; i++) {
            String path = "f" + random.nextInt(3);
            String text = "version " + i + " " + "x".repeat(random.nextInt(3000));
            try {
                rig.put(place, path, text);
                acknowledged.computeIfAbsent(path, p -> new ArrayList<>()).add(text);
            } catch (SystemException e) {
                // Not acknowledged: it may be there once, and never twice.
                acknowledged.computeIfAbsent(path, p -> new ArrayList<>()).add("?" + text);
            }
        }
        rig.standIn(kind).faults().clear();
        for (Map.Entry<String, List<String>> e : acknowledged.entrySet()) {
            List<String> there = contents(rig, place, e.getKey());
            List<String> told = e.getValue();
            if (kind.can(Capability.VERSIONS)) {
                assertThat(there).as("nothing twice in %s", e.getKey()).doesNotHaveDuplicates();
                assertThat(there)
                        .containsAll(
                                told.stream().filter(t -> !t.startsWith("?")).toList());
            } else {
                assertThat(there).hasSizeLessThanOrEqualTo(1);
                Optional<String> last =
                        told.stream().filter(t -> !t.startsWith("?")).reduce((a, b) -> b);
                last.ifPresent(l -> assertThat(there).hasSize(1));
            }
        }
    }

    private static List<String> contents(Rig rig, Place place, String path) throws IOException {
        OutsideSystem system = rig.registry.system(place);
        List<String> found = new ArrayList<>();
        if (!system.kind().can(Capability.VERSIONS)) {
            for (OutsideSystem.InTree f : system.tree("p", RemoteSnapshot.LIVE)) {
                if (f.path().equals(path)) {
                    found.add(rig.read(place, path, RemoteSnapshot.LIVE));
                }
            }
            return found;
        }
        List<OutsideSystem.Point> points = new ArrayList<>();
        system.files("p", Map.of(), f -> {
            if (f.path().equals(path)) {
                points.addAll(f.points().orElseThrow());
            }
        });
        for (OutsideSystem.Point p : points) {
            found.add(rig.read(place, path, p.id()));
        }
        return found;
    }

    @Property(tries = 4)
    void anObjectStoreKeepsWhatItAcknowledgedOnce(@ForAll("faults") List<Fault> faults, @ForAll long seed)
            throws IOException {
        with(rig -> putsUnderFaults(rig, SystemKind.OBJECT_STORE, faults, seed));
    }

    @Property(tries = 4)
    void aLibraryKeepsWhatItAcknowledgedOnce(@ForAll("faults") List<Fault> faults, @ForAll long seed)
            throws IOException {
        with(rig -> putsUnderFaults(rig, SystemKind.LIBRARY, faults, seed));
    }

    @Property(tries = 3)
    void aFileServerKeepsWhatItAcknowledged(@ForAll("faults") List<Fault> faults, @ForAll long seed)
            throws IOException {
        with(rig -> putsUnderFaults(rig, SystemKind.FILE_SERVER, faults, seed));
    }

    /** Also with the plug pulled at any moment: the run goes on, and in the end holds the folder as it was. */
    @Property(tries = 3)
    void aBackupRunComesToItsEndWhateverHappensOnTheWay(@ForAll("faults") List<Fault> faults, @ForAll boolean unplugged)
            throws IOException {
        with(rig -> {
            for (int i = 0; i < 12; i++) {
                rig.desk.save("folder/f" + i, "content " + i);
            }
            rig.desk.capture();
            Place set = rig.place(SystemKind.BACKUP_DRIVE, "desk");
            rig.relate(rig.desk.place(), "", set, "");
            rig.standIn(SystemKind.BACKUP_DRIVE).faults().schedule(faults);
            BackupRun run = new BackupRun(rig.vault(), set, rig.registry.system(set), rig.clock());
            try {
                run.run(new Progress() {
                    private int files;

                    @Override
                    public void advance(long n, long bytes) {
                        files += (int) n;
                        if (unplugged && files == 4) {
                            try {
                                rig.outside.drive().plug(false);
                            } catch (IOException e) {
                                throw new java.io.UncheckedIOException(e);
                            }
                        }
                    }
                });
            } catch (SystemException e) {
                assertThat(rig.cuts(set)).as("an open run does not count").isEmpty();
            }
            rig.outside.drive().plug(true);
            rig.standIn(SystemKind.BACKUP_DRIVE).faults().clear();
            run.run(Progress.NONE);
            List<RemoteSnapshot> cuts = rig.system(SystemKind.BACKUP_DRIVE).cuts("desk");
            RemoteSnapshot last = cuts.get(cuts.size() - 1);
            assertThat(rig.system(SystemKind.BACKUP_DRIVE).tree("desk", last.key()))
                    .hasSize(12);
            for (int i = 0; i < 12; i++) {
                assertThat(rig.read(set, "folder/f" + i, last.key())).isEqualTo("content " + i);
            }
        });
    }

    /** A look that fails in the middle and is done again puts each point on its line once. */
    @Property(tries = 4)
    void aLookThatIsRepeatedAddsNothingTwice(@ForAll("faults") List<Fault> faults) throws IOException {
        with(rig -> {
            Place place = rig.place(SystemKind.LIBRARY, "p");
            for (int i = 0; i < 6; i++) {
                rig.put(place, "f" + i % 3, "version " + i);
            }
            rig.standIn(SystemKind.LIBRARY).faults().schedule(faults);
            for (int i = 0; i < 3; i++) {
                try {
                    rig.look(place);
                } catch (SystemException e) {
                    assertThat(e.words()).isNotEmpty();
                }
            }
            rig.standIn(SystemKind.LIBRARY).faults().clear();
            rig.look(place);
            for (int i = 0; i < 3; i++) {
                assertThat(rig.line(place, "f" + i).versions()).hasSize(2);
            }
        });
    }
}
