package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;

/** Long histories in one folder: old listings come out of packed values, and are what they would be without them. */
class PackedListingTest {

    @TempDir
    Path temp;

    private static long packed(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            return reading.sql().number("SELECT count(*) FROM packed");
        }
    }

    private static Map<String, Integer> numbers(TestPlace p, Instant at) throws IOException {
        Map<String, Integer> found = new TreeMap<>();
        p.tree(at).forEach((path, e) -> found.put(path, e.number()));
        return found;
    }

    @Property(tries = 2)
    void aLongHistoryIsListedAtEachMomentAsItWas(@ForAll long seed) throws IOException {
        Path folder = Files.createTempDirectory("packed");
        Random random = new Random(seed);
        Map<Instant, Map<String, Integer>> looks = new LinkedHashMap<>();
        try (TestPlace p = new TestPlace(folder)) {
            for (int look = 0; look < 60; look++) {
                for (int i = 0; i < 6; i++) {
                    String name = "f" + random.nextInt(12);
                    if (random.nextInt(6) == 0) {
                        Files.deleteIfExists(p.path(name));
                    } else {
                        p.save(name, "content " + random.nextInt());
                    }
                }
                p.capture();
                looks.put(p.now(), numbers(p, p.now()));
            }
            assertThat(packed(p)).as("values").isGreaterThan(1);
            for (Map.Entry<Instant, Map<String, Integer>> look : looks.entrySet()) {
                assertThat(numbers(p, look.getKey())).as("at %s", look.getKey()).isEqualTo(look.getValue());
                try (Reading reading = p.vault().read()) {
                    Map<String, Integer> listed = new TreeMap<>();
                    for (Entry e : reading.folders().listing(p.place(), "", look.getKey(), false)) {
                        listed.put(e.name(), e.number());
                        assertThat(e.versions())
                                .isEqualTo(p.line(e.name()).versions().size());
                    }
                    assertThat(listed).isEqualTo(look.getValue());
                }
            }
        } finally {
            try (var all = Files.walk(folder)) {
                for (Path path : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                    Files.delete(path);
                }
            }
        }
    }

    @Test
    void aChangeThatReachesBackBehindAValueTakesItAway() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            for (int i = 0; i < 150; i++) {
                p.save("busy", "content " + i);
                p.capture();
            }
            long before = packed(p);
            assertThat(before).isGreaterThan(0);
            Instant old = TestPlace.START.plusSeconds(600);
            Map<String, Integer> then = numbers(p, old);
            try (WriteSession session = p.vault().write()) {
                LineWriter lines = new LineWriter(session);
                long folder = lines.folder(p.place(), "");
                // As when another system tells of something that was there all the time.
                lines.newLine(
                        p.place(),
                        folder,
                        "older",
                        new org.mendedleaf.core.vault.StoredContent(
                                org.mendedleaf.core.vault.Recipe.EMPTY,
                                0,
                                org.mendedleaf.core.vault.Digest.of(new byte[32]),
                                null),
                        new LineWriter.Arrival(
                                new FileAttributes(EntryKind.FILE, 0, 0, 0644, ""), Origin.SAVED, 0, old, old, ""));
                session.commit();
            }
            assertThat(packed(p)).isLessThan(before);
            then.put("older", 1);
            assertThat(numbers(p, old)).isEqualTo(then);
        }
    }

    @Test
    void spansThatComeEndedArePackedAsThoseThatEndLater() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("busy", "content");
            p.capture();
            assertThat(packed(p)).isZero();
            long from = org.mendedleaf.core.time.Moment.micros(TestPlace.START) - 1_000_000_000;
            try (WriteSession session = p.vault().write()) {
                long folder = new LineWriter(session).folder(p.place(), "");
                long node = session.sql().number("SELECT min(id) FROM node");
                for (int i = 0; i < 200; i++) {
                    session.apply(Op.SPAN, folder, from + i * 1000L + 1000, node, from + i * 1000L, 1, 1, 7, 0, 0);
                }
                session.commit();
            }
            assertThat(packed(p)).isPositive();
            for (int i = 0; i < 200; i += 13) {
                Instant at = org.mendedleaf.core.time.Moment.instant(from + i * 1000L + 500);
                assertThat(numbers(p, at)).containsOnlyKeys("busy");
            }
            assertThat(p.check().isClean()).isTrue();
        }
    }
}
