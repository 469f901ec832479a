package org.mendedleaf.core.line;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import org.mendedleaf.core.words.Words;

/**
 * Moments as the catalogue keeps them: microseconds since 1970-01-01T00:00Z. An interval holds its first moment and not
 * its last; the last of an open one is {@link #OPEN}.
 */
public final class Moment {

    /** Later than anything that happens: what is there then is what is there now, whatever clocks say. */
    public static final Instant FAR = Instant.parse("9999-01-01T00:00:00Z");

    /** The end of what has not ended. */
    public static final long OPEN = Long.MAX_VALUE;

    private Moment() {}

    /** Microseconds of an instant, rounded down. */
    public static long micros(Instant instant) {
        return Math.addExact(Math.multiplyExact(instant.getEpochSecond(), 1_000_000L), instant.getNano() / 1000);
    }

    /** The instant of microseconds. */
    public static Instant instant(long micros) {
        return Instant.EPOCH.plus(micros, ChronoUnit.MICROS);
    }

    /**
     * Understands a moment in ISO 8601: with an offset or zone, or a local date and time, or a local date, which means
     * the end of that day.
     *
     * @param now what is later than this becomes this
     * @throws IllegalArgumentException in words, when the text is not such a moment or the moment lies ahead
     */
    public static Instant parse(String text, ZoneId zone, Instant now) {
        String typed = text.strip();
        if (typed.equalsIgnoreCase("now")) {
            return now;
        }
        Instant moment = parseIso(typed.replace(' ', 'T'), zone);
        if (moment == null) {
            throw new IllegalArgumentException(Words.of("moment.unreadable", text));
        }
        if (moment.isAfter(now)) {
            boolean today = typed.length() == 10
                    && LocalDate.parse(typed).equals(now.atZone(zone).toLocalDate());
            if (today) {
                return now;
            }
            throw new IllegalArgumentException(Words.of("moment.future", text));
        }
        return moment;
    }

    private static @org.jspecify.annotations.Nullable Instant parseIso(String text, ZoneId zone) {
        try {
            if (text.length() == 10) {
                return LocalDate.parse(text)
                        .plusDays(1)
                        .atStartOfDay(zone)
                        .toInstant()
                        .minus(1, ChronoUnit.MICROS);
            }
            if (text.endsWith("]")) {
                return ZonedDateTime.parse(text).toInstant();
            }
            if (text.endsWith("Z") || text.matches(".*T.*[+-]\\d\\d(:?\\d\\d)?$")) {
                return OffsetDateTime.parse(text).toInstant();
            }
            return LocalDateTime.parse(text).atZone(zone).toInstant();
        } catch (DateTimeParseException e) {
            return null;
        }
    }
}
