package org.mendedleaf.desktop.widgets;

import java.util.Comparator;
import java.util.List;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableColumnBase;
import javafx.scene.control.TableView;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/** Tables and their columns, as all screens have them. */
public final class Tables {

    private static final double ROW = 34;

    private Tables() {}

    /** A table without rows yet; {@code emptyKey} says what stands there then. */
    public static <R> TableView<R> table(String id, String emptyKey) {
        TableView<R> table = new TableView<>();
        table.setId(id);
        table.setAccessibleText(Words.of("table." + id));
        table.getStyleClass().addAll("coverage", "rows");
        table.setFixedCellSize(ROW);
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.setPlaceholder(Ui.label(Words.of(emptyKey), "dim"));
        table.getColumns().addListener((ListChangeListener<TableColumn<R, ?>>) change -> {
            while (change.next()) {
                headsFollow(table, change.getAddedSubList());
            }
        });
        return table;
    }

    /**
     * Has the heads of columns stand above them. Columns become narrower while a table is laid out, where it finds out that it needs
     * a bar to scroll with, and its heads, which were laid out by then, stay where they were until something else changes.
     */
    static void headsFollow(Control table, List<? extends TableColumnBase<?, ?>> columns) {
        for (TableColumnBase<?, ?> column : columns) {
            column.widthProperty()
                    .addListener((o, a, width) -> Platform.runLater(() -> {
                        for (Node heads : table.lookupAll(".nested-column-header")) {
                            ((Parent) heads).requestLayout();
                        }
                    }));
        }
    }

    /** A column of words. */
    public static <R> TableColumn<R, R> words(
            String key, double width, Function<R, String> words, Comparator<R> order) {
        TableColumn<R, R> column = column(key, width, order);
        column.setCellFactory(c -> new TableCell<>() {
            @Override
            protected void updateItem(@Nullable R row, boolean empty) {
                super.updateItem(row, empty);
                String text = empty || row == null ? "" : words.apply(row);
                setText(text);
                Ui.tooltip(this, text.length() < 24 ? null : text);
            }
        });
        return column;
    }

    /** A column of figures, which stand at its right. */
    public static <R> TableColumn<R, R> figures(
            String key, double width, Function<R, String> words, Comparator<R> order) {
        TableColumn<R, R> column = words(key, width, words, order);
        column.getStyleClass().add("right");
        return column;
    }

    /** A column of nodes. */
    public static <R> TableColumn<R, R> nodes(
            String key, double width, Function<R, @Nullable Node> draw, Comparator<R> order) {
        TableColumn<R, R> column = column(key, width, order);
        column.setCellFactory(c -> new TableCell<>() {
            {
                setAlignment(Pos.CENTER_LEFT);
            }

            @Override
            protected void updateItem(@Nullable R row, boolean empty) {
                super.updateItem(row, empty);
                setText(null);
                setGraphic(empty || row == null ? null : draw.apply(row));
            }
        });
        return column;
    }

    private static <R> TableColumn<R, R> column(String key, double width, Comparator<R> order) {
        TableColumn<R, R> column = new TableColumn<>(Words.of(key));
        column.setId(key);
        column.setPrefWidth(width);
        column.setMinWidth(Math.min(width, 60));
        column.setComparator(order);
        column.setCellValueFactory(c -> new ReadOnlyObjectWrapper<>(c.getValue()));
        return column;
    }

    /** A word in a coloured field. */
    public static Label badge(String words, String style) {
        return Ui.label(words, "badge", style);
    }
}
