package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;

/** What is chosen is what is restored, in however many folders it is and in whatever order it was chosen. */
class SelectionTest {

    private static final int FOLDERS = 24;

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private List<String> chosen(List<String> paths, Instant at, boolean elsewhere) throws IOException {
        try (Reading reading = p.vault().read()) {
            return new Selection(paths, at)
                            .request(reading, p.place(), elsewhere, Collisions.all(Collision.REPLACE), Progress.NONE)
                            .requested()
                            .stream()
                            .map(RestoreItem::target)
                            .toList();
        }
    }

    @Test
    void filesOfManyFoldersAreChosenOneByOneInAnyOrder() throws IOException {
        List<String> paths = new ArrayList<>();
        for (int i = 0; i < FOLDERS; i++) {
            for (String name : List.of("a.txt", "b.txt", "c.txt")) {
                String path = "folder " + i + "/" + name;
                p.save(path, "text " + path);
                paths.add(path);
            }
        }
        p.later(5);
        p.capture();
        Instant before = p.now();
        Files.delete(p.path("folder 3/b.txt"));
        p.save("folder 4/b.txt", "another text");
        p.later(5);
        p.capture();
        List<String> sorted = paths.stream().sorted().toList();
        Collections.shuffle(paths, new Random(2));
        assertThat(chosen(paths, before, false)).containsExactlyElementsOf(sorted);
        assertThat(chosen(paths, p.now(), false)).as("removed ones too").containsExactlyElementsOf(sorted);
        try (Reading reading = p.vault().read()) {
            for (RestoreItem item : new Selection(paths, before)
                    .request(reading, p.place(), false, Collisions.all(Collision.REPLACE), Progress.NONE)
                    .requested()) {
                assertThat(item.version().number()).as(item.target()).isOne();
            }
        }
    }

    @Test
    void elsewherePathsCountFromTheFolderThatAllHaveInCommon() throws IOException {
        p.save("a/b/one.txt", "1");
        p.save("a/c/two.txt", "2");
        p.capture();
        assertThat(chosen(List.of("a/b/one.txt", "a/c"), p.now(), true)).containsExactly("b/one.txt", "c/two.txt");
        assertThat(chosen(List.of("a/b/one.txt"), p.now(), true)).containsExactly("one.txt");
    }

    @Test
    void whatIsNotThereIsSaidByItsPath() throws IOException {
        p.save("a/one.txt", "1");
        p.capture();
        assertThatThrownBy(() -> chosen(List.of("a/one.txt", "a/none.txt"), p.now(), false))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("a/none.txt");
        assertThatThrownBy(() -> chosen(List.of("nowhere/one.txt"), p.now(), false))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("nowhere/one.txt");
    }

    @Test
    void theSumIsThatOfWhatWouldBeBroughtBack() throws IOException {
        p.save("a/one.txt", "1");
        p.save("a/b/two.txt", "22");
        p.save("a/b/c/three.txt", "333");
        p.save("gone/four.txt", "4444");
        p.save("gone/in/five.txt", "55555");
        p.save("six.txt", "666666");
        Files.createSymbolicLink(p.path("a/link"), Path.of("one.txt"));
        p.capture();
        Instant before = p.now();
        p.later(5);
        p.save("a/one.txt", "1, longer");
        Files.move(p.path("a/b/two.txt"), p.path("a/two.txt"));
        Files.delete(p.path("gone/in/five.txt"));
        Files.delete(p.path("gone/in"));
        Files.delete(p.path("gone/four.txt"));
        Files.delete(p.path("gone"));
        Files.delete(p.path("six.txt"));
        p.capture();
        for (List<String> paths : List.of(
                List.of(""),
                List.of("a"),
                List.of("a/b", "six.txt"),
                List.of("a/one.txt", "a/link"),
                List.of("gone", "a/b/c"))) {
            for (Instant at : List.of(before, p.now())) {
                try (Reading reading = p.vault().read()) {
                    Selection selection = new Selection(paths, at);
                    List<RestoreItem> all = selection
                            .request(reading, p.place(), false, Collisions.all(Collision.REPLACE), Progress.NONE)
                            .requested();
                    assertThat(selection.sum(reading, p.place()))
                            .as("%s at %s", paths, at)
                            .isEqualTo(new Selection.Sum(
                                    all.size(),
                                    all.stream()
                                            .mapToLong(i -> i.version().size())
                                            .sum()));
                }
            }
        }
    }

    @Test
    void theSumOfWhatIsNotThereIsRefusedByItsPath() throws IOException {
        p.save("a/one.txt", "1");
        p.capture();
        try (Reading reading = p.vault().read()) {
            assertThatThrownBy(() -> new Selection(List.of("a/none.txt"), p.now()).sum(reading, p.place()))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("a/none.txt");
        }
    }

