package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Column;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.RowChange;
import org.mendedleaf.core.compare.Comparison.SheetChange;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.words.Words;

/**
 * Compares sheets: columns first, by what stands in them, so that one that was put in or moved is one change; then rows by
 * the columns that both have, exactly where they are equal and by their likeness between; then cells. Equal rows at other
 * places are moved. What formulas give is told apart from what somebody typed. Pure.
 */
final class SheetCompare {

    /** Rows are taken for the same row with other cells when this share of their cells is equal, in percent. */
    private static final int ALIKE = 50;

    private static final long PAIRS_MOST = 250_000;
    /** The name of a cell within a formula. */
    private static final Pattern REFERENCE = Pattern.compile("\\$?\\b([A-Z]{1,3})\\$?\\d+\\b(?!\\()");

    private final List<Change> changes = new ArrayList<>();
    private final List<Change> computed = new ArrayList<>();
    private final boolean named;

    private SheetCompare(boolean named) {
        this.named = named;
    }

    static Comparison compare(Document.Sheets a, Document.Sheets b) {
        SheetCompare compare =
                new SheetCompare(a.sheets().size() > 1 || b.sheets().size() > 1);
        Map<String, Sheet> before = new LinkedHashMap<>();
        a.sheets().forEach(s -> before.putIfAbsent(s.name(), s));
        Map<Sheet, Sheet> pairs = new LinkedHashMap<>();
        List<Sheet> fresh = new ArrayList<>();
        for (Sheet sheet : b.sheets()) {
            Sheet was = before.remove(sheet.name());
            if (was == null) {
                fresh.add(sheet);
            } else {
                pairs.put(sheet, was);
            }
        }
        // A sheet that got another name is the one that says the same.
        for (Sheet sheet : fresh) {
            before.values().stream()
                    .filter(s -> s.rows().equals(sheet.rows()) || before.size() == 1 && fresh.size() == 1)
                    .findFirst()
                    .ifPresent(s -> {
                        pairs.put(sheet, s);
                        before.remove(s.name());
                    });
        }
        List<SheetChange> sheets = new ArrayList<>();
        for (Sheet sheet : b.sheets()) {
            Sheet was = pairs.get(sheet);
            sheets.add(was == null ? compare.whole(sheet, Mark.ADDED) : compare.sheet(was, sheet));
        }
        before.values().forEach(s -> sheets.add(compare.whole(s, Mark.REMOVED)));
        return new Comparison.SheetChanges(sheets, compare.changes, compare.computed);
    }

    private SheetChange whole(Sheet sheet, Mark mark) {
        boolean came = mark == Mark.ADDED;
        int number = change(
                mark,
                Words.of("compare.where.sheet", sheet.name()),
                came ? "" : sheet.name(),
                came ? sheet.name() : "");
        List<Column> columns = new ArrayList<>();
        for (int c = 0; c < sheet.width(); c++) {
            columns.add(new Column(Mark.SAME, c, c));
        }
        List<RowChange> rows = new ArrayList<>();
        for (int r = 0; r < sheet.rows().size(); r++) {
            Row row = sheet.rows().get(r);
            rows.add(new RowChange(
                    mark, came ? -1 : r, came ? r : -1, came ? null : row, came ? row : null, number, List.of()));
        }
        return new SheetChange(sheet.name(), mark, columns, rows);
    }

    private int change(Mark mark, String where, String before, String after) {
        int number = changes.size() + 1;
        changes.add(new Change(number, mark, where, before, after));
        return number;
    }

    private SheetChange sheet(Sheet a, Sheet b) {
        List<Column> columns = SheetColumns.of(a, b);
        Rows rows = new Rows(a, b, columns);
        for (Column column : columns) {
            if (column.mark() != Mark.SAME) {
                boolean came = column.before() < 0;
                String name = letters(came ? column.after() : column.after() < 0 ? column.before() : column.after());
                String head =
                        came || column.after() >= 0 ? rows.head(b, column.after()) : rows.head(a, column.before());
                change(
                        column.mark(),
                        place(b.name(), Words.of("compare.where.column", name, head)),
                        came ? "" : rows.head(a, column.before()),
                        column.after() < 0 ? "" : rows.head(b, column.after()));
            }
        }
        rows.align();
        Mark mark = a.name().equals(b.name()) ? Mark.SAME : Mark.CHANGED;
        if (mark == Mark.CHANGED) {
            change(Mark.CHANGED, Words.of("compare.where.sheetName"), a.name(), b.name());
        }
        return new SheetChange(b.name(), mark, columns, rows.found);
    }

    private String place(String sheet, String where) {
        return named && !sheet.isEmpty() ? Words.of("compare.where.inSheet", sheet, where) : where;
    }

