package org.mendedleaf.desktop.shell;

import java.io.IOException;
import java.util.List;
import javafx.application.Application;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.tray.TrayProgram;

/** Starts the desktop. The launching class must not be the application itself when JavaFX is on the class path. */
public final class Launch {

    private Launch() {}

    /** Starts it, or the tray icon, where that is asked for. */
    public static void main(String[] arguments) throws Exception {
        if (List.of(arguments).contains(TrayControl.ARGUMENT)) {
            TrayProgram.main(arguments);
            return;
        }
        try {
            scale(UserSettings.of(System.getenv()).scale());
        } catch (IOException | RuntimeException e) {
            // What is wrong with the settings is said by the window, in its usual size.
            org.slf4j.LoggerFactory.getLogger(Launch.class).debug("the usual size", e);
        }
        Application.launch(App.class, arguments);
    }

    /** Makes everything as large as was chosen; the toolkit asks for that before it starts, under one name for each system. */
    static void scale(int percent) {
        if (percent > 0) {
            for (String system : new String[] {"gtk", "win"}) {
                System.setProperty("glass." + system + ".uiScale", percent + "%");
            }
        }
    }
}
