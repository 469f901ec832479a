package org.mendedleaf.cli;

import java.util.List;
import java.util.Locale;

/** Which words may have been meant by one that was mistyped. */
final class Typos {

    private Typos() {}

    /** Those that are few letters away from what was typed: one in three may be wrong, or left out, or two swapped. */
    static List<String> near(String typed, List<String> words) {
        String lower = typed.toLowerCase(Locale.ROOT);
        return words.stream()
                .filter(w -> w.startsWith(lower) || distance(lower, w) <= Math.max(1, lower.length() / 3))
                .toList();
    }

    /**
     * How many letters have to be put in, taken out, changed or swapped with the next to make one word of another (the optimal
     * string alignment distance, after Damerau, "A technique for computer detection and correction of spelling errors", 1964).
     */
    static int distance(String a, String b) {
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                if (i == 0 || j == 0) {
                    d[i][j] = i + j;
                    continue;
                }
                int change = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                d[i][j] = Math.min(d[i - 1][j - 1] + change, 1 + Math.min(d[i - 1][j], d[i][j - 1]));
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
                }
            }
        }
        return d[a.length()][b.length()];
    }
}
