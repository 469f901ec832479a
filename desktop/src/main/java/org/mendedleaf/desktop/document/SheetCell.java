package org.mendedleaf.desktop.document;

import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.Column;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.RowChange;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Merged;
import org.mendedleaf.desktop.widgets.Ui;

/** A cell of a sheet, or of two sheets: what stands in it, how it changed, and the space of cells that are one. */
final class SheetCell extends TableCell<RowChange, RowChange> {

    /** Where a table keeps which of its cells are one. */
    static final String MERGED = "merged";

    /** The number of a row that stands for others. */
    static final int LEFT_OUT = -2;

    private final SheetView.Shown shown;
    private final boolean formulas;
    private final Supplier<String> found;

    /**
     * A cell of this column.
     *
     * @param formulas whether formulas are shown rather than what they give
     * @param found what is marked where it stands, in small letters; empty for nothing
     */
    SheetCell(SheetView.Shown shown, boolean formulas, Supplier<String> found) {
        this.shown = shown;
        this.formulas = formulas;
        this.found = found;
    }

    @Override
    protected void updateItem(@Nullable RowChange row, boolean empty) {
        super.updateItem(row, empty);
        ChangeMarks.mark(this, Mark.SAME);
        Ui.style(this, "cell-changed", false);
        Ui.style(this, "cell-found", false);
        Ui.style(this, "cell-number", false);
        Ui.style(this, "grid-gutter", shown.index() < 0);
        Ui.style(this, "dim", false);
        Ui.tooltip(this, null);
        setGraphic(null);
        if (empty || row == null) {
            setText("");
            return;
        }
        if (shown.index() == -2) {
            ChangeMarks.mark(this, row.mark() == Mark.CHANGED ? Mark.SAME : row.mark());
            setText(ChangeMarks.sign(row.mark()));
            return;
        }
        boolean before = shown.side() == SheetView.Side.BEFORE;
        boolean missing = before ? row.from() == null : shown.side() == SheetView.Side.AFTER && row.to() == null;
        if (missing) {
            setText("");
            return;
        }
        if (shown.index() == -1) {
            int number = before || row.to() == null ? row.before() : row.after();
            setText(number < 0 ? "" : Integer.toString(number + 1));
            return;
        }
        cell(row, before);
    }

    private void cell(RowChange row, boolean before) {
        Column column = Objects.requireNonNull(shown.column());
        boolean fold = row.before() == LEFT_OUT;
        Ui.style(this, "dim", fold);
        if (fold) {
            setText(shown.widest() ? Objects.requireNonNull(row.to()).cell(0).shown() : "");
            return;
        }
        Mark mark = row.mark() == Mark.CHANGED ? Mark.SAME : row.mark();
        ChangeMarks.mark(this, mark == Mark.SAME ? column.mark() : mark);
        Cell was = row.from() == null || column.before() < 0
                ? Cell.NONE
                : row.from().cell(column.before());
        Cell is = row.to() == null || column.after() < 0 ? Cell.NONE : row.to().cell(column.after());
        boolean changed = row.cellChange(shown.index()) != 0;
        Ui.style(this, "cell-changed", changed);
        Cell main = before || row.to() == null || column.after() < 0 ? was : is;
        Ui.style(this, "cell-number", !main.value().isEmpty());
        boolean both = changed && shown.side() == SheetView.Side.BOTH;
        setText(both ? said(was) + " → " + said(is) : said(main));
        String words = found.get();
        boolean holds =
                !words.isEmpty() && getText().toLowerCase(java.util.Locale.ROOT).contains(words);
        Ui.style(this, "cell-found", holds);
        if (!main.formula().isEmpty()) {
            Ui.tooltip(this, main.formula());
        }
        over(row, column);
    }

    /** What stands in several cells that are one has the space of all of them. */
    private void over(RowChange row, Column column) {
        if (!(getTableView().getProperties().get(MERGED) instanceof List<?> all)) {
            return;
        }
        for (Object each : all) {
            boolean begins = each instanceof Merged m && m.row() == row.after() && m.column() == column.after();
            if (begins && each instanceof Merged m && m.columns() > 1) {
                double space = 0;
                int at = getTableView().getColumns().indexOf(getTableColumn());
                int end = Math.min(getTableView().getColumns().size(), at + m.columns());
                for (int i = at; i < end; i++) {
                    space += getTableView().getColumns().get(i).getWidth();
                }
                Label label = Ui.label(getText(), "look-merged");
                label.setMinWidth(space - getInsets().getLeft());
                label.setMaxWidth(space - getInsets().getLeft());
                setText("");
                setGraphic(label);
            }
        }
    }

    private String said(Cell cell) {
        return formulas && !cell.formula().isEmpty() ? cell.formula() : cell.shown();
    }
}
