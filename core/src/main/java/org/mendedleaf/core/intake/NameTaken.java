package org.mendedleaf.core.intake;

import java.util.Locale;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;

/** What becomes of a file that is put in where one has its name. */
public enum NameTaken {
    /** It becomes the next version. */
    VERSION,
    /** It gets a number and stands beside it. */
    KEEP_BOTH,
    /** It is left out. */
    SKIP;

    /** How it is written on the command line and in settings. */
    public String text() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** What a place is set to. */
    public static NameTaken of(PlaceSettings settings) {
        return parse(settings.get(Setting.COLLISION));
    }

    /**
     * Reads what {@link #text} wrote.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static NameTaken parse(String text) {
        for (NameTaken n : values()) {
            if (n.text().equals(text)) {
                return n;
            }
        }
        throw new IllegalArgumentException(Words.of("collision.unknown", text));
    }
}
