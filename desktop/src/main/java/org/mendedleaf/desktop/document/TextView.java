package org.mendedleaf.desktop.document;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.core.compare.Comparison.TextChanges;
import org.mendedleaf.core.compare.Comparison.TextChanges.Line;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Lines of a text, or of two texts: one above the other, or side by side. */
final class TextView extends RowsView<TextView.Row> {

    /**
     * A row.
     *
     * @param left the earlier line, or the only one; null when there is none
     * @param right the later line, beside it; null when there is none
     * @param left out how many equal lines stand for this row; 0 for none
     */
    record Row(@Nullable Line left, @Nullable Line right, int leftOut) {
        int change() {
            return left != null && left.change() > 0 ? left.change() : right == null ? 0 : right.change();
        }

        String text() {
            String a = left == null ? "" : left.text();
            return right == null || right.equals(left) ? a : a + "\t" + right.text();
        }
    }

    private TextView(List<Row> rows, boolean wide, int changes) {
        super(rows, "text-list", Row::text, Row::change, changes);
        list.setFixedCellSize(20);
        list.setCellFactory(v -> new Cell(wide));
    }

    /** A text as it is. */
    static TextView of(Document.Text text) {
        List<Row> rows = new ArrayList<>();
        for (String each : text.lines()) {
            rows.add(new Row(new Line(Mark.SAME, 0, rows.size() + 1, List.of(new Piece(Mark.SAME, each)), 0), null, 0));
        }
        return new TextView(rows, false, 0);
    }

    /** Two texts. */
    static TextView of(TextChanges text, boolean wide, boolean onlyChanges) {
        List<Row> rows = new ArrayList<>();
        List<Line> lines = text.lines();
        for (int i = 0; i < lines.size(); ) {
            Line line = lines.get(i);
            if (line.mark() == Mark.SAME || !wide) {
                rows.add(new Row(line, wide ? line : null, 0));
                i++;
                continue;
            }
            // What is gone, and beside it what came in its place.
            List<Line> gone = new ArrayList<>();
            List<Line> came = new ArrayList<>();
            for (; i < lines.size() && lines.get(i).change() == line.change(); i++) {
                (lines.get(i).mark() == Mark.REMOVED ? gone : came).add(lines.get(i));
            }
            for (int k = 0; k < Math.max(gone.size(), came.size()); k++) {
                rows.add(new Row(k < gone.size() ? gone.get(k) : null, k < came.size() ? came.get(k) : null, 0));
            }
        }
        List<Row> shown =
                onlyChanges ? ChangeContext.fold(rows, r -> r.change() > 0, n -> new Row(null, null, n)) : rows;
        return new TextView(shown, wide, text.changes().size());
    }

    @Override
    public void zoom(int step) {
        list.setFixedCellSize(20 + 4.0 * step);
    }

    @Override
    public Position position() {
        int first = ScrollPosition.first(list);
        return new Position("", first, ScrollPosition.words(list.getItems(), first, Row::text));
    }

    @Override
    public void position(Position position) {
        ScrollPosition.scroll(
                list, ScrollPosition.nearest(list.getItems(), 0, list.getItems().size(), position, Row::text));
    }

    private final class Cell extends ListCell<Row> {
        private final boolean wide;

        Cell(boolean wide) {
            this.wide = wide;
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable Row row, boolean empty) {
            super.updateItem(row, empty);
            setText(null);
            if (empty || row == null) {
                setGraphic(null);
                ChangeMarks.mark(this, Mark.SAME);
                return;
            }
            if (row.leftOut() > 0) {
                ChangeMarks.mark(this, Mark.SAME);
                setGraphic(Ui.label(Words.of("detail.sameLines", row.leftOut()), "dim"));
                return;
            }
            if (!wide) {
                Line line = java.util.Objects.requireNonNull(row.left());
                ChangeMarks.mark(this, line.mark());
                setGraphic(half(line, line.after() > 0 ? line.after() : line.before()));
                rowWords.shows(this);
                return;
            }
            ChangeMarks.mark(this, Mark.SAME);
            Region left = half(row.left(), row.left() == null ? 0 : row.left().before());
            Region right =
                    half(row.right(), row.right() == null ? 0 : row.right().after());
            HBox both = new HBox(8, left, right);
            for (Region each : List.of(left, right)) {
                HBox.setHgrow(each, Priority.ALWAYS);
                each.setMinWidth(0);
                each.prefWidthProperty()
                        .bind(list().widthProperty().subtract(60).divide(2));
                each.maxWidthProperty().bind(each.prefWidthProperty());
            }
            ChangeMarks.mark(left, row.left() == null ? Mark.SAME : row.left().mark());
            ChangeMarks.mark(
                    right, row.right() == null ? Mark.SAME : row.right().mark());
            setGraphic(both);
            rowWords.shows(this);
        }

        private ListView<Row> list() {
            return getListView();
        }

        private Region half(@Nullable Line line, int number) {
            HBox box = new HBox(8);
            box.getStyleClass().add("look-half");
            if (line != null) {
                Label sign = Ui.label(ChangeMarks.sign(line.mark()), "mono", "gutter-sign");
                Label gutter = Ui.label(number == 0 ? "" : Integer.toString(number), "mono", "gutter");
                box.getChildren().addAll(sign, gutter, ChangeMarks.flow(line.pieces(), rowWords.found(), "mono"));
            }
            return box;
        }
    }
}
