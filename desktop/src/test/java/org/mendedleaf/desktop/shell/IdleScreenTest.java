package org.mendedleaf.desktop.shell;

import java.time.Instant;
import java.util.concurrent.atomic.AtomicInteger;
import javafx.scene.Scene;
import javafx.scene.control.TableView;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** A window in which nothing happens draws nothing. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class IdleScreenTest extends WindowTest {

    /** A text field that has the keys lets its caret blink, twice a second. */
    private static final int BLINKS = 4;

    private static final long SECOND = 1000;

    private final AtomicInteger pulses = new AtomicInteger();

    @Test
    void noScreenIsLaidOutWhileNothingHappens() throws Exception {
        fill();
        show();
        select("ledger.csv");
        Scene scene = robot.lookup("#listing").query().getScene();
        robot.interact(() -> scene.addPostLayoutPulseListener(pulses::incrementAndGet));
        quiet("Files");
        robot.interact(
                () -> app.shell().files().momentProperty().set(Instant.now().minusSeconds(2 * 86_400)));
        quiet("Files in the past");
        robot.clickOn("#tab-protection");
        eventually("a folder", () -> !table("#coverage").getItems().isEmpty());
        robot.interact(() -> table("#coverage").getSelectionModel().select(0));
        eventually("the curve", () -> visible("#forecast-chart"));
        quiet("Protection");
        robot.clickOn("#tab-retention");
        for (String part : new String[] {"space", "rules", "holds", "removed", "waiting"}) {
            eventually(part, () -> visible("#retention-" + part));
            robot.clickOn("#retention-" + part);
            quiet("Retention, " + part);
        }
    }

    private TableView<?> table(String id) {
        return robot.lookup(id).queryTableView();
    }

    /** Nothing is laid out for a second, but for a caret; what is still being looked up may come before that. */
    private void quiet(String screen) {
        try {
            eventually(screen + " to come to rest", () -> {
                int before = pulses.get();
                Thread.sleep(SECOND);
                return pulses.get() - before <= BLINKS;
            });
        } catch (AssertionError e) {
            throw new AssertionError(e.getMessage() + "; windows: " + windows(), e);
        }
    }

    /** What is shown, and what has the focus, for the story of a failure. */
    private static String windows() {
        StringBuilder words = new StringBuilder();
        javafx.stage.Window.getWindows()
                .forEach(w -> words.append(w)
                        .append(" with ")
                        .append(w.getScene() == null ? "nothing" : w.getScene().getFocusOwner())
                        .append("; "));
        return words.toString();
    }
}
