package org.mendedleaf.desktop.intake;

import java.util.function.BiConsumer;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.Dragboard;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import org.mendedleaf.desktop.widgets.Ui;

/** Moves a row of a family to the place of another one by dragging. */
final class RowDrag {

    private RowDrag() {}

    /**
     * Lets a row be dragged, and others be dropped on it.
     *
     * @param move takes from where to where
     */
    static void on(HBox row, int family, int at, BiConsumer<Integer, Integer> move) {
        row.setOnDragDetected(e -> {
            Dragboard board = row.startDragAndDrop(TransferMode.MOVE);
            ClipboardContent content = new ClipboardContent();
            content.putString(family + " " + at);
            board.setContent(content);
            e.consume();
        });
        row.setOnDragOver(e -> {
            if (from(e.getDragboard(), family) >= 0) {
                e.acceptTransferModes(TransferMode.MOVE);
            }
            e.consume();
        });
        row.setOnDragEntered(e -> Ui.style(row, "drop-here", from(e.getDragboard(), family) >= 0));
        row.setOnDragExited(e -> Ui.style(row, "drop-here", false));
        row.setOnDragDropped(e -> {
            int from = from(e.getDragboard(), family);
            e.setDropCompleted(from >= 0);
            e.consume();
            if (from >= 0) {
                // The rows are made anew; not while this one is still in the drag.
                javafx.application.Platform.runLater(() -> move.accept(from, at));
            }
        });
    }

    /** Where in this family a dragged row was; -1 when it is none of it. */
    private static int from(Dragboard board, int family) {
        String text = board.hasString() ? board.getString() : "";
        return text.matches(family + " \\d{1,6}") ? Integer.parseInt(text.substring(text.indexOf(' ') + 1)) : -1;
    }
}
