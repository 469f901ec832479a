package org.mendedleaf.core.pick;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Comparison.RowChange;
import org.mendedleaf.core.compare.Comparison.SheetChanges;
import org.mendedleaf.core.document.TextReader;

/** Takes changes of tables that are written as text back, row by row and cell by cell. Pure. */
final class RowPicking {

    private RowPicking() {}

    /** A row as it is written: where its cells begin and end. */
    private record Raw(String text, List<int[]> cells) {}

    private record Emitted(int before, String text) {}

    /** The later table with these changes undone. */
    static String back(TextPicking.Text a, TextPicking.Text b, SheetChanges changes, Set<Integer> numbers) {
        char separator = TextReader.separator(b.text());
        List<Raw> before = raw(a.text(), TextReader.separator(a.text()));
        List<Raw> after = raw(b.text(), separator);
        Set<Integer> back = new HashSet<>(numbers);
        List<Emitted> made = new ArrayList<>();
        List<RowChange> moved = new ArrayList<>();
        for (RowChange row : changes.sheets().get(0).rows()) {
            boolean whole = row.change() > 0 && back.contains(row.change());
            switch (row.mark()) {
                case ADDED -> {
                    if (!whole) {
                        made.add(new Emitted(-1, after.get(row.after()).text()));
                    }
                }
                case REMOVED -> {
                    if (whole) {
                        made.add(new Emitted(
                                row.before(), before.get(row.before()).text()));
                    }
                }
                case MOVED -> {
                    if (whole) {
                        moved.add(row);
                    } else {
                        made.add(new Emitted(-1, after.get(row.after()).text()));
                    }
                }
                default ->
                    made.add(new Emitted(row.before(), cells(row, after.get(row.after()), changes, back, separator)));
            }
        }
        for (RowChange row : moved) {
            int at = 0;
            for (int i = 0; i < made.size(); i++) {
                at = made.get(i).before() >= 0 && made.get(i).before() < row.before() ? i + 1 : at;
            }
            made.add(at, new Emitted(row.before(), after.get(row.after()).text()));
        }
        List<String> lines = made.stream().map(Emitted::text).toList();
        return TextPicking.joined(lines, b.end(), TextPicking.isEnded(b.text()));
    }

    /** The row with the cells as they were that are taken back. */
    private static String cells(RowChange row, Raw raw, SheetChanges changes, Set<Integer> back, char separator) {
        StringBuilder text = new StringBuilder(raw.text());
        List<Comparison.Column> columns = changes.sheets().get(0).columns();
        List<Integer> order = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            if (row.cellChange(c) > 0 && back.contains(row.cellChange(c))) {
                order.add(c);
            }
        }
        Collections.reverse(order);
        for (int c : order) {
            int column = columns.get(c).after();
            String was = java.util.Objects.requireNonNull(row.from())
                    .cell(columns.get(c).before())
                    .shown();
            if (column < raw.cells().size()) {
                int[] cell = raw.cells().get(column);
                text.replace(cell[0], cell[1], quoted(was, separator));
            } else {
                int end = raw.text().replaceFirst("\\R$", "").length();
                String missing =
                        String.valueOf(separator).repeat(column - raw.cells().size() + 1);
                text.insert(end, missing + quoted(was, separator));
            }
        }
        return text.toString();
    }

    private static String quoted(String cell, char separator) {
        boolean needs = cell.indexOf(separator) >= 0 || cell.indexOf('"') >= 0 || cell.matches("(?s).*[\\r\\n].*");
        return needs ? "\"" + cell.replace("\"", "\"\"") + "\"" : cell;
    }

    /** Rows as they are written (RFC 4180), without lines in which nothing stands. */
    private static List<Raw> raw(String text, char separator) {
        List<Raw> rows = new ArrayList<>();
        List<int[]> cells = new ArrayList<>();
        int row = 0;
        int cell = 0;
        boolean quotes = false;
        for (int i = 0; i <= text.length(); i++) {
            boolean end = i == text.length();
            char c = end ? '\n' : text.charAt(i);
            if (!end && c == '"') {
                quotes = !quotes;
            } else if (c == separator && !quotes) {
                cells.add(new int[] {cell - row, i - row});
                cell = i + 1;
            } else if ((c == '\n' || c == '\r') && (!quotes || end)) {
                cells.add(new int[] {cell - row, i - row});
                boolean crlf = c == '\r' && i + 1 < text.length() && text.charAt(i + 1) == '\n';
                i += crlf ? 1 : 0;
                int next = Math.min(text.length(), i + 1);
                boolean something = cells.size() > 1 || cells.get(0)[1] > cells.get(0)[0];
                if (something) {
                    rows.add(new Raw(text.substring(row, next), List.copyOf(cells)));
                }
                cells.clear();
                row = next;
                cell = next;
                quotes = false;
            }
        }
        return rows;
    }
}
