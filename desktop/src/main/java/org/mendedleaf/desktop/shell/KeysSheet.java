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
            "find",
            "restore",
            "copy",
            "undo",
            "redo",
            "remove",
            "rename",
            "clipboard",
            "putIn",
            "paste",
            "tick",
            "recover",
            "rollBack",
            "compare",
            "modes",
            "reading",
            "versions",
            "changes",
            "within",
            "order",
            "steps",
            "ruler",
            "ends",
            "zoom",
            "now",
            "enter",
            "up",
            "look",
            "theme",
            "guide",
            "help");

    KeysSheet() {
        getStyleClass().add("veil");
        setId("keys");
        GridPane grid = new GridPane();
        grid.getStyleClass().add("form");
        // In two columns: there are more of them than a small window is high.
        int half = (KEYS.size() + 1) / 2;
        for (int i = 0; i < KEYS.size(); i++) {
            String key = KEYS.get(i);
            int column = i < half ? 0 : 2;
            grid.add(Ui.label(Words.of("keys." + key + ".key"), "key-cap"), column, i % half);
            grid.add(Ui.label(Words.of("keys." + key)), column + 1, i % half);
        }
        VBox sheet = new VBox(14, Ui.label(Words.of("keys.title"), "big-title"), grid);
        sheet.getStyleClass().addAll("sheet", "keys-sheet");
        sheet.setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
        setAlignment(Pos.CENTER);
        getChildren().add(sheet);
        // Hidden, it must not ask for space.
        setMinSize(0, 0);
        setVisible(false);
        setOnMouseClicked(e -> toggle());
    }

    void toggle() {
        setVisible(!isVisible());
    }
}
