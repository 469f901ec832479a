package org.mendedleaf.core.findings;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

/** What happened within minutes of each other, and what is usual. */
class ClustersTest {

    private static final Instant START = Instant.parse("2026-05-04T08:00:00Z");

    private static List<List<Instant>> clusters(List<Integer> minutes) {
        return Clusters.of(
                minutes.stream().map(m -> START.plus(Duration.ofMinutes(m))).toList(), i -> i);
    }

    @Test
    void tenMinutesWithoutAnythingEndARun() {
        assertThat(clusters(List.of(0, 5, 14, 25, 26))).extracting(List::size).containsExactly(3, 2);
        assertThat(clusters(List.of(26, 0, 25, 14, 5))).as("in any order").hasSize(2);
        assertThat(clusters(List.of())).isEmpty();
    }

    @Property(tries = 40)
    void runsHoldAllAndAreApart(@ForAll @Size(max = 30) List<@IntRange(max = 600) Integer> minutes) {
        List<List<Instant>> runs = clusters(minutes);
        List<Instant> all = new ArrayList<>();
        runs.forEach(all::addAll);
        assertThat(all)
                .containsExactlyElementsOf(minutes.stream()
                        .sorted()
                        .map(m -> START.plus(Duration.ofMinutes(m)))
                        .toList());
        for (int i = 1; i < runs.size(); i++) {
            List<Instant> before = runs.get(i - 1);
            assertThat(Duration.between(
                            before.get(before.size() - 1), runs.get(i).get(0)))
                    .isGreaterThan(Clusters.GAP);
        }
        for (List<Instant> run : runs) {
            for (int i = 1; i < run.size(); i++) {
                assertThat(Duration.between(run.get(i - 1), run.get(i))).isLessThanOrEqualTo(Clusters.GAP);
            }
        }
    }

    @Test
    void whatIsUsualLeavesTheRunItselfOut() {
        assertThat(Clusters.usual(new int[] {500}, 500)).as("there is no other").isZero();
        assertThat(Clusters.usual(new int[] {1, 1, 1, 1, 500}, 500)).isEqualTo(1);
        assertThat(Clusters.usual(new int[] {1, 1, 1, 1, 500}, 1)).isEqualTo(500);
        assertThat(Clusters.usual(new int[] {1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 9, 500}, 500))
                .as("nine in ten")
                .isEqualTo(1);
    }

    /** As it is defined: the others in order, and the place that nine in ten do not exceed. */
    @Property(tries = 60)
    void usualIsTheNinthTenthOfTheOthers(
            @ForAll @Size(min = 2, max = 25) List<@IntRange(min = 1, max = 40) Integer> sizes) {
        int own = sizes.get(0);
        List<Integer> others = sizes.subList(1, sizes.size()).stream().sorted().toList();
        int expected = others.get((int) Math.max(0, Math.ceil(others.size() * 0.9) - 1));
        int[] all = sizes.stream().mapToInt(Integer::intValue).sorted().toArray();
        assertThat(Clusters.usual(all, own)).isEqualTo(expected);
    }
}
