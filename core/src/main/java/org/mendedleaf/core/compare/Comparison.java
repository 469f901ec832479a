package org.mendedleaf.core.compare;

import java.util.List;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;

/** What changed from one content to another. */
public sealed interface Comparison {

    /** What changed, in a few words. */
    String words();

    /** What happened to a row or a line. */
    enum Mark {
        /** It is the same in both. */
        SAME,
        /** Only the later one has it. */
        ADDED,
        /** Only the earlier one has it. */
        REMOVED,
        /** Both have it, with something else in it. */
        CHANGED
    }

    /** Nothing changed. */
    record Equal() implements Comparison {
        @Override
        public String words() {
            return Words.of("compare.equal");
        }
    }

    /**
     * Texts, by line.
     *
     * @param lines of both, in order
     * @param added number of lines only the later one has
     * @param removed number of lines only the earlier one has
     */
    record TextChanges(List<Line> lines, int added, int removed) implements Comparison {
        /** Copies the list. */
        public TextChanges {
            lines = List.copyOf(lines);
        }

        /**
         * A line.
         *
         * @param mark what happened to it
         * @param before its number in the earlier text, from 1; 0 when it has none
         * @param after its number in the later text, from 1; 0 when it has none
         * @param text of it
         */
        public record Line(Mark mark, int before, int after, String text) {}

        @Override
        public String words() {
            return ChangeWords.join(
                    ChangeWords.plus("compare.line", added), ChangeWords.minus("compare.line", removed));
        }
    }

    /**
     * Tables, by row and cell.
     *
     * @param rows of both, in order
     * @param cells number of cells with something else in them
     * @param added number of rows only the later one has
     * @param removed number of rows only the earlier one has
     */
    record TableChanges(List<Row> rows, int cells, int added, int removed) implements Comparison {
        /** Copies the list. */
        public TableChanges {
            rows = List.copyOf(rows);
        }

        /**
         * A row.
         *
         * @param mark what happened to it
         * @param number in the later table, or in the earlier one when it is removed; from 1
         * @param before its cells in the earlier table; empty when it has none
         * @param after its cells in the later table; empty when it has none
         */
        public record Row(Mark mark, int number, List<String> before, List<String> after) {
            /** Copies the lists. */
            public Row {
                before = List.copyOf(before);
                after = List.copyOf(after);
            }

            /** Whether the cell in this column changed. */
            public boolean isChanged(int column) {
                return mark == Mark.CHANGED && !cell(before, column).equals(cell(after, column));
            }

            private static String cell(List<String> cells, int column) {
                return column < cells.size() ? cells.get(column) : "";
            }
        }

        @Override
        public String words() {
            String changed = cells == 0 ? "" : Words.of("compare.cells", cells);
            return ChangeWords.join(
                    changed, ChangeWords.plus("compare.row", added), ChangeWords.minus("compare.row", removed));
        }
    }

    /**
     * Contents of other kinds.
     *
     * @param sizeChange bytes more, or fewer when negative
     */
    record OtherContent(long sizeChange) implements Comparison {
        @Override
        public String words() {
            return sizeChange == 0
                    ? Words.of("compare.sameSize")
                    : Words.of("compare.size", Say.sizeChange(sizeChange));
        }
    }
}
