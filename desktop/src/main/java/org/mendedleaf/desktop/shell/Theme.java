package org.mendedleaf.desktop.shell;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import java.net.URL;
import java.util.Objects;
import javafx.application.Application;
import javafx.scene.Scene;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.settings.UserSettings;

/** Light or dark, remembered. */
public final class Theme {

    private static final String BASE = "/org/mendedleaf/desktop/leaf.css";
    private static final String DARK = "/org/mendedleaf/desktop/leaf-dark.css";

    private final UserSettings home;
    private @Nullable Scene scene;
    private boolean dark;

    Theme(UserSettings home) {
        this.home = home;
        this.dark = home.remembered("theme").equals("dark");
    }

    void apply(Scene to) {
        scene = to;
        Application.setUserAgentStylesheet(baseTheme(dark));
        to.getStylesheets().setAll(sheet(BASE));
        if (dark) {
            to.getStylesheets().add(sheet(DARK));
        }
    }

    /** The base theme as the build makes it, shorter and binary; as its library brings it where the build did not. */
    static String baseTheme(boolean dark) {
        URL made = Theme.class.getResource(
                dark ? "/org/mendedleaf/desktop/primer-dark.bss" : "/org/mendedleaf/desktop/primer-light.bss");
        if (made != null) {
            return made.toExternalForm();
        }
        return dark ? new PrimerDark().getUserAgentStylesheet() : new PrimerLight().getUserAgentStylesheet();
    }

    private static String sheet(String path) {
        URL url = Objects.requireNonNull(Theme.class.getResource(path), path);
        return url.toExternalForm();
    }

    /** Changes from light to dark and back. */
    public void toggle() {
        dark = !dark;
        home.remember("theme", dark ? "dark" : "light");
        Scene now = scene;
        if (now != null) {
            apply(now);
        }
    }
}
