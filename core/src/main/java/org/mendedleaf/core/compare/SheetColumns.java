package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.mendedleaf.core.compare.Comparison.Column;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Sheet;

/** Which column of a sheet is which of a later one: by their heads, or else by the values that stand in them. */
final class SheetColumns {

    private SheetColumns() {}

    /** Columns are taken for the same from this share of common values on, in percent. */
    private static final int SAME_COLUMN = 50;

    private static final int SAMPLED = 2000;
    private static final int COLUMNS_MOST = 400;

    /** The columns of both, in the order of the later one. */
    static List<Column> of(Sheet a, Sheet b) {
        int n = a.width();
        int m = b.width();
        if (a.rows().isEmpty() || b.rows().isEmpty()) {
            // Rows come or go; that there are columns is no change of its own.
            return IntStream.range(0, Math.max(n, m))
                    .mapToObj(c -> new Column(Mark.SAME, c, c))
                    .toList();
        }
        int[] to = new int[n];
        Arrays.fill(to, -1);
        boolean sameHeads = n == m && heads(a).equals(heads(b));
        if (sameHeads || n > COLUMNS_MOST || m > COLUMNS_MOST) {
            for (int i = 0; i < Math.min(n, m); i++) {
                to[i] = i;
            }
        } else {
            int[][] like = new int[n][m];
            List<Set<String>> valuesA = values(a, n);
            List<Set<String>> valuesB = values(b, m);
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < m; j++) {
                    like[i][j] = likeness(valuesA.get(i), valuesB.get(j)) + (i == j ? 1 : 0);
                }
            }
            Alignment.best(n, m, (i, j) -> like[i][j] >= SAME_COLUMN ? like[i][j] : 0, (i, j) -> to[i] = j);
            positions(to, m);
        }
        return listed(to, n, m, a, b);
    }

    /** What was left over between the same neighbours is the same column with other values. */
    private static void positions(int[] to, int m) {
        Alignment.walk(
                to.clone(),
                m,
                (fromA, endA, fromB, endB) -> {
                    if (endA - fromA == endB - fromB) {
                        for (int i = 0; i < endA - fromA; i++) {
                            to[fromA + i] = fromB + i;
                        }
                    }
                },
                (i, j) -> {
                    // Aligned already.
                });
    }

    private static List<Column> listed(int[] to, int n, int m, Sheet a, Sheet b) {
        // Columns with the same values at another place were moved.
        boolean[] taken = new boolean[m];
        for (int j : to) {
            if (j >= 0) {
                taken[j] = true;
            }
        }
        Map<Integer, Integer> moved = new HashMap<>();
        List<Set<String>> valuesA = values(a, n);
        List<Set<String>> valuesB = values(b, m);
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < m && to[i] < 0 && !moved.containsValue(i); j++) {
                if (!taken[j]
                        && !moved.containsKey(j)
                        && valuesA.get(i).size() > 1
                        && likeness(valuesA.get(i), valuesB.get(j)) >= 90) {
                    moved.put(j, i);
                }
            }
        }
        List<Column> columns = new ArrayList<>();
        Alignment.walk(
                to,
                m,
                (fromA, endA, fromB, endB) -> {
                    for (int i = fromA; i < endA; i++) {
                        if (!moved.containsValue(i)) {
                            columns.add(new Column(Mark.REMOVED, i, -1));
                        }
                    }
                    for (int j = fromB; j < endB; j++) {
                        Integer from = moved.get(j);
                        columns.add(from == null ? new Column(Mark.ADDED, -1, j) : new Column(Mark.MOVED, from, j));
                    }
                },
                (i, j) -> columns.add(new Column(Mark.SAME, i, j)));
        return columns;
    }

    private static List<String> heads(Sheet sheet) {
        return sheet.rows().get(0).cells().stream().map(Cell::shown).toList();
    }

    private static List<Set<String>> values(Sheet sheet, int width) {
        List<Set<String>> values = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            values.add(new LinkedHashSet<>());
        }
        int step = Math.max(1, sheet.rows().size() / SAMPLED);
        for (int r = 0; r < sheet.rows().size(); r += r < 20 ? 1 : step) {
            List<Cell> cells = sheet.rows().get(r).cells();
            for (int c = 0; c < cells.size(); c++) {
                if (!cells.get(c).shown().isEmpty()) {
                    values.get(c).add(cells.get(c).shown());
                }
            }
        }
        return values;
    }

    private static int likeness(Set<String> a, Set<String> b) {
        if (a.isEmpty() && b.isEmpty()) {
            return SAME_COLUMN;
        }
        Set<String> common = new HashSet<>(a);
        common.retainAll(b);
        return 200 * common.size() / Math.max(1, a.size() + b.size());
    }
}
