package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import org.junit.jupiter.api.Test;
import org.mendedleaf.desktop.WidgetTest;
import org.testfx.api.FxToolkit;

/** What somebody is about to click in a menu does not go away under the pointer. */
class OpenMenuTest extends WidgetTest {

    private final List<String> chosen = new ArrayList<>();
    private final MenuButton menu = new MenuButton("Menu");

    private void fill(String words) {
        Ui.refill(menu, () -> {
            MenuItem item = new MenuItem(words);
            item.setOnAction(e -> chosen.add(words));
            menu.getItems().setAll(item);
        });
    }

    private List<String> offered() {
        return menu.getItems().stream().map(MenuItem::getText).toList();
    }

    @Test
    void aMenuThatIsOpenIsFilledAnewOnceItIsClosed() throws Exception {
        FxToolkit.setupSceneRoot(() -> menu);
        FxToolkit.showStage();
        robot.interact(() -> fill("first"));
        assertThat(offered()).containsExactly("first");
        robot.clickOn(menu);
        assertThat(menu.isShowing()).isTrue();
        robot.interact(() -> {
            fill("second");
            fill("third");
        });
        assertThat(offered()).as("while it is open").containsExactly("first");
        robot.clickOn("first");
        assertThat(chosen).containsExactly("first");
        assertThat(menu.isShowing()).isFalse();
        assertThat(offered()).as("the newest of what came meanwhile").containsExactly("third");
        robot.clickOn(menu).clickOn("third");
        assertThat(chosen).containsExactly("first", "third");
    }
}
