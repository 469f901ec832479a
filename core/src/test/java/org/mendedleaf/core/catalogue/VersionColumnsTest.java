package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Recipe;

/** All versions in columns say what the catalogue says of each, however little of it they keep. */
class VersionColumnsTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void aPlaceWithAPast() throws IOException {
        p = new TestPlace(temp);
        Random random = new Random(3);
        byte[] large = new byte[700_000];
        random.nextBytes(large);
        for (int i = 0; i < 30; i++) {
            String path = "folder " + i % 3 + "/file" + random.nextInt(6) + ".txt";
            if (random.nextInt(8) == 0) {
                Files.deleteIfExists(p.path(path));
            } else if (random.nextInt(4) == 0) {
                // Some of it twice, so that chunks stand in one content several times.
                System.arraycopy(large, 0, large, 350_000, 350_000);
                large[random.nextInt(1000)]++;
                p.save(path, large.clone());
            } else {
                p.save(path, "text " + random.nextInt(12));
            }
            p.later(7);
            p.capture();
        }
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private static List<Integer> chunks(Recipe recipe) {
        List<Integer> all = new ArrayList<>();
        if (!recipe.isElsewhere()) {
            for (Recipe.Run run : recipe.runs()) {
                for (int i = 0; i < run.count(); i++) {
                    all.add((int) run.first() + i);
                }
            }
        }
        return all;
    }

    /** Compares each row with what is known of its version otherwise. */
    private void compare(Reading reading, VersionTable t) throws IOException {
        int rows = 0;
        List<Long> ids = reading.lines().ids(p.place());
        assertThat(t.lines()).isEqualTo(ids.size());
        for (int l = 0; l < t.lines(); l++) {
            Line line = reading.line(t.lineId(l)).orElseThrow();
            assertThat(t.lineId(l)).isEqualTo(ids.get(l));
            assertThat(t.path(l)).isEqualTo(line.path());
            List<Version> versions = new ArrayList<>(line.versions());
            java.util.Collections.reverse(versions);
            assertThat(t.first(l + 1) - t.first(l)).isEqualTo(versions.size());
            for (int i = 0; i < versions.size(); i++) {
                Version v = versions.get(i);
                int row = t.first(l) + i;
                rows++;
                assertThat(t.lineOf(row)).isEqualTo(l);
                assertThat(t.number(row)).isEqualTo(v.number());
                assertThat(t.row(t.lineId(l), v.number())).isEqualTo(row);
                assertThat(t.saved(row)).isEqualTo(Moment.micros(v.saved()));
                assertThat(t.bytes(row)).isEqualTo(v.size());
                long replaced = i + 1 < versions.size()
                        ? Moment.micros(versions.get(i + 1).saved())
                        : line.removed().map(Moment::micros).orElse(Moment.OPEN);
                assertThat(t.replaced(row)).isEqualTo(replaced);
                List<Integer> chunks = new ArrayList<>();
                t.chunks(row, chunks::add);
                assertThat(chunks).isEqualTo(chunks(v.recipe()));
                List<Integer> once = new ArrayList<>();
                t.distinctChunks(row, once::add);
                assertThat(once).doesNotHaveDuplicates().containsExactlyInAnyOrderElementsOf(new TreeSet<>(chunks));
            }
            assertThat(t.row(t.lineId(l), 0)).isEqualTo(-1);
            assertThat(t.row(t.lineId(l), 1000)).isEqualTo(-1);
        }
        assertThat(t.size()).isEqualTo(rows);
        assertThat(t.row(1_000_000, 1)).isEqualTo(-1);
    }

    @Test
    void eachRowSaysWhatItsVersionSays() throws IOException {
        try (Reading reading = p.vault().read()) {
            compare(reading, VersionTable.of(reading));
        }
    }

    @Test
    void rowsThatAreAskedForInAnyOrderAreOnTheirLines() throws IOException {
        try (Reading reading = p.vault().read()) {
            VersionTable t = VersionTable.of(reading);
            Random random = new Random(5);
            for (int i = 0; i < 500; i++) {
                int row = random.nextInt(t.size());
                int line = t.lineOf(row);
                assertThat(row).isBetween(t.first(line), t.first(line + 1) - 1);
            }
        }
    }

