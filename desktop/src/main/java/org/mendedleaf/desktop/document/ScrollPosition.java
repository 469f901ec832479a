package org.mendedleaf.desktop.document;

import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import javafx.application.Platform;
import javafx.scene.control.IndexedCell;
import javafx.scene.control.ListView;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableView;
import javafx.scene.control.skin.VirtualFlow;
import javafx.scene.layout.Region;
import org.mendedleaf.core.words.Words;

/** Where somebody is in a list or a table, and going there. */
final class ScrollPosition {

    private ScrollPosition() {}

    /** The first row that is seen, from 0. */
    static int first(Region list) {
        return list.lookup(".virtual-flow") instanceof VirtualFlow<?> flow && flow.getFirstVisibleCell() != null
                ? cell(flow)
                : 0;
    }

    private static int cell(VirtualFlow<?> flow) {
        IndexedCell<?> cell = flow.getFirstVisibleCell();
        return Math.max(0, cell.getIndex());
    }

    /** The words of the row with this number; none where there is no such row. */
    static <T> String words(List<T> rows, int row, Function<T, String> text) {
        return row >= 0 && row < rows.size() ? text.apply(rows.get(row)) : "";
    }

    /** The row with the words of a position that is nearest to where it was; where none has them, the one of that number. */
    static <T> int nearest(List<T> rows, int from, int end, DocumentView.Position position, Function<T, String> text) {
        int was = Math.max(from, Math.min(end - 1, from + position.row()));
        for (int away = 0; !position.words().isBlank() && away < Math.max(1, end - from); away++) {
            for (int row : new int[] {was - away, was + away}) {
                if (row >= from && row < end && text.apply(rows.get(row)).equals(position.words())) {
                    return row;
                }
            }
        }
        return was;
    }

    /** Scrolls once the list is laid out; before that there is nothing to scroll. */
    static void scroll(ListView<?> list, int row) {
        Platform.runLater(() -> {
            list.applyCss();
            list.layout();
            list.scrollTo(Math.max(0, row));
        });
    }

    static void scroll(TableView<?> table, int row) {
        Platform.runLater(() -> {
            table.applyCss();
            table.layout();
            table.scrollTo(Math.max(0, row));
        });
    }

    /** How high a row is, where it is not said. Pixels. */
    private static final double ROW = 24;

    /** Scrolls such that a row is seen with some before it, as many as there is space for, and at most so many. */
    static void show(ListView<?> list, int row, int before) {
        Platform.runLater(() -> {
            list.applyCss();
            list.layout();
            list.scrollTo(Math.max(0, row - fitting(list.getHeight(), list.getFixedCellSize(), before)));
        });
    }

    static void show(TableView<?> table, int row, int before) {
        Platform.runLater(() -> {
            table.applyCss();
            table.layout();
            // The heads of the columns take the space of two rows.
            double height = table.getHeight() - 2 * ROW;
            table.scrollTo(Math.max(0, row - fitting(height, table.getFixedCellSize(), before)));
        });
    }

    /** Of so much space, a third is for what stands before. */
    static int fitting(double height, double row, int most) {
        return (int) Math.max(0, Math.min(most, height / (row > 0 ? row : ROW) / 3));
    }

    /** Selects the next item that holds the words. */
    static <T> boolean find(ListView<T> list, String words, Function<T, String> text) {
        int found = next(list.getItems(), list.getSelectionModel().getSelectedIndex(), words, text);
        if (found >= 0) {
            list.getSelectionModel().clearAndSelect(found);
            list.scrollTo(Math.max(0, found - 2));
        }
        return found >= 0;
    }

    static <T> boolean find(TableView<T> table, String words, Function<T, String> text) {
        int found = next(table.getItems(), table.getSelectionModel().getSelectedIndex(), words, text);
        if (found >= 0) {
            table.getSelectionModel().clearAndSelect(found);
            table.scrollTo(Math.max(0, found - 2));
        }
        return found >= 0;
    }

    private static <T> int next(List<T> items, int after, String words, Function<T, String> text) {
        String wanted = words.toLowerCase(Locale.ROOT);
        for (int i = 1; i <= items.size(); i++) {
            int at = Math.floorMod(after + i, items.size());
            if (text.apply(items.get(at)).toLowerCase(Locale.ROOT).contains(wanted)) {
                return at;
            }
        }
        return -1;
    }

    /** The text of what is selected, or of all. */
    static <T> String text(List<T> items, List<Integer> selected, Function<T, String> text) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < items.size(); i++) {
            if (selected.isEmpty() || selected.contains(i)) {
                all.append(text.apply(items.get(i))).append('\n');
            }
        }
        return all.toString();
    }

    static <T> ListView<T> list(List<T> items, String... styles) {
        ListView<T> list = new ListView<>();
        list.getItems().setAll(items);
        list.getStyleClass().addAll(styles);
        list.setAccessibleText(Words.of("detail.content"));
        list.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
        return list;
    }
}
