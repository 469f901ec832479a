package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import org.junit.jupiter.api.Test;

/** A view that is made when it is shown for the first time. */
class LazyViewTest {

    private int made;
    private final LazyView<Pane> view = new LazyView<>(() -> {
        made++;
        return new Pane();
    });

    @Test
    void itIsMadeOnceAndNotBeforeSomebodyWantsIt() {
        StackPane over = new StackPane();
        assertThat(view.isIn(over)).isFalse();
        assertThat(made).isZero();
        over.getChildren().add(view.get());
        assertThat(view.get()).isSameAs(view.get());
        assertThat(made).isEqualTo(1);
        assertThat(view.isIn(over)).isTrue();
    }

    @Test
    void whatIsToBeDoneWithItWaitsForItInOrderAndIsDoneAtOnceLater() {
        List<String> done = new ArrayList<>();
        view.whenMade(v -> done.add("one"));
        view.whenMade(v -> done.add("two"));
        assertThat(done).isEmpty();
        view.get();
        assertThat(done).containsExactly("one", "two");
        view.whenMade(v -> done.add("three"));
        view.get();
        assertThat(done).containsExactly("one", "two", "three");
    }
}
