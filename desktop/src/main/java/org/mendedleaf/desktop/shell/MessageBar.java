package org.mendedleaf.desktop.shell;

import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.desktop.files.FilesModel;
import org.mendedleaf.desktop.files.Offer;
import org.mendedleaf.desktop.widgets.Ui;

/** Says what was done, and offers to undo it, or to take an undoing back. It stands in the status bar, and moves nothing. */
final class MessageBar extends HBox {

    /**
     * The bar.
     *
     * @param help leads to the page of the guide for a message
     */
    MessageBar(FilesModel files, Consumer<String> help) {
        super(12);
        getStyleClass().add("message-bar");
        setAlignment(Pos.CENTER_LEFT);
        Label words = Ui.label("", "message-words");
        words.setId("message");
        words.setWrapText(true);
        words.setMinWidth(0);
        words.setMaxHeight(Double.MAX_VALUE);
        Button undo = Ui.button("message.undo", files::undo, "small");
        undo.setId("undo");
        Button redo = Ui.button("message.redo", files::redo, "small");
        redo.setId("redo");
        undo.setMinWidth(USE_PREF_SIZE);
        redo.setMinWidth(USE_PREF_SIZE);
        Button about = Ui.button("message.help", () -> help.accept(words.getText()), "small", "flat");
        about.setId("message-help");
        about.setMinWidth(USE_PREF_SIZE);
        Button dismiss = Ui.iconButton(Feather.X, "message.dismiss", files::dismiss);
        dismiss.setId("message-dismiss");
        dismiss.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(words, undo, redo, about, Ui.spacer(), dismiss);
        Ui.visible(this, false);
        files.messageProperty().addListener((o, a, m) -> {
            words.setText(m.words());
            Ui.visible(undo, m.undo());
            Ui.visible(redo, m.offer() == Offer.REDO);
            Ui.visible(about, m.failed());
            Ui.style(this, "message-failed", m.failed());
            Ui.tooltip(words, m.words());
            Ui.visible(this, !m.words().isEmpty());
        });
    }
}
