package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.Tries;

/** Two sequences are aligned as well as they can be where that is cheap, and rightly everywhere. */
class AlignmentTest {

    /** How many elements the longest common subsequence has, found the plain way. */
    private static int longest(List<Integer> a, List<Integer> b) {
        int[][] most = new int[a.size() + 1][b.size() + 1];
        for (int i = 1; i <= a.size(); i++) {
            for (int j = 1; j <= b.size(); j++) {
                most[i][j] = a.get(i - 1).equals(b.get(j - 1))
                        ? most[i - 1][j - 1] + 1
                        : Math.max(most[i - 1][j], most[i][j - 1]);
            }
        }
        return most[a.size()][b.size()];
    }

    private static long pairs(int[] to) {
        return Arrays.stream(to).filter(j -> j >= 0).count();
    }

    private static void isInOrderAndEqual(int[] to, List<Integer> a, List<Integer> b) {
        int last = -1;
        for (int i = 0; i < to.length; i++) {
            if (to[i] >= 0) {
                assertThat(to[i]).isGreaterThan(last);
                assertThat(b.get(to[i])).isEqualTo(a.get(i));
                last = to[i];
            }
        }
    }

    @Property(tries = 80)
    void shortSequencesHaveAsManyPairsAsTheyCan(
            @ForAll @Size(max = 30) List<@IntRange(max = 4) Integer> a,
            @ForAll @Size(max = 30) List<@IntRange(max = 4) Integer> b) {
        int[] to = Alignment.of(a, b);
        isInOrderAndEqual(to, a, b);
        assertThat(pairs(to)).isEqualTo(longest(a, b));
    }

    @Property(tries = 40)
    void aSequenceIsAlignedWithItselfElementByElement(@ForAll @Size(max = 40) List<@IntRange(max = 3) Integer> a) {
        int[] to = Alignment.of(a, a);
        for (int i = 0; i < to.length; i++) {
            assertThat(to[i]).isEqualTo(i);
        }
    }

    @Test
    void whereNothingIsEqualNothingIsPairedAndNothingOfNothingIsFine() {
        assertThat(Alignment.of(List.of(1, 2, 3), List.of(4, 5))).containsExactly(-1, -1, -1);
        assertThat(Alignment.of(List.<Integer>of(), List.of(4, 5))).isEmpty();
        assertThat(Alignment.of(List.of(7), List.<Integer>of())).containsExactly(-1);
    }

    /** Longer than what is aligned exactly: by what is there once, and again in the gaps between. */
    @Test
    void longSequencesThatWereEditedManyTimesKeepNearlyAllTheirPairs() {
        Tries.seeds(3).forEach(seed -> {
            Random random = new Random(seed);
            List<Integer> a = new ArrayList<>();
            for (int i = 0; i < 4000; i++) {
                // One in five is a line that stands everywhere, as an empty one does.
                a.add(random.nextInt(5) == 0 ? -1 : i);
            }
            List<Integer> b = new ArrayList<>(a);
            int edits = 200;
            for (int i = 0; i < edits; i++) {
                int at = random.nextInt(b.size());
                switch (random.nextInt(3)) {
                    case 0 -> b.add(at, 100_000 + i);
                    case 1 -> b.remove(at);
                    default -> b.set(at, 200_000 + i);
                }
            }
            int[] to = Alignment.of(a, b);
            isInOrderAndEqual(to, a, b);
            assertThat(pairs(to)).as("seed %s", seed).isGreaterThanOrEqualTo(a.size() - 2L * edits);
        });
    }

    @Test
    void aBlockThatMovedLeavesTheRestAligned() {
        List<Integer> a = new ArrayList<>();
        for (int i = 0; i < 3000; i++) {
            a.add(i);
        }
        List<Integer> b = new ArrayList<>(a.subList(1000, 3000));
        b.addAll(a.subList(0, 1000));
        int[] to = Alignment.of(a, b);
        isInOrderAndEqual(to, a, b);
        assertThat(pairs(to)).isEqualTo(2000);
    }

    /** The gaps and the pairs together are all of both, once and in order. */
    @Property(tries = 60)
    void walkingAlongGivesEveryElementOfBothOnce(
            @ForAll @Size(max = 25) List<@IntRange(max = 5) Integer> a,
            @ForAll @Size(max = 25) List<@IntRange(max = 5) Integer> b) {
        List<Integer> seenA = new ArrayList<>();
        List<Integer> seenB = new ArrayList<>();
        Alignment.walk(
                Alignment.of(a, b),
                b.size(),
                (fromA, endA, fromB, endB) -> {
                    assertThat(endA - fromA + endB - fromB)
                            .as("no gap is empty")
                            .isPositive();
                    seenA.addAll(a.subList(fromA, endA));
                    seenB.addAll(b.subList(fromB, endB));
                },
                (i, j) -> {
                    seenA.add(a.get(i));
                    seenB.add(b.get(j));
                });
        assertThat(seenA).isEqualTo(a);
        assertThat(seenB).isEqualTo(b);
    }

    private static int heaviest(int[][] weights, int i, int j) {
        if (i == weights.length || j == (weights.length == 0 ? 0 : weights[0].length)) {
            return 0;
        }
        int without = Math.max(heaviest(weights, i + 1, j), heaviest(weights, i, j + 1));
        return weights[i][j] == 0 ? without : Math.max(without, weights[i][j] + heaviest(weights, i + 1, j + 1));
    }

    @Property(tries = 60)
    void theBestPairsWeighTheMost(
            @ForAll @IntRange(max = 6) int n, @ForAll @IntRange(max = 6) int m, @ForAll long seed) {
        Random random = new Random(seed);
        int[][] weights = new int[n][m];
        for (int[] row : weights) {
            Arrays.setAll(row, j -> random.nextInt(3) == 0 ? 0 : random.nextInt(100));
        }
        List<int[]> taken = new ArrayList<>();
        Alignment.best(n, m, (i, j) -> weights[i][j], (i, j) -> taken.add(new int[] {i, j}));
        int sum = 0;
        int[] last = {-1, -1};
        for (int[] pair : taken) {
            assertThat(pair[0]).isGreaterThan(last[0]);
            assertThat(pair[1]).isGreaterThan(last[1]);
            assertThat(weights[pair[0]][pair[1]])
                    .as("what has no weight is no pair")
                    .isPositive();
            sum += weights[pair[0]][pair[1]];
            last = pair;
        }
        assertThat(sum).isEqualTo(n == 0 || m == 0 ? 0 : heaviest(weights, 0, 0));
    }

    @Test
    void whatStandsEverywhereIsNoAnchor() {
        List<Integer> a = new ArrayList<>(Collections.nCopies(1000, 0));
        List<Integer> b = new ArrayList<>(Collections.nCopies(1000, 0));
        a.add(500, 1);
        b.add(100, 1);
        int[] to = Alignment.of(a, b);
        isInOrderAndEqual(to, a, b);
        assertThat(to[500]).isIn(-1, 100);
    }
}
