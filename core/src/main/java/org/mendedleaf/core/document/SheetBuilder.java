package org.mendedleaf.core.document;

import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Merged;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Sheet;

/** Collects the cells of a sheet in order; empty cells and rows at an end are left out, however often they are repeated. */
final class SheetBuilder {

    private final String name;
    private final Budget budget;
    private final List<Row> rows = new ArrayList<>();
    private final List<Merged> merged = new ArrayList<>();
    private final List<Cell> cells = new ArrayList<>();
    private int emptyRows;
    private long rowText;
    private int emptyCells;

    /** What all sheets of a document share. */
    static final class Budget {
        private final int mostRows;
        private long cells;
        private long chars;
        private boolean cut;

        Budget(Limits limits) {
            mostRows = limits.rows();
            cells = limits.cells();
            chars = limits.chars();
        }

        /** Whether something was left out. */
        boolean isCut() {
            return cut;
        }

        /** Takes so many cells with so much text in all, unless that is more than there may be. */
        boolean take(long count, long text) {
            if (count > cells || text > chars) {
                cut = true;
                return false;
            }
            cells -= count;
            chars -= text;
            return true;
        }
    }

    SheetBuilder(String name, Budget budget) {
        this.name = name;
        this.budget = budget;
    }

    int row() {
        return rows.size() + emptyRows;
    }

    int column() {
        return cells.size() + emptyCells;
    }

    /** The same cell, so many times. */
    void cell(Cell cell, int times) {
        if (cell.equals(Cell.NONE)) {
            emptyCells += times;
            return;
        }
        long text = (long) cell.shown().length() * times;
        if (!budget.take((long) emptyCells + times, text)) {
            return;
        }
        rowText += text;
        for (; emptyCells > 0; emptyCells--) {
            cells.add(Cell.NONE);
        }
        for (int i = 0; i < times; i++) {
            cells.add(cell);
        }
    }

    /** Cells that are one, beginning at the next cell. */
    void merge(int overRows, int overColumns) {
        if (overRows > 1 || overColumns > 1) {
            merged.add(new Merged(row(), column(), overRows, overColumns));
        }
    }

    void merge(Merged cells) {
        merged.add(cells);
    }

    /** Ends the row, which is there so many times. */
    void endRow(int times) {
        Row row = new Row(cells);
        long text = rowText;
        rowText = 0;
        cells.clear();
        emptyCells = 0;
        if (row.isEmpty()) {
            emptyRows += times;
            return;
        }
        if (rows.size() + emptyRows + times > budget.mostRows
                || !budget.take((times - 1L) * row.cells().size(), (times - 1L) * text)) {
            budget.cut = true;
            return;
        }
        for (; emptyRows > 0; emptyRows--) {
            rows.add(new Row(List.of()));
        }
        for (int i = 0; i < times; i++) {
            rows.add(row);
        }
    }

    /** Goes on at this row and column, both from 0 and not before where it stands. */
    void goTo(int column) {
        if (column > column()) {
            cell(Cell.NONE, column - column());
        }
    }

    void goToRow(int row) {
        if (row > row()) {
            emptyRows += row - row();
        }
    }

    Sheet sheet() {
        return new Sheet(name, rows, merged);
    }
}