    @Test
    void numbersWithGapsAreKeptAsTheyAre() throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.applyUnlogged("DELETE FROM version WHERE number = 1 AND line % 2 = 1");
            session.applyUnlogged("DELETE FROM version WHERE number = 2 AND line % 3 = 1");
            session.commit();
        }
        try (Reading reading = p.vault().read()) {
            compare(reading, VersionTable.of(reading));
        }
    }

    @Test
    void moreVersionsThanTheirLinesSayAreAllThere() throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.applyUnlogged("UPDATE line SET versions = 0");
            session.commit();
        }
        try (Reading reading = p.vault().read()) {
            compare(reading, VersionTable.of(reading));
        }
    }

    @Test
    void columnsOfOneLineAreThoseOfThatLine() throws IOException {
        try (Reading reading = p.vault().read()) {
            VersionTable all = VersionTable.of(reading);
            for (int l = 0; l < all.lines(); l++) {
                VersionTable one = VersionTable.ofLine(reading, all.lineId(l));
                assertThat(one.lines()).isEqualTo(1);
                assertThat(one.hasChunks()).isFalse();
                for (int row = 0; row < one.size(); row++) {
                    int there = all.first(l) + row;
                    assertThat(one.number(row)).isEqualTo(all.number(there));
                    assertThat(one.replaced(row)).isEqualTo(all.replaced(there));
                    assertThat(one.is(row, VersionColumns.FOUND)).isEqualTo(all.is(there, VersionColumns.FOUND));
                }
            }
        }
    }

    @Test
    void columnsAreAsOfTheLastCommitUntilTheNext() throws IOException {
        VersionTable t;
        try (Reading reading = p.vault().read()) {
            t = VersionTable.of(reading);
        }
        try (WriteSession session = p.vault().write()) {
            assertThat(t.isAsOf(session)).isTrue();
        }
        p.save("one more.txt", "text");
        p.capture();
        try (WriteSession session = p.vault().write()) {
            assertThat(t.isAsOf(session)).isFalse();
        }
    }

    @Test
    void sizesOfTwoGigabytesAndMoreAreKeptToo() {
        SizeColumn sizes = new SizeColumn(2);
        long[] all = {0, 1, Integer.MAX_VALUE, Integer.MAX_VALUE + 1L, 1L << 45, 77};
        for (int i = 0; i < all.length; i++) {
            sizes.set(i * 700, all[i]);
        }
        for (int i = 0; i < all.length; i++) {
            assertThat(sizes.get(i * 700)).isEqualTo(all[i]);
        }
    }

    @Test
    void namesComeBackWhateverTheyAreMadeOf() {
        List<String> names = List.of("a.txt", "", "Bäume 🌳.odt", "x".repeat(300), "last");
        TextColumn column = new TextColumn(names.size());
        names.forEach(column::add);
        for (int i = 0; i < names.size(); i++) {
            assertThat(column.get(i)).isEqualTo(names.get(i));
        }
    }

    @Test
    void neededChunksAreThoseOfAllRecipesAsLongAsNothingIsCommitted() throws IOException {
        NeededChunks needed;
        TreeSet<Integer> all = new TreeSet<>();
        try (WriteSession session = p.vault().write()) {
            needed = NeededChunks.of(session);
            assertThat(needed.asOf(session)).isSameAs(needed);
        }
        try (Reading reading = p.vault().read()) {
            VersionTable t = VersionTable.of(reading);
            for (int row = 0; row < t.size(); row++) {
                t.chunks(row, all::add);
            }
            for (int chunk = 0; chunk <= t.chunks() + 1; chunk++) {
                assertThat(needed.has(chunk)).isEqualTo(all.contains(chunk));
            }
        }
        p.save("one more.txt", "a text that nobody saved before");
        p.capture();
        try (WriteSession session = p.vault().write()) {
            NeededChunks now = needed.asOf(session);
            assertThat(now).isNotSameAs(needed);
            assertThat(now.has(all.last() + 1L)).isTrue();
        }
    }
}
