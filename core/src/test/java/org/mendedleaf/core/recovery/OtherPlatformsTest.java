package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import java.io.IOException;
import java.nio.file.FileSystem;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;

/** A folder on another system, in memory: it is captured, restored, rolled back and undone by the same code. */
class OtherPlatformsTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private FileSystem system;
    private Path root;
    private Place place;

    /** The systems as jimfs makes them; their dates are old, so that nothing counts as being written. */
    enum On {
        WINDOWS("C:\\Users\\Ines\\Documents", Configuration.windows()),
        MAC("/Users/Ines/Documents", Configuration.osX());

        private final String root;
        private final Configuration configuration;

        On(String root, Configuration configuration) {
            this.root = root;
            this.configuration = configuration;
        }
    }

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
        if (system != null) {
            system.close();
        }
    }

    private void on(On on) throws IOException {
        system = Jimfs.newFileSystem(
                on.configuration.toBuilder().setAttributeViews("basic").build());
        root = Files.createDirectories(system.getPath(on.root));
        place = new Place(p.place().id(), root, "Documents", Rhythm.BY_HAND, List.of(), TestPlace.START);
    }

    private void save(String path, String text) throws IOException {
        p.later(1);
        Path file = root;
        for (String name : path.split("/")) {
            file = file.resolve(name);
        }
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(p.now()));
    }

    private void capture() throws IOException {
        p.later(1);
        new Capture(p.vault(), place, p.clock(), p.authors()).run(CaptureScope.WHOLE, Progress.NONE);
    }

    private Recovery recovery() {
        return new Recovery(new WorkContext(p.vault(), place, p.clock(), p.authors(), "Ines"));
    }

    private Line line(String path) throws IOException {
        try (Reading reading = p.vault().read()) {
            return reading.line(place, path).orElseThrow();
        }
    }

    private String text(String path) throws IOException {
        Path file = root;
        for (String name : path.split("/")) {
            file = file.resolve(name);
        }
        return Files.readString(file);
    }

    /** Everything in the folder, as paths with slashes. */
    private TreeSet<String> there() throws IOException {
        try (Stream<Path> all = Files.walk(root)) {
            return all.filter(Files::isRegularFile)
                    .map(f -> root.relativize(f).toString().replace('\\', '/'))
                    .collect(Collectors.toCollection(TreeSet::new));
        }
    }

    private RestoreResult restore(Version version, String target) throws IOException {
        return recovery().restore(List.of(new RestoreItem(version, target)), Collision.REPLACE, Progress.NONE);
    }

    private void undoLast() throws IOException {
        try (Reading reading = p.vault().read()) {
            assertThat(recovery()
                            .undo(JournalStore.of(reading).lastUndoable().orElseThrow())
                            .failed())
                    .isEmpty();
        }
    }

    @ParameterizedTest
    @EnumSource(On.class)
    void aFileIsCapturedRestoredAndThatIsUndone(On on) throws IOException {
        on(on);
        save("Seasons/2026/ledger.txt", "736 kilos");
        save("notes.txt", "notes");
        capture();
        save("Seasons/2026/ledger.txt", "a letter");
        capture();
        Line line = line("Seasons/2026/ledger.txt");
        assertThat(line.versions()).hasSize(2);
        p.later(5);
        assertThat(restore(line.version(1).orElseThrow(), line.path()).count(RestoreResult.Outcome.DONE))
                .isEqualTo(1);
        assertThat(text("Seasons/2026/ledger.txt")).isEqualTo("736 kilos");
        undoLast();
        assertThat(text("Seasons/2026/ledger.txt")).isEqualTo("a letter");
        assertThat(line("Seasons/2026/ledger.txt").versions())
                .as("nothing was lost")
                .hasSizeGreaterThanOrEqualTo(3);
        assertThat(p.check().damages()).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(On.class)
    void aFolderThatWasRemovedComesBackWithItsTimes(On on) throws IOException {
        on(on);
        save("Lease/lease.txt", "until Michaelmas");
        save("Lease/map ö.txt", "the meadow");
        Instant saved = p.now();
        capture();
        Version lease = line("Lease/lease.txt").newest().orElseThrow();
        Version map = line("Lease/map ö.txt").newest().orElseThrow();
        Files.delete(root.resolve("Lease").resolve("lease.txt"));
        Files.delete(root.resolve("Lease").resolve("map ö.txt"));
        Files.delete(root.resolve("Lease"));
        capture();
        assertThat(line("Lease/lease.txt").removed()).isPresent();
        p.later(5);
        recovery()
                .restore(
                        List.of(new RestoreItem(lease, "Lease/lease.txt"), new RestoreItem(map, "Lease/map ö.txt")),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(there()).containsExactly("Lease/lease.txt", "Lease/map ö.txt");
        assertThat(Files.getLastModifiedTime(root.resolve("Lease").resolve("map ö.txt")))
                .isEqualTo(FileTime.from(saved));
    }

    @ParameterizedTest
    @EnumSource(On.class)
    void renamingAFileByItsLettersAloneIsARenameAndGoesBack(On on) throws IOException {
        on(on);
        save("readme.txt", "read me, whatever I am called");
        capture();
        Files.move(root.resolve("readme.txt"), root.resolve("aside"));
        Files.move(root.resolve("aside"), root.resolve("README.txt"));
        capture();
        Line line = line("README.txt");
        assertThat(line.removed()).isEmpty();
        assertThat(there()).containsExactly("README.txt");
        p.later(5);
        restore(line.version(1).orElseThrow(), "readme.txt");
        assertThat(there()).as("one file, never two and never none").hasSize(1);
        assertThat(text("readme.txt")).isEqualTo("read me, whatever I am called");
    }

    @Test
    void namesThatWindowsDoesNotTakeAreSaidBeforeAnythingIsDone() throws IOException {
        p.save("10:30 minutes.txt", "a");
        p.save("aux.txt", "b");
        p.save("ends with a dot.", "c");
        p.save("good.txt", "d");
        p.save("Good.txt", "e");
        p.save("deep/" + "a long name ".repeat(15) + "/" + "and another ".repeat(8) + ".txt", "f");
        p.capture();
        on(On.WINDOWS);
        List<RestoreItem> all = Stream.of("10:30 minutes.txt", "aux.txt", "ends with a dot.", "good.txt", "Good.txt")
                .map(path -> {
                    try {
                        return new RestoreItem(p.line(path).newest().orElseThrow(), path);
                    } catch (IOException e) {
                        throw new java.io.UncheckedIOException(e);
                    }
                })
                .toList();
        FolderRestore restore = new FolderRestore(p.vault(), root.resolve("restored"));
        RestorePlan plan = restore.plan(RestoreRequest.restore(all, Collisions.all(Collision.KEEP_BOTH)));
        assertThat(plan.items())
                .extracting(i -> i.step() + " " + i.version().path())
                .containsExactly(
                        "REFUSE 10:30 minutes.txt",
                        "REFUSE aux.txt",
                        "REFUSE ends with a dot.",
                        "CREATE good.txt",
                        "REFUSE Good.txt");
        assertThat(plan.items().get(4).reason()).isEqualTo("the target cannot tell it from good.txt");
        RestoreResult result =
                restore.restore(RestoreRequest.restore(all, Collisions.all(Collision.KEEP_BOTH)), Progress.NONE);
        assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(1);
        assertThat(there()).containsExactly("restored/good.txt");
        String deep = "deep/" + "a long name ".repeat(15) + "/" + "and another ".repeat(8) + ".txt";
        RestorePlan far = restore.plan(RestoreRequest.restore(
                List.of(new RestoreItem(p.line(deep).newest().orElseThrow(), "deep/" + "long/".repeat(60) + "a.txt")),
                Collisions.all(Collision.KEEP_BOTH)));
        assertThat(far.preflight().isGood()).isTrue();
        assertThat(far.preflight().problems())
                .singleElement()
                .satisfies(x -> assertThat(x.words()).contains("more than 259 characters"));
    }

    @Test
    void onAMacANameIsTheSameHoweverItsAccentsAreWritten() throws IOException {
        on(On.MAC);
        save("Caf\u00e9.txt", "one");
        capture();
        save("Cafe\u0301.txt", "two");
        capture();
        assertThat(there()).hasSize(1);
        try (Reading reading = p.vault().read()) {
            assertThat(reading.lines().ids(place)).as("one file, one line").hasSize(1);
        }
        String path = there().first();
        assertThat(line(path).versions()).hasSize(2);
        p.later(5);
        restore(line(path).version(1).orElseThrow(), path);
        assertThat(text(path)).isEqualTo("one");
    }
}
