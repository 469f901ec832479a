package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.StackPane;
import javafx.stage.Window;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.desktop.PatientRobot;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** What is said of what is pointed at. */
class HintTest {

    private final FxRobot robot = new PatientRobot();
    private final Button button = new Button("Save");
    private final AtomicReference<String> shown = new AtomicReference<>("");

    @BeforeAll
    static void toolkit() throws Exception {
        FxToolkit.registerPrimaryStage();
    }

    @BeforeEach
    void window() throws Exception {
        FxToolkit.setupStage(stage -> {
            stage.setScene(new Scene(new StackPane(button), 300, 200));
            stage.show();
        });
    }

    @Test
    void theWordsAreShownToWhoPointsThereAndNoWindowIsMadeBefore() throws Exception {
        run(() -> Ui.tooltip(button, "Keeps what is there"));
        assertThat(button.getTooltip()).isNull();
        assertThat(button.getAccessibleHelp()).isEqualTo("Keeps what is there");
        robot.moveTo(10, 10);
        robot.moveTo(button);
        assertThat(waitForWords()).isEqualTo("Keeps what is there");

        run(() -> Ui.tooltip(button, "Keeps it once more"));
        assertThat(tooltips()).extracting(Tooltip::getText).containsExactly("Keeps it once more");
    }

    @Test
    void whereNothingIsSaidAnyMoreNothingIsShown() throws Exception {
        run(() -> Ui.tooltip(button, "Keeps what is there"));
        robot.moveTo(button);
        waitForWords();
        robot.moveTo(10, 10);
        run(() -> Ui.tooltip(button, ""));
        assertThat(button.getAccessibleHelp()).isNull();
        assertThat(button.getProperties()).doesNotContainKey(Hint.class);
        robot.moveTo(button);
        Thread.sleep(1500);
        assertThat(tooltips()).isEmpty();
    }

    @Test
    void aNameIsNotReadTwice() throws Exception {
        run(() -> Ui.name(button, "Save"));
        assertThat(button.getAccessibleText()).isEqualTo("Save");
        assertThat(button.getAccessibleHelp()).isNull();
    }

    private String waitForWords() throws Exception {
        WaitForAsyncUtils.waitFor(20, java.util.concurrent.TimeUnit.SECONDS, () -> {
            List<Tooltip> there = tooltips();
            if (!there.isEmpty()) {
                shown.set(there.get(0).getText());
            }
            return !there.isEmpty();
        });
        return shown.get();
    }

    private static List<Tooltip> tooltips() {
        return List.copyOf(Window.getWindows()).stream()
                .filter(w -> w instanceof Tooltip && w.isShowing())
                .map(Tooltip.class::cast)
                .toList();
    }

    private void run(Runnable work) throws Exception {
        WaitForAsyncUtils.asyncFx(work).get();
    }
}
