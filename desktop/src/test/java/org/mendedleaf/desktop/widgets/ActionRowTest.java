package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.layout.Region;
import org.junit.jupiter.api.Test;

/** Buttons in a row: each is read whole, whatever the width, and they go on in the next row. */
class ActionRowTest {

    private final Region save = button(50, 20);
    private final Region put = button(60, 30);
    private final Region remove = button(40, 20);
    private final ActionRow row = new ActionRow(save, put).right(remove);

    private static Region button(double width, double height) {
        Region button = new Region();
        button.setPrefSize(width, height);
        button.setMaxSize(Region.USE_PREF_SIZE, Region.USE_PREF_SIZE);
        return button;
    }

    private void width(double width) {
        row.resize(width, row.prefHeight(width));
        row.layout();
    }

    private static void at(Node node, double x, double y) {
        assertThat(node.getLayoutX()).as("x").isEqualTo(x);
        assertThat(node.getLayoutY()).as("y").isEqualTo(y);
    }

    @Test
    void withSpaceForAllTheyStandInOneRowAndTheLastAtItsRightEnd() {
        width(300);
        at(save, 0, 5);
        at(put, 57, 0);
        at(remove, 260, 5);
        assertThat(row.getHeight()).isEqualTo(30);
    }

    @Test
    void whereTheyDoNotFitTheyGoOnInTheNextRow() {
        width(120);
        at(save, 0, 5);
        at(put, 57, 0);
        at(remove, 0, 37);
        assertThat(row.getHeight()).isEqualTo(57);
        width(70);
        at(save, 0, 0);
        at(put, 0, 27);
        at(remove, 0, 64);
        assertThat(row.getHeight()).isEqualTo(84);
    }

    @Test
    void itAsksForOneRowAndTakesNoLessThanItsWidestButton() {
        assertThat(row.prefWidth(-1)).isEqualTo(164);
        assertThat(row.prefHeight(-1)).isEqualTo(30);
        assertThat(row.minWidth(-1)).isEqualTo(60);
        assertThat(row.minHeight(70)).isEqualTo(84);
    }

    @Test
    void aButtonThatIsNotThereLeavesNoGap() {
        put.setManaged(false);
        put.setVisible(false);
        width(300);
        at(save, 0, 0);
        at(remove, 260, 0);
        assertThat(row.prefWidth(-1)).isEqualTo(97);
    }

    @Test
    void aButtonThatIsWiderThanTheRowIsGivenAllOfIt() {
        Region wide = button(400, 20);
        ActionRow alone = new ActionRow(wide);
        alone.resize(200, 20);
        alone.layout();
        assertThat(wide.getWidth()).as("its least width is its own").isEqualTo(400);
        assertThat(alone.minWidth(-1)).isEqualTo(400);
    }

    @Test
    void whatIsAroundTheRowIsLeftFree() {
        row.setPadding(new Insets(3, 10, 4, 20));
        width(300);
        at(save, 20, 8);
        at(remove, 250, 8);
        assertThat(row.prefWidth(-1)).isEqualTo(194);
        assertThat(row.prefHeight(-1)).isEqualTo(37);
    }

    @Test
    void anEmptyRowTakesNoSpace() {
        ActionRow empty = new ActionRow();
        assertThat(empty.prefWidth(-1)).isZero();
        assertThat(empty.prefHeight(-1)).isZero();
        assertThat(empty.minWidth(-1)).isZero();
    }
}
