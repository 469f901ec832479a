package org.mendedleaf.desktop.shell;

import javafx.scene.Node;
import javafx.scene.input.MouseButton;
import org.testfx.api.FxRobot;
import org.testfx.api.FxRobotInterface;
import org.testfx.util.WaitForAsyncUtils;

/**
 * A hand that aims again when what it aimed at was drawn anew in that moment, as people do without noticing. Nothing was pressed by
 * then; a click that has begun is not repeated.
 */
final class PatientRobot extends FxRobot {

    private static final int TRIES = 5;

    @Override
    public FxRobotInterface clickOn(String query, MouseButton... buttons) {
        for (int i = 1; i < TRIES; i++) {
            WaitForAsyncUtils.waitForFxEvents();
            Node node = lookup(query).query();
            try {
                return clickOn(node, buttons);
            } catch (RuntimeException e) {
                if (node.getScene() != null) {
                    throw e;
                }
            }
        }
        return super.clickOn(query, buttons);
    }
}
