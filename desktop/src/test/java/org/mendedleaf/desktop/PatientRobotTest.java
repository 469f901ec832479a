package org.mendedleaf.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.layout.VBox;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;
import org.testfx.service.query.EmptyNodeQueryException;

class PatientRobotTest extends WidgetTest {

    private final List<String> pressed = new ArrayList<>();
    private final VBox box = new VBox();

    private Button button(String name) {
        Button b = new Button(name);
        b.setId("it");
        b.setOnAction(e -> pressed.add(name));
        return b;
    }

    private void show() throws Exception {
        FxToolkit.setupStage(stage -> {
            box.getChildren().setAll(button("first"));
            stage.setScene(new Scene(box, 200, 100));
            stage.show();
        });
    }

    @Test
    void whatIsDrawnAnewWhileItIsAimedAtIsLookedForAgain() throws Exception {
        show();
        int[] looks = {0};
        robot.clickOnFound(() -> {
            Button found = (Button) box.getChildren().get(0);
            if (looks[0]++ == 0) {
                robot.interact(() -> box.getChildren().setAll(button("second")));
            }
            return found;
        });
        assertThat(looks[0]).isEqualTo(2);
        assertThat(pressed).containsExactly("second");
    }

    @Test
    void whatIsNotThereIsSaidAfterALittleWhile() throws Exception {
        show();
        assertThatThrownBy(() -> robot.clickOn("#nowhere")).isInstanceOf(EmptyNodeQueryException.class);
        robot.clickOn("#it");
        assertThat(pressed).containsExactly("first");
    }
}