    /** The name of a column in letters, from 0. */
    static String letters(int column) {
        StringBuilder name = new StringBuilder();
        for (int c = column; c >= 0; c = c / 26 - 1) {
            name.insert(0, (char) ('A' + c % 26));
        }
        return name.toString();
    }

    private final class Rows {
        private final Sheet a;
        private final Sheet b;
        private final List<Column> columns;
        private final List<Column> common;
        private final List<RowChange> found = new ArrayList<>();
        private final List<List<String>> keysA;
        private final List<List<String>> keysB;

        Rows(Sheet a, Sheet b, List<Column> columns) {
            this.a = a;
            this.b = b;
            this.columns = columns;
            this.common = columns.stream()
                    .filter(c -> c.before() >= 0 && c.after() >= 0)
                    .toList();
            this.keysA = keys(a, true);
            this.keysB = keys(b, false);
        }

        /** What a row says in the columns that both have; formulas by their shape, since what they give may change. */
        private List<List<String>> keys(Sheet sheet, boolean before) {
            List<List<String>> keys = new ArrayList<>(sheet.rows().size());
            for (Row row : sheet.rows()) {
                List<String> key = new ArrayList<>(common.size());
                for (Column column : common) {
                    Cell cell = row.cell(before ? column.before() : column.after());
                    key.add(cell.formula().isEmpty() ? cell.shown() : shape(cell.formula(), before));
                }
                keys.add(key);
            }
            return keys;
        }

        /** The words of the first row, above a column. */
        String head(Sheet sheet, int column) {
            return sheet.rows().isEmpty()
                    ? ""
                    : sheet.rows().get(0).cell(column).shown();
        }

        void align() {
            int[] to = Alignment.of(keysA, keysB);
            Map<Integer, Integer> alike = new HashMap<>();
            Alignment.walk(
                    to,
                    keysB.size(),
                    (fromA, endA, fromB, endB) -> similar(fromA, endA, fromB, endB, alike),
                    (i, j) -> {
                        // Equal already.
                    });
            alike.forEach((i, j) -> to[i] = j);
            Map<Integer, Integer> moved = moved(to);
            Alignment.walk(
                    to,
                    keysB.size(),
                    (fromA, endA, fromB, endB) -> {
                        for (int i = fromA; i < endA; i++) {
                            if (!moved.containsValue(i)) {
                                lost(i);
                            }
                        }
                        for (int j = fromB; j < endB; j++) {
                            came(j, moved.get(j));
                        }
                    },
                    this::both);
        }

        private void similar(int fromA, int endA, int fromB, int endB, Map<Integer, Integer> alike) {
            if ((long) (endA - fromA) * (endB - fromB) > PAIRS_MOST) {
                byFirstCell(fromA, endA, fromB, endB, alike);
                return;
            }
            Alignment.best(
                    endA - fromA,
                    endB - fromB,
                    (i, j) -> {
                        int like = like(keysA.get(fromA + i), keysB.get(fromB + j));
                        return like >= ALIKE ? like : 0;
                    },
                    (i, j) -> alike.put(fromA + i, fromB + j));
        }

        /** Where too much changed to try each pair, rows that say who they are in their first cell. */
        private void byFirstCell(int fromA, int endA, int fromB, int endB, Map<Integer, Integer> alike) {
            int[] to = Alignment.of(firsts(keysA, fromA, endA), firsts(keysB, fromB, endB));
            for (int i = 0; i < to.length; i++) {
                if (to[i] >= 0 && like(keysA.get(fromA + i), keysB.get(fromB + to[i])) >= ALIKE / 2) {
                    alike.put(fromA + i, fromB + to[i]);
                }
            }
        }

        private static List<String> firsts(List<List<String>> keys, int from, int end) {
            return keys.subList(from, end).stream()
                    .map(k -> k.stream().filter(s -> !s.isEmpty()).findFirst().orElse(""))
                    .toList();
        }

        /** The share of cells that are equal, of those where anything stands, in percent; the first counts twice. */
        private static int like(List<String> x, List<String> y) {
            int all = 0;
            int equal = 0;
            for (int c = 0; c < x.size(); c++) {
                String left = x.get(c);
                String right = y.get(c);
                if (!left.isEmpty() || !right.isEmpty()) {
                    int weight = all == 0 ? 2 : 1;
                    all += weight;
                    equal += left.equals(right) ? weight : 0;
                }
            }
            return all == 0 ? 0 : 100 * equal / all;
        }

        /** Rows that are nowhere in the other sheet but at another place: the later by the earlier. */
        private Map<Integer, Integer> moved(int[] to) {
            boolean[] taken = new boolean[keysB.size()];
            Map<List<String>, List<Integer>> left = new HashMap<>();
            for (int i = to.length - 1; i >= 0; i--) {
                if (to[i] >= 0) {
                    taken[to[i]] = true;
                } else if (keysA.get(i).stream().anyMatch(s -> !s.isEmpty())) {
                    left.computeIfAbsent(keysA.get(i), k -> new ArrayList<>()).add(i);
                }
            }
            Map<Integer, Integer> moved = new HashMap<>();
            for (int j = 0; j < taken.length; j++) {
                List<Integer> from = taken[j] ? Collections.emptyList() : left.getOrDefault(keysB.get(j), List.of());
                if (!from.isEmpty()) {
                    moved.put(j, from.remove(from.size() - 1));
                }
            }
            return moved;
        }

