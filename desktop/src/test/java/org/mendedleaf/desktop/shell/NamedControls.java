package org.mendedleaf.desktop.shell;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollBar;
import javafx.scene.control.TabPane;

/** What a screen reader has to say of everything that takes the keys: a name and a role. */
final class NamedControls {

    private final List<String> nameless = new ArrayList<>();
    private int named;

    private NamedControls() {}

    /** Looks at everything that is shown below a node; on the thread of the window. */
    static NamedControls of(Node root) {
        NamedControls all = new NamedControls();
        all.walk(root);
        return all;
    }

    /** What has no name or no role. */
    List<String> nameless() {
        return nameless;
    }

    /** How many have both. */
    int named() {
        return named;
    }

    private void walk(Node node) {
        if (!node.isVisible()) {
            return;
        }
        if (node.isFocusTraversable() && !(node instanceof ScrollBar)) {
            if (name(node).isBlank()) {
                nameless.add(node.getClass().getSimpleName() + " " + node.getId() + " " + node.getStyleClass() + " in "
                        + node.getParent().getStyleClass());
            } else if (node.getAccessibleRole() == AccessibleRole.NODE
                    || node.getAccessibleRole() == AccessibleRole.PARENT) {
                nameless.add("no role: " + node.getClass().getSimpleName() + " " + node.getId());
            } else {
                named++;
            }
        }
        if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(this::walk);
        }
    }

    /** What is read of a node: the name that was given to it, the words on a button, or the label that stands for it. */
    private static String name(Node node) {
        if (node.getAccessibleText() != null) {
            return node.getAccessibleText();
        }
        if (node instanceof ButtonBase button) {
            return button.getText() == null ? "" : button.getText();
        }
        if (node instanceof javafx.scene.control.Labeled labeled
                && !labeled.getText().isEmpty()) {
            return labeled.getText();
        }
        if (node instanceof TabPane) {
            return "tabs";
        }
        Object label = node.queryAccessibleAttribute(AccessibleAttribute.LABELED_BY);
        return label instanceof Label words ? words.getText() : "";
    }
}
