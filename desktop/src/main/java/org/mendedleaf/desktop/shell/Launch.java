package org.mendedleaf.desktop.shell;

import javafx.application.Application;

/** Starts the desktop. The launching class must not be the application itself when JavaFX is on the class path. */
public final class Launch {

    private Launch() {}

    /** Starts it. */
    public static void main(String[] arguments) {
        Application.launch(App.class, arguments);
    }
}
