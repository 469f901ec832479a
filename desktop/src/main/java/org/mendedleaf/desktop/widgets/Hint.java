package org.mendedleaf.desktop.widgets;

import javafx.event.EventHandler;
import javafx.scene.Node;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import org.jspecify.annotations.Nullable;

/**
 * What is said of something that is pointed at. The toolkit makes a window for each tooltip, with a scene of its own; here it is made when
 * somebody points there for the first time. Until then the words are there for who reads the screen aloud.
 */
final class Hint implements EventHandler<MouseEvent> {

    private final Node node;
    private String words;
    private @Nullable Tooltip tooltip;

    private Hint(Node node, String words) {
        this.node = node;
        this.words = words;
    }

    /** Says these words of a node, others than before, or none where they are empty or {@code null}. */
    static void put(Node node, @Nullable String words) {
        @Nullable
        Hint there = node.hasProperties() ? (Hint) node.getProperties().get(Hint.class) : null;
        if (words == null || words.isEmpty()) {
            node.setAccessibleHelp(null);
            if (there != null) {
                there.remove();
            }
            return;
        }
        node.setAccessibleHelp(words.equals(node.getAccessibleText()) ? null : words);
        if (there != null) {
            there.say(words);
        } else {
            Hint hint = new Hint(node, words);
            node.getProperties().put(Hint.class, hint);
            node.addEventHandler(MouseEvent.MOUSE_ENTERED, hint);
        }
    }

    /** The tooltip is there before the move that brought the pointer here is told, and hears of it. */
    @Override
    public void handle(MouseEvent entered) {
        if (tooltip == null) {
            Tooltip made = new Tooltip(words);
            // A key that is pressed meanwhile still does what it does.
            made.setConsumeAutoHidingEvents(false);
            Tooltip.install(node, made);
            tooltip = made;
        }
    }

    private void say(String other) {
        words = other;
        if (tooltip != null) {
            tooltip.setText(other);
        }
    }

    private void remove() {
        node.getProperties().remove(Hint.class);
        node.removeEventHandler(MouseEvent.MOUSE_ENTERED, this);
        if (tooltip != null) {
            Tooltip.uninstall(node, tooltip);
        }
    }
}
