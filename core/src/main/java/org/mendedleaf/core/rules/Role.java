package org.mendedleaf.core.rules;

import java.util.Locale;
import org.mendedleaf.core.words.Words;

/** What a member of a place may do. */
public enum Role {
    /** See what is published. */
    READER,
    /** Put in, remove and bring back. */
    EDITOR,
    /** All of that, settings and members, and erase. */
    OWNER;

    /** How it is written on the command line and sent to a system. */
    public String text() {
        return name().toLowerCase(Locale.ROOT);
    }

    /**
     * Reads what {@link #text} wrote.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static Role parse(String text) {
        for (Role role : values()) {
            if (role.text().equals(text)) {
                return role;
            }
        }
        throw new IllegalArgumentException(Words.of("role.unknown", text));
    }
}
