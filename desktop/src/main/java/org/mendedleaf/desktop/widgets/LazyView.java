package org.mendedleaf.desktop.widgets;

import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import org.jspecify.annotations.Nullable;

/**
 * A view that is made when it is shown for the first time, so that a window is there sooner.
 *
 * @param <V> its class
 */
public final class LazyView<V extends Node> {

    private final Supplier<V> making;
    private Consumer<V> first = made -> {};
    private @Nullable V view;

    /** A view that is made so. */
    public LazyView(Supplier<V> making) {
        this.making = making;
    }

    /** The view, made now if it was not there. */
    public V get() {
        V there = view;
        if (there == null) {
            there = making.get();
            view = there;
            first.accept(there);
        }
        return there;
    }

    /** Does something with the view: now if it is there, otherwise once it is made. */
    public void whenMade(Consumer<V> what) {
        V there = view;
        if (there != null) {
            what.accept(there);
        } else {
            first = first.andThen(what);
        }
    }

    /** Whether it is there and shown in this pane. */
    public boolean isIn(Pane pane) {
        V there = view;
        return there != null && pane.getChildren().contains(there);
    }
}