        private void lost(int i) {
            Row row = a.rows().get(i);
            if (row.isEmpty()) {
                return;
            }
            int number = change(Mark.REMOVED, place(b.name(), Words.of("compare.where.row", i + 1)), said(row), "");
            found.add(new RowChange(Mark.REMOVED, i, -1, row, null, number, List.of()));
        }

        private void came(int j, @org.jspecify.annotations.Nullable Integer from) {
            Row row = b.rows().get(j);
            String where = place(b.name(), Words.of("compare.where.row", j + 1));
            if (from != null) {
                Row was = a.rows().get(from);
                int number = change(
                        Mark.MOVED,
                        place(b.name(), Words.of("compare.where.movedRow", from + 1, j + 1)),
                        said(was),
                        said(row));
                found.add(new RowChange(Mark.MOVED, from, j, was, row, number, List.of()));
            } else if (row.isEmpty()) {
                found.add(new RowChange(Mark.SAME, -1, j, null, row, 0, List.of()));
            } else {
                int number = change(Mark.ADDED, where, "", said(row));
                found.add(new RowChange(Mark.ADDED, -1, j, null, row, number, List.of()));
            }
        }

        private static String said(Row row) {
            return String.join(
                    ", ",
                    row.cells().stream()
                            .map(Cell::shown)
                            .filter(s -> !s.isBlank())
                            .toList());
        }

        private void both(int i, int j) {
            Row from = a.rows().get(i);
            Row to = b.rows().get(j);
            List<Integer> cells = new ArrayList<>();
            boolean any = false;
            for (Column column : columns) {
                Cell was = column.before() < 0 ? Cell.NONE : from.cell(column.before());
                Cell is = column.after() < 0 ? Cell.NONE : to.cell(column.after());
                int change = 0;
                boolean both = column.before() >= 0 && column.after() >= 0;
                if (both && !was.equals(is)) {
                    change = cell(j, column, was, is);
                }
                any |= change != 0;
                cells.add(change);
            }
            boolean typed = cells.stream().anyMatch(c -> c > 0);
            found.add(new RowChange(typed ? Mark.CHANGED : Mark.SAME, i, j, from, to, 0, any ? cells : List.of()));
        }

        private int cell(int j, Column column, Cell was, Cell is) {
            boolean sameFormula =
                    !was.formula().isEmpty() && shape(was.formula(), true).equals(shape(is.formula(), false));
            if (sameFormula) {
                if (was.shown().equals(is.shown())) {
                    return 0;
                }
                computed.add(new Change(computed.size() + 1, Mark.CHANGED, where(j, column), number(was), number(is)));
                return -1;
            }
            boolean same = was.formula().equals(is.formula()) && was.shown().equals(is.shown());
            if (same) {
                return 0;
            }
            return change(Mark.CHANGED, where(j, column), said(was), said(is));
        }

        private static String number(Cell cell) {
            return cell.value().isEmpty() ? cell.shown() : cell.value();
        }

        private static String said(Cell cell) {
            return cell.formula().isEmpty() ? cell.shown() : cell.shown() + " (" + cell.formula() + ")";
        }

        private String where(int j, Column column) {
            String head = j == 0 ? "" : head(b, column.after());
            String first = b.rows().get(j).cells().stream()
                    .filter(c -> c.value().isEmpty() && !c.shown().isBlank())
                    .map(Cell::shown)
                    .findFirst()
                    .orElse("");
            String name = letters(column.after()) + (j + 1);
            String words = head.isEmpty() || first.isEmpty()
                    ? Words.of("compare.where.cell", name)
                    : Words.of("compare.where.cellOf", name, head, first);
            return place(b.name(), words);
        }

        /**
         * A formula without the numbers of rows, which change when rows come and go above it, and with columns as the later
         * sheet calls them.
         */
        private String shape(String formula, boolean before) {
            return REFERENCE.matcher(formula).replaceAll(m -> {
                int column = number(m.group(1));
                for (Column c : before ? columns : List.<Column>of()) {
                    if (c.before() == column) {
                        return letters(c.after()) + "#";
                    }
                }
                return m.group(1) + "#";
            });
        }

        private static int number(String letters) {
            int column = 0;
            for (int i = 0; i < letters.length(); i++) {
                column = column * 26 + (letters.charAt(i) - 'A' + 1);
            }
            return column - 1;
        }
    }
}
