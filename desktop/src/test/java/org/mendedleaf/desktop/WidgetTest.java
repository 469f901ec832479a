package org.mendedleaf.desktop;

import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.testfx.api.FxToolkit;

/** Parts of screens alone in a window, without the program around them. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
public abstract class WidgetTest {

    protected final PatientRobot robot = new PatientRobot();

    @BeforeAll
    static void toolkit() throws Exception {
        FxToolkit.registerPrimaryStage();
    }

    @AfterEach
    void cleanUp() throws Exception {
        FxToolkit.cleanupStages();
    }
}
