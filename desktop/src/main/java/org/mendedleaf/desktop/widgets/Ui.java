package org.mendedleaf.desktop.widgets;

import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import org.mendedleaf.core.words.Words;

/** Small parts that all screens are made of. */
public final class Ui {

    private Ui() {}

    /** A label with these style classes. */
    public static Label label(String text, String... styles) {
        Label label = new Label(text);
        label.getStyleClass().addAll(styles);
        return label;
    }

    /** A button with words. */
    public static Button button(String key, Runnable action, String... styles) {
        Button button = new Button(Words.of(key));
        button.getStyleClass().addAll(styles);
        button.setOnAction(e -> action.run());
        return button;
    }

    /** A button with an icon only; its words are its tooltip and its accessible name. */
    public static Button iconButton(Feather icon, String key, Runnable action) {
        Button button = new Button();
        button.setGraphic(new FontIcon(icon));
        button.getStyleClass().addAll("icon-button", "flat");
        button.setOnAction(e -> action.run());
        name(button, Words.of(key));
        return button;
    }

    /** Gives a control its accessible name and tooltip. */
    public static void name(ButtonBase control, String words) {
        control.setAccessibleText(words);
        control.setTooltip(new Tooltip(words));
    }

    /** Room that grows. */
    public static Region spacer() {
        Region region = new Region();
        HBox.setHgrow(region, Priority.ALWAYS);
        return region;
    }

    /** Shows a node and gives it room, or neither. */
    public static void visible(Node node, boolean visible) {
        node.setVisible(visible);
        node.setManaged(visible);
    }

    /** Puts a tooltip on a label, or takes it away. */
    public static void tooltip(Label label, @Nullable String words) {
        label.setTooltip(words == null || words.isEmpty() ? null : new Tooltip(words));
    }

    /** Sets or clears one style class. */
    public static void style(Node node, String style, boolean on) {
        if (on && !node.getStyleClass().contains(style)) {
            node.getStyleClass().add(style);
        } else if (!on) {
            node.getStyleClass().remove(style);
        }
    }
}
