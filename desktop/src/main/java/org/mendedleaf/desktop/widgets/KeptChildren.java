package org.mendedleaf.desktop.widgets;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import org.jspecify.annotations.Nullable;

/**
 * The children of a pane that is drawn again whenever something changes behind it. What is to be shown as it was keeps
 * its node: a click that has begun on it is still a click, the keyboard's focus stays, and a menu that is open stays
 * open.
 *
 * <pre>{@code
 * KeptChildren kept = new KeptChildren(pane);
 * kept.show(rows.stream().map(r -> Child.of(r, () -> line(r))).toList());
 * }</pre>
 */
public final class KeptChildren {

    private final Pane pane;
    private final Map<Object, Deque<Node>> shown = new HashMap<>();

    /**
     * A child.
     *
     * @param <N> its node
     * @param key all that the node is made from; by equality
     * @param make makes it, where there is none yet for the key
     * @param update has it say what it says now; each time
     */
    public record Child<N extends Node>(Object key, Supplier<N> make, Consumer<N> update) {

        /** A child that says the same as long as its key is the same. */
        public static <N extends Node> Child<N> of(Object key, Supplier<N> make) {
            return new Child<>(key, make, n -> {});
        }

        @SuppressWarnings("unchecked") // Nodes of a key are made by children of that key.
        private Node node(@Nullable Node kept) {
            N node = kept == null ? make.get() : (N) kept;
            update.accept(node);
            return node;
        }
    }

    /** The children of a pane, all of them. */
    public KeptChildren(Pane pane) {
        this.pane = pane;
    }

    /** Shows these and no others, in this order. Two with one key have a node each. */
    public void show(List<? extends Child<?>> all) {
        Map<Object, Deque<Node>> before = new HashMap<>(shown);
        shown.clear();
        List<Node> nodes = new ArrayList<>(all.size());
        for (Child<?> child : all) {
            Deque<Node> same = before.get(child.key());
            Node node = child.node(same == null ? null : same.poll());
            shown.computeIfAbsent(child.key(), k -> new ArrayDeque<>()).add(node);
            nodes.add(node);
        }
        if (nodes.equals(pane.getChildren())) {
            return;
        }
        // One after the other: a node that is taken out for a moment would lose its focus.
        pane.getChildren().removeIf(n -> !nodes.contains(n));
        for (int i = 0; i < nodes.size(); i++) {
            if (i == pane.getChildren().size() || pane.getChildren().get(i) != nodes.get(i)) {
                pane.getChildren().remove(nodes.get(i));
                pane.getChildren().add(i, nodes.get(i));
            }
        }
    }
}
