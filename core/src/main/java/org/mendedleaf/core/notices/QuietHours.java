package org.mendedleaf.core.notices;

import java.time.DateTimeException;
import java.time.LocalTime;
import org.mendedleaf.core.words.Words;

/**
 * From when until when nobody is to be disturbed; the end may be on the next day. Equal times are no quiet hours.
 *
 * @param from the first minute of them
 * @param to the first minute after them
 */
public record QuietHours(LocalTime from, LocalTime to) {

    /** None. */
    public static final QuietHours NONE = new QuietHours(LocalTime.MIDNIGHT, LocalTime.MIDNIGHT);

    /** Unless somebody chose otherwise. */
    public static final QuietHours DEFAULT = new QuietHours(LocalTime.of(20, 0), LocalTime.of(7, 0));

    private static final String OFF = "off";

    /**
     * Reads what {@link #text} gives, such as {@code 20:00-07:00} or {@code off}.
     *
     * @throws IllegalArgumentException with a message for the user, when it is neither
     */
    public static QuietHours parse(String text) {
        if (text.strip().equalsIgnoreCase(OFF)) {
            return NONE;
        }
        String[] parts = text.strip().split("\\s*[-–]\\s*", -1);
        try {
            if (parts.length == 2) {
                return new QuietHours(time(parts[0]), time(parts[1]));
            }
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(Words.of("notices.quiet.wrong", text), e);
        }
        throw new IllegalArgumentException(Words.of("notices.quiet.wrong", text));
    }

    private static LocalTime time(String text) {
        return LocalTime.parse(text.length() == 4 ? "0" + text : text);
    }

    /** As it is typed. */
    public String text() {
        return isNone() ? OFF : from + "-" + to;
    }

    /** Whether there are none. */
    public boolean isNone() {
        return from.equals(to);
    }

    /** Whether a time of day is within them. */
    public boolean hold(LocalTime at) {
        boolean afterFrom = !at.isBefore(from);
        boolean beforeTo = at.isBefore(to);
        return !isNone() && (from.isBefore(to) ? afterFrom && beforeTo : afterFrom || beforeTo);
    }
}
