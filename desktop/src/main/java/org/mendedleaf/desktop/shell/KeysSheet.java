package org.mendedleaf.desktop.shell;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Lists the keys. */
final class KeysSheet extends StackPane {

    private static final List<String> KEYS = List.of(
            "tabs",
            "restore",
            "copy",
            "undo",
            "tick",
            "recover",
            "rollBack",
            "compare",
            "modes",
            "steps",
            "ruler",
            "ends",
            "zoom",
            "now",
            "enter",
            "up",
            "look",
            "theme",
            "help");

    KeysSheet() {
        getStyleClass().add("veil");
        setId("keys");
        GridPane grid = new GridPane();
        grid.getStyleClass().add("form");
        int row = 0;
        for (String key : KEYS) {
            grid.addRow(
                    row++, Ui.label(Words.of("keys." + key + ".key"), "key-cap"), Ui.label(Words.of("keys." + key)));
        }
        VBox sheet = new VBox(14, Ui.label(Words.of("keys.title"), "big-title"), grid);
        sheet.getStyleClass().addAll("sheet", "keys-sheet");
        sheet.setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
        setAlignment(Pos.CENTER);
        getChildren().add(sheet);
        setVisible(false);
        setOnMouseClicked(e -> toggle());
    }

    void toggle() {
        setVisible(!isVisible());
    }
}
