package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;

/** Everything that happened in a place, in one go. */
class HistoryQueryTest {

    @TempDir
    Path temp;

    private static List<String> versions(TestPlace p) throws IOException {
        List<String> all = new ArrayList<>();
        try (Reading reading = p.vault().read()) {
            HistoryQuery.of(reading)
                    .versions(p.place(), r -> all.add(r.path() + " " + r.number() + (r.here() ? "" : " away")));
        }
        return all;
    }

    private static List<String> turns(TestPlace p) throws IOException {
        List<String> all = new ArrayList<>();
        try (Reading reading = p.vault().read()) {
            HistoryQuery.of(reading).turns(p.place(), t -> all.add(t.from() + " > " + t.to() + " at " + t.number()));
        }
        return all;
    }

    @Test
    void versionsHaveThePathsThatTheyHadThen() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("top.txt", "top");
            p.save("a/b/c/deep.txt", "one");
            p.capture();
            p.save("a/b/c/deep.txt", "two");
            p.capture();
            Files.createDirectories(p.path("x"));
            Files.move(p.path("a/b/c/deep.txt"), p.path("x/other.txt"));
            p.later(5);
            p.capture();
            p.save("x/other.txt", "three");
            p.capture();
            assertThat(versions(p))
                    .containsExactlyInAnyOrder("top.txt 1", "a/b/c/deep.txt 1", "a/b/c/deep.txt 2", "x/other.txt 3");
            assertThat(turns(p)).containsExactly("a/b/c/deep.txt > x/other.txt at 2");
        }
    }

    @Test
    void aRemovalLeadsNowhere() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a/gone.txt", "one");
            p.capture();
            Files.delete(p.path("a/gone.txt"));
            p.later(5);
            p.capture();
            assertThat(turns(p)).containsExactly("a/gone.txt >  at 1");
        }
    }

    @Test
    void theVersionsOfALineStandTogetherTheOldestFirst() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            for (int v = 1; v <= 3; v++) {
                p.save("a.txt", "a" + v);
                p.save("b.txt", "b" + v);
                p.capture();
            }
            List<String> all = versions(p);
            assertThat(all).hasSize(6);
            assertThat(all.subList(0, 3)).containsExactly("a.txt 1", "a.txt 2", "a.txt 3");
        }
    }

    @Test
    void aFileIsThereUntilItIsRemovedAndAgainWhenItCameBack() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
            long line = p.line("a.txt").id();
            assertThat(isThere(p, line)).isTrue();
            assertThat(isThere(p, line + 100)).isFalse();
            p.later(5);
            Files.delete(p.path("a.txt"));
            p.capture();
            assertThat(isThere(p, line)).isFalse();
            p.later(5);
            p.save("a.txt", "one");
            p.capture();
            assertThat(isThere(p, p.line("a.txt").id())).isTrue();
        }
    }

    private static boolean isThere(TestPlace p, long line) throws IOException {
        try (Reading reading = p.vault().read()) {
            return reading.isThere(line);
        }
    }
}
