package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.desktop.WidgetTest;
import org.mendedleaf.desktop.widgets.KeptChildren.Child;
import org.testfx.api.FxToolkit;

/** A pane that is drawn again keeps the nodes of what is as it was, with what somebody is doing in them. */
class KeptChildrenTest extends WidgetTest {

    private final VBox pane = new VBox();
    private final KeptChildren kept = new KeptChildren(pane);

    @BeforeEach
    void onScreen() throws Exception {
        FxToolkit.setupSceneRoot(() -> pane);
        FxToolkit.showStage();
    }

    private static Child<TextField> field(String key) {
        return Child.of(key, () -> new TextField(key));
    }

    private void show(String... keys) {
        robot.interact(
                () -> kept.show(Arrays.stream(keys).map(KeptChildrenTest::field).toList()));
    }

    private List<String> shown() {
        return pane.getChildren().stream().map(n -> ((TextField) n).getText()).toList();
    }

    @Test
    void whatIsAsItWasKeepsItsNodeItsTextAndTheFocus() {
        show("a", "b", "c");
        TextField b = (TextField) pane.getChildren().get(1);
        robot.interact(() -> {
            b.requestFocus();
            b.setText("typed");
        });
        show("new", "b", "c", "a");
        assertThat(shown()).containsExactly("new", "typed", "c", "a");
        assertThat(pane.getChildren().get(1)).isSameAs(b);
        assertThat(Objects.requireNonNull(pane.getScene()).getFocusOwner()).isSameAs(b);
    }

    @Test
    void whatIsNotShownAnyMoreGoesAndIsMadeAnewWhenItComesBack() {
        show("a", "b");
        Node a = pane.getChildren().get(0);
        show("b");
        show("a", "b");
        assertThat(shown()).containsExactly("a", "b");
        assertThat(pane.getChildren().get(0)).isNotSameAs(a);
    }

    @Test
    void twoWithOneKeyHaveANodeEach() {
        show("a", "a");
        Node first = pane.getChildren().get(0);
        show("a", "a", "a");
        assertThat(pane.getChildren()).hasSize(3).doesNotHaveDuplicates().startsWith(first);
    }

    @Test
    void aNodeThatStaysSaysWhatItSaysNow() {
        Label label = new Label();
        robot.interact(() -> kept.show(List.of(new Child<>(1, () -> label, l -> l.setText("at 40 %")))));
        robot.interact(() -> kept.show(List.of(new Child<>(1, Label::new, l -> l.setText("at 50 %")))));
        assertThat(pane.getChildren()).containsExactly(label);
        assertThat(label.getText()).isEqualTo("at 50 %");
    }
}
