package org.mendedleaf.core.line;

import org.mendedleaf.core.words.Words;

/**
 * How often a place is captured.
 *
 * @param kind on every save, at intervals, or only by hand
 * @param minutes of the interval, 10 to 720; 0 for the other kinds
 */
public record Rhythm(Kind kind, int minutes) {

    /** On every save: the folder is watched. */
    public static final Rhythm ON_SAVE = new Rhythm(Kind.ON_SAVE, 0);

    /** Only when somebody asks for it. */
    public static final Rhythm BY_HAND = new Rhythm(Kind.BY_HAND, 0);

    private static final int LEAST = 10;
    private static final int MOST = 720;

    /** The kinds of rhythm. */
    public enum Kind {
        /** Shortly after each change. */
        ON_SAVE,
        /** Every so many minutes. */
        EVERY,
        /** Only when asked for. */
        BY_HAND
    }

    /** Checks the minutes. */
    public Rhythm {
        if (kind == Kind.EVERY ? minutes < LEAST || minutes > MOST : minutes != 0) {
            throw new IllegalArgumentException(Words.of("rhythm.minutes", LEAST, MOST, minutes));
        }
    }

    /** Every so many minutes. */
    public static Rhythm every(int minutes) {
        return new Rhythm(Kind.EVERY, minutes);
    }

    /**
     * Reads {@code save}, {@code hand} or a number of minutes.
     *
     * @throws IllegalArgumentException in words
     */
    public static Rhythm parse(String text) {
        return switch (text) {
            case "save" -> ON_SAVE;
            case "hand" -> BY_HAND;
            default -> {
                if (!text.matches("\\d{1,6}")) {
                    throw new IllegalArgumentException(Words.of("rhythm.unreadable", text));
                }
                yield every(Integer.parseInt(text));
            }
        };
    }

    /** What {@link #parse} reads. */
    public String text() {
        return switch (kind) {
            case ON_SAVE -> "save";
            case BY_HAND -> "hand";
            case EVERY -> Integer.toString(minutes);
        };
    }
}