    /** Counts what is done, and is cancelled when that is so many files. */
    private static final class CancelledAfter implements Progress {
        private final long most;
        private long all;
        private long done;

        CancelledAfter(long most) {
            this.most = most;
        }

        @Override
        public void begin(String step, long files, long bytes) {
            all = files;
            done = 0;
        }

        @Override
        public void advance(long files, long bytes) {
            done += files;
        }

        @Override
        public boolean isCancelled() {
            return done >= most;
        }
    }

    @Test
    void itTellsHowFarItIsAndStopsWhenSomebodyAsks() throws IOException {
        for (int i = 0; i < 30; i++) {
            p.save("in/" + (i % 3) + "/" + i + ".txt", "text " + i);
        }
        p.save("gone/a.txt", "a");
        p.save("gone/b/c.txt", "c");
        p.save("alone.txt", "alone");
        p.capture();
        p.later(5);
        Files.delete(p.path("gone/b/c.txt"));
        Files.delete(p.path("gone/b"));
        Files.delete(p.path("gone/a.txt"));
        Files.delete(p.path("gone"));
        p.capture();
        Collisions replace = Collisions.all(Collision.REPLACE);
        Selection selection = new Selection(List.of("in", "gone", "alone.txt"), p.now());
        try (Reading reading = p.vault().read()) {
            CancelledAfter whole = new CancelledAfter(1_000);
            assertThat(selection
                            .request(reading, p.place(), false, replace, whole)
                            .requested())
                    .hasSize(33);
            assertThat(whole.all).isEqualTo(33);
            assertThat(whole.done).isEqualTo(33);
            List<String> everywhere = new ArrayList<>();
            for (int i = 0; i < 30; i++) {
                everywhere.add("in/" + (i % 3) + "/" + i + ".txt");
            }
            new Selection(everywhere, p.now()).request(reading, p.place(), false, replace, whole);
            assertThat(whole.all).as("many files of few folders").isEqualTo(30);
            for (int after : List.of(0, 1, 12, 30, 31, 33)) {
                CancelledAfter cancelled = new CancelledAfter(after);
                assertThatThrownBy(() -> selection.request(reading, p.place(), false, replace, cancelled))
                        .isInstanceOf(InterruptedIOException.class);
                assertThat(cancelled.done)
                        .as("no more than it has to after %s", after)
                        .isLessThanOrEqualTo(after + 1);
            }
            assertThat(selection
                            .request(reading, p.place(), false, replace, Progress.NONE)
                            .requested())
                    .as("the next one has all of it")
                    .hasSize(33);
        }
    }

    @Test
    void ofPathsInManyFoldersItIsNotSaidHowManyFilesTheyAre() throws IOException {
        List<String> paths = new ArrayList<>();
        for (int i = 0; i < FOLDERS; i++) {
            p.save("folder " + i + "/in/a.txt", "text " + i);
            p.save("folder " + i + "/in/b.txt", "another text " + i);
            paths.add("folder " + i + "/in");
        }
        p.capture();
        try (Reading reading = p.vault().read()) {
            CancelledAfter whole = new CancelledAfter(1_000);
            new Selection(paths, p.now()).request(reading, p.place(), false, Collisions.all(Collision.REPLACE), whole);
            assertThat(whole.all).as("not the number of folders").isZero();
            assertThat(whole.done).isEqualTo(2 * FOLDERS);
        }
    }

    @Test
    void versionsThatAreInMemoryAlreadyAreNotThereTwice() throws IOException {
        for (int i = 0; i < 20; i++) {
            p.save("in/" + i + ".txt", "text " + i);
        }
        p.capture();
        Collisions replace = Collisions.all(Collision.REPLACE);
        Selection now = new Selection(List.of("in"), Moment.FAR);
        RestorePlan shown;
        try (Reading reading = p.vault().read()) {
            shown = p.recovery().plan(now.request(reading, p.place(), false, replace, Progress.NONE), Progress.NONE);
        }
        p.later(5);
        p.save("in/7.txt", "a later text");
        Files.delete(p.path("in/8.txt"));
        p.capture();
        try (Reading reading = p.vault().read()) {
            List<RestoreItem> fresh = now.request(reading, p.place(), false, replace, Progress.NONE)
                    .requested();
            List<RestoreItem> again = now.request(
                            reading, p.place(), false, replace, Progress.NONE, new SameVersions(shown))
                    .requested();
            assertThat(again).as("what is there now, whatever is known").isEqualTo(fresh);
            Set<Version> known = Collections.newSetFromMap(new IdentityHashMap<>());
            shown.items().forEach(i -> known.add(i.version()));
            assertThat(again)
                    .allSatisfy(i -> assertThat(known.contains(i.version()))
                            .as(i.target())
                            .isEqualTo(!i.target().equals("in/7.txt")));
        }
    }
}
