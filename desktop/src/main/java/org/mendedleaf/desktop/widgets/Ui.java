package org.mendedleaf.desktop.widgets;

import java.time.LocalTime;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.ObservableValue;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Small parts that all screens are made of. */
public final class Ui {

    private static final double NARROW = 720;

    /** About what a letter takes in a row of a table. */
    private static final double LETTER = 8;

    private static final Object REFILL = new Object();

    private Ui() {}

    /**
     * How wide a column is that holds moments.
     *
     * @param width where hours are counted to 24; where AM or PM follow them, it is wider
     */
    public static double moment(double width) {
        int more = Formats.time(LocalTime.of(22, 0)).length() - "22:00".length();
        return width + more * LETTER;
    }

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

    /** A button that looks like words. */
    public static Button plainButton(String words, Runnable action, String... styles) {
        Button button = new Button(words);
        button.getStyleClass().add("flat");
        button.getStyleClass().addAll(styles);
        button.setOnAction(e -> action.run());
        return button;
    }

    /** What is said of something that is pointed at; nothing where there are no words. */
    public static void tooltip(Node node, @Nullable String words) {
        Hint.put(node, words);
    }

    /** Gives a control its accessible name and tooltip. */
    public static void name(ButtonBase control, String words) {
        control.setAccessibleText(words);
        tooltip(control, words);
    }

    /**
     * Fills a menu anew. One that is open is left as it is until it is closed: what somebody is about to click must not go away under the
     * pointer.
     */
    public static void refill(MenuButton menu, Runnable fill) {
        if (!menu.isShowing()) {
            fill.run();
        } else if (menu.getProperties().put(REFILL, fill) == null) {
            menu.showingProperty().addListener(new ChangeListener<>() {
                @Override
                public void changed(ObservableValue<? extends Boolean> showing, Boolean was, Boolean is) {
                    if (!is) {
                        menu.showingProperty().removeListener(this);
                        ((Runnable) menu.getProperties().remove(REFILL)).run();
                    }
                }
            });
        }
    }

    /** Space that grows. */
    public static Region spacer() {
        Region region = new Region();
        HBox.setHgrow(region, Priority.ALWAYS);
        return region;
    }

    /** A sheet with a few sentences or fields at the left of a screen, no wider than can be read. */
    public static Region narrow(Region body) {
        body.getStyleClass().addAll("place-body", "sheet");
        body.setMaxWidth(NARROW);
        body.setMaxHeight(Region.USE_PREF_SIZE);
        BorderPane.setAlignment(body, Pos.TOP_LEFT);
        BorderPane.setMargin(body, new Insets(0, 24, 14, 24));
        return body;
    }

    /** Shows a node and gives it space, or neither. */
    public static void visible(Node node, boolean visible) {
        node.setVisible(visible);
        node.setManaged(visible);
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
