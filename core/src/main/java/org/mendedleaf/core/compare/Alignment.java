package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntBinaryOperator;

/**
 * Which elements of one sequence are which of another, in order. Equal beginnings and ends are taken first; between them what
 * is there once in both is aligned along the longest increasing subsequence (Bram Cohen's patience diff), and the gaps in the
 * same way; small gaps exactly, by the longest common subsequence (Wagner and Fischer, 1974). Pure.
 */
final class Alignment {

    /** Gaps up to this many pairs are aligned exactly. */
    private static final long EXACT = 250_000;

    private final int[] a;
    private final int[] b;
    /** For each element of the first sequence the one of the second that it is; -1 when there is none. */
    private final int[] to;

    private Alignment(int[] a, int[] b) {
        this.a = a;
        this.b = b;
        this.to = new int[a.length];
        Arrays.fill(to, -1);
    }

    /** Aligns lists by equality: for each element of {@code a} the index in {@code b}, or -1. */
    static <T> int[] of(List<T> a, List<T> b) {
        Map<T, Integer> ids = new HashMap<>();
        return of(numbers(a, ids), numbers(b, ids));
    }

    private static <T> int[] numbers(List<T> list, Map<T, Integer> ids) {
        int[] numbers = new int[list.size()];
        for (int i = 0; i < numbers.length; i++) {
            numbers[i] = ids.computeIfAbsent(list.get(i), k -> ids.size());
        }
        return numbers;
    }

    static int[] of(int[] a, int[] b) {
        Alignment alignment = new Alignment(a, b);
        alignment.align(0, a.length, 0, b.length);
        return alignment.to;
    }

    private void align(int fromA, int endA, int fromB, int endB) {
        int a0 = fromA;
        int b0 = fromB;
        int a1 = endA;
        int b1 = endB;
        while (a0 < a1 && b0 < b1 && a[a0] == b[b0]) {
            to[a0++] = b0++;
        }
        while (a0 < a1 && b0 < b1 && a[a1 - 1] == b[b1 - 1]) {
            to[--a1] = --b1;
        }
        if (a0 == a1 || b0 == b1) {
            return;
        }
        if ((long) (a1 - a0) * (b1 - b0) <= EXACT) {
            exact(a0, a1, b0, b1);
            return;
        }
        List<int[]> anchors = anchors(a0, a1, b0, b1);
        for (int[] anchor : anchors) {
            to[anchor[0]] = anchor[1];
            align(a0, anchor[0], b0, anchor[1]);
            a0 = anchor[0] + 1;
            b0 = anchor[1] + 1;
        }
        if (!anchors.isEmpty()) {
            align(a0, a1, b0, b1);
        }
    }

    /** What is there once in both, in an order that both have. */
    private List<int[]> anchors(int a0, int a1, int b0, int b1) {
        Map<Integer, int[]> once = new HashMap<>();
        for (int i = a0; i < a1; i++) {
            once.merge(a[i], new int[] {i, -1}, (x, y) -> new int[] {-1, -1});
        }
        for (int j = b0; j < b1; j++) {
            int[] found = once.get(b[j]);
            if (found != null && found[0] >= 0) {
                found[1] = found[1] == -1 ? j : -2;
            }
        }
        List<int[]> pairs = once.values().stream()
                .filter(p -> p[0] >= 0 && p[1] >= 0)
                .sorted((x, y) -> Integer.compare(x[0], y[0]))
                .toList();
        // The longest increasing subsequence, by piles (Schensted, 1961).
        int[] tops = new int[pairs.size()];
        int[] below = new int[pairs.size()];
        int piles = 0;
        for (int i = 0; i < pairs.size(); i++) {
            int low = 0;
            int high = piles;
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (pairs.get(tops[middle])[1] < pairs.get(i)[1]) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            below[i] = low == 0 ? -1 : tops[low - 1];
            tops[low] = i;
            piles = Math.max(piles, low + 1);
        }
        List<int[]> longest = new ArrayList<>();
        for (int i = piles == 0 ? -1 : tops[piles - 1]; i >= 0; i = below[i]) {
            longest.add(pairs.get(i));
        }
        java.util.Collections.reverse(longest);
        return longest;
    }

    private void exact(int a0, int a1, int b0, int b1) {
        best(a1 - a0, b1 - b0, (i, j) -> a[a0 + i] == b[b0 + j] ? 1 : 0, (i, j) -> to[a0 + i] = b0 + j);
    }

    /** Takes a pair of indices. */
    interface Pair {
        void take(int i, int j);
    }

    /** Pairs in order whose weights are the most together; what has no weight is no pair. */
    static void best(int n, int m, IntBinaryOperator weight, Pair pair) {
        int[][] most = new int[n + 1][m + 1];
        for (int i = n - 1; i >= 0; i--) {
            for (int j = m - 1; j >= 0; j--) {
                int w = weight.applyAsInt(i, j);
                int together = w > 0 ? most[i + 1][j + 1] + w : 0;
                most[i][j] = Math.max(together, Math.max(most[i + 1][j], most[i][j + 1]));
            }
        }
        int i = 0;
        int j = 0;
        while (i < n && j < m && most[i][j] > 0) {
            int w = weight.applyAsInt(i, j);
            if (w > 0 && most[i][j] == most[i + 1][j + 1] + w) {
                pair.take(i++, j++);
            } else if (most[i][j] == most[i + 1][j]) {
                i++;
            } else {
                j++;
            }
        }
    }

    /** Takes the gaps between what is aligned: where both begin and end. */
    interface Gap {
        void take(int fromA, int endA, int fromB, int endB);
    }

    /** Gives all gaps, and the aligned pairs between them, in order. */
    static void walk(int[] to, int sizeB, Gap gap, Pair pair) {
        int a = 0;
        int b = 0;
        for (int i = 0; i < to.length; i++) {
            if (to[i] >= 0) {
                if (a < i || b < to[i]) {
                    gap.take(a, i, b, to[i]);
                }
                pair.take(i, to[i]);
                a = i + 1;
                b = to[i] + 1;
            }
        }
        if (a < to.length || b < sizeB) {
            gap.take(a, to.length, b, sizeB);
        }
    }
}
