package org.mendedleaf.core.notices;

import java.io.IOException;
import org.mendedleaf.core.settings.UserSettings;

/**
 * How somebody wants to be told.
 *
 * @param desktop whether by notices of the desktop
 * @param quiet when not
 */
public record NoticeSettings(boolean desktop, QuietHours quiet) {

    private static final String DESKTOP = "notices";
    private static final String QUIET = "quiet";

    /** As somebody chose, or the standard. */
    public static NoticeSettings of(UserSettings home) {
        String quiet = home.chosen(QUIET);
        QuietHours hours;
        try {
            hours = quiet.isEmpty() ? QuietHours.DEFAULT : QuietHours.parse(quiet);
        } catch (IllegalArgumentException e) {
            hours = QuietHours.DEFAULT;
        }
        return new NoticeSettings(!home.chosen(DESKTOP).equals("off"), hours);
    }

    /** Chooses this. */
    public void save(UserSettings home) throws IOException {
        home.choose(DESKTOP, desktop ? "on" : "off");
        home.choose(QUIET, quiet.text());
        home.save();
    }
}
