package org.mendedleaf.core.line;

import java.util.Locale;

/** Whether earlier contents of a place are kept. */
public enum Versioning {
    /** They are, at the rhythm of the place. */
    ON,
    /** What exists is kept, and nothing is added. */
    PAUSED,
    /** The place is protected no longer; what exists can still be read. */
    OFF;

    /** Under this name the rules of a place have it. */
    public static final String RULE = "versioning";

    /** How it is written; what is not known is {@link #ON}, so that nobody loses anything by it. */
    public static Versioning of(String text) {
        for (Versioning v : values()) {
            if (v.text().equals(text)) {
                return v;
            }
        }
        return ON;
    }

    /** How it is written, on the command line too. */
    public String text() {
        return name().toLowerCase(Locale.ROOT);
    }
}
