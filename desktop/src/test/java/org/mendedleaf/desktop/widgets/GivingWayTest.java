package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.Pane;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.desktop.WidgetTest;
import org.testfx.api.FxToolkit;

/** Columns of a table that is too narrow give way in their order, and what somebody hid stays hidden. */
class GivingWayTest extends WidgetTest {

    private final AtomicReference<TableView<String>> table = new AtomicReference<>();
    private TableColumn<String, String> name;
    private TableColumn<String, String> size;
    private TableColumn<String, String> who;

    @BeforeEach
    void show() throws Exception {
        FxToolkit.setupSceneRoot(() -> {
            name = column("Name", 200);
            size = column("Size", 100);
            who = column("Who", 100);
            TableView<String> made = new TableView<>();
            made.getColumns().setAll(List.of(name, size, who));
            GivingWay.inOrder(made, made::getColumns, List.of(who, size));
            table.set(made);
            // Not laid out by what is around it: its width is what the test says.
            return new Pane(made);
        });
        FxToolkit.showStage();
    }

    private static TableColumn<String, String> column(String title, double least) {
        TableColumn<String, String> column = new TableColumn<>(title);
        column.setMinWidth(least);
        return column;
    }

    private void width(double width) {
        robot.interact(() -> {
            TableView<String> shown = Objects.requireNonNull(table.get());
            shown.setMinWidth(width);
            shown.setMaxWidth(width);
            shown.resize(width, 200);
        });
    }

    @Test
    void theFirstToGiveWayGoesFirstAndComesBackLast() {
        width(500);
        assertThat(List.of(name.isVisible(), size.isVisible(), who.isVisible())).containsExactly(true, true, true);
        width(350);
        assertThat(List.of(name.isVisible(), size.isVisible(), who.isVisible())).containsExactly(true, true, false);
        assertThat(GivingWay.gaveWay(who)).isTrue();
        width(250);
        assertThat(List.of(name.isVisible(), size.isVisible(), who.isVisible())).containsExactly(true, false, false);
        width(350);
        assertThat(size.isVisible()).isTrue();
        assertThat(who.isVisible()).isFalse();
        width(500);
        assertThat(who.isVisible()).isTrue();
        assertThat(GivingWay.gaveWay(who)).isFalse();
    }

    @Test
    void whatNobodySaidMayGiveWayStaysHoweverNarrowItIs() {
        width(60);
        assertThat(name.isVisible()).isTrue();
    }

    @Test
    void aColumnThatSomebodyHidStaysHiddenWhenThereIsSpace() {
        width(500);
        robot.interact(() -> size.setVisible(false));
        width(350);
        assertThat(who.isVisible())
                .as("without that column there is space for this one")
                .isTrue();
        width(250);
        width(500);
        assertThat(size.isVisible()).isFalse();
        assertThat(GivingWay.gaveWay(size)).isFalse();
        assertThat(who.isVisible()).isTrue();
    }
}
