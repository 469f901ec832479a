package org.mendedleaf.core.words;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import java.util.Map;
import java.util.ResourceBundle;
import java.util.concurrent.ConcurrentHashMap;

/** Numbers and times as people say them. */
public final class Formats {

    private static final String[] UNITS = {"kB", "MB", "GB", "TB", "PB"};

    /** A formatter is made once for each pattern: a table asks for one in each row. */
    private static final Map<Spelling, DateTimeFormatter> FORMATTERS = new ConcurrentHashMap<>();

    private Formats() {}

    /** A pattern in a language, of which there is one bundle, as a country writes it. */
    private record Spelling(String pattern, ResourceBundle words, Locale country) {}

    /** A size in decimal units with two or three digits: {@code 0 B}, {@code 48.3 kB}, {@code 1.24 GB}. */
    public static String size(long bytes) {
        if (bytes < 1000) {
            return bytes + " B";
        }
        double value = bytes / 1000.0;
        long inUnit = 1000;
        int unit = 0;
        while (value >= 999.5 && unit < UNITS.length - 1) {
            value /= 1000;
            inUnit *= 1000;
            unit++;
        }
        int decimals = value < 9.995 ? 2 : value < 99.95 ? 1 : 0;
        return NumberText.of(Words.locale()).quotient(bytes, inUnit, decimals) + " " + UNITS[unit];
    }

    /** A change in size, with its sign: {@code +1.20 kB}, {@code −45.2 kB}; a minus sign, not a hyphen. */
    public static String sizeChange(long bytes) {
        return (bytes < 0 ? "−" : "+") + size(Math.abs(bytes));
    }

    /** A number with the separators of the user's language. */
    public static String number(long n) {
        return NumberText.of(Words.locale()).grouped(n);
    }

    /** A number with at most three places behind the point. */
    public static String decimal(double n) {
        return Words.of("say.decimal", n);
    }

    /** A number with one place behind the point. */
    public static String oneDecimal(double n) {
        return String.format(Words.locale(), "%.1f", n);
    }

    /** A moment as people say it: {@code today 10:42}, {@code Tue 16:05}, {@code 4 May}, {@code 4 May 2025}. */
    public static String moment(Instant at, Instant now, ZoneId zone) {
        ZonedDateTime time = at.atZone(zone);
        LocalDate day = time.toLocalDate();
        LocalDate today = now.atZone(zone).toLocalDate();
        long days = ChronoUnit.DAYS.between(day, today);
        if (days == 0 || days == 1) {
            return Words.of(days == 0 ? "say.today" : "say.yesterday", format("HH:mm", time));
        }
        if (days > 1 && days < 7) {
            return format("EEE HH:mm", time);
        }
        return format(day.getYear() == today.getYear() ? "d MMM HH:mm" : "d MMM yyyy", time);
    }

    /** In the hour that is there twice when the clocks are put back, a time says which of the two it is: {@code 02:30 CEST}. */
    private static String format(String pattern, ZonedDateTime time) {
        boolean twice = pattern.endsWith("mm")
                && time.getZone()
                                .getRules()
                                .getValidOffsets(time.toLocalDateTime())
                                .size()
                        > 1;
        return formatter(twice ? pattern + " z" : pattern).format(time);
    }

    /**
     * Writes dates and times in the language of the words, and as its country does.
     *
     * @param pattern of {@link DateTimeFormatter}, in which a day stands in the English order, as {@code d MMM yyyy}, and a time
     *     as {@code HH:mm} or {@code HH:mm:ss}
     */
    public static DateTimeFormatter formatter(String pattern) {
        return FORMATTERS.computeIfAbsent(new Spelling(pattern, Words.bundle(), Words.locale()), Formats::made);
    }

    private static DateTimeFormatter made(Spelling spelling) {
        String pattern = spelling.pattern();
        String ordered = pattern.contains("d MMMM")
                ? pattern.replace("d MMMM", spelling.words().getString("say.pattern.dayOfMonth"))
                : pattern.contains("d MMM yyyy")
                        ? pattern.replace("d MMM yyyy", spelling.words().getString("say.pattern.dayOfYear"))
                        : pattern.replace("d MMM", spelling.words().getString("say.pattern.day"));
        String timed = ordered.contains("HH:mm:ss")
                ? ordered.replace("HH:mm:ss", spelling.words().getString("say.pattern.seconds"))
                : ordered.replace("HH:mm", spelling.words().getString("say.pattern.time"));
        return DateTimeFormatter.ofPattern(timed, spelling.country());
    }

    /** A time of day as people say it: {@code 17:00}, {@code 5:00 PM}. */
    public static String time(LocalTime time) {
        return formatter("HH:mm").format(time);
    }

    /** A day as people say it: {@code 4 May}, {@code 4 May 2025}. */
    public static String day(Instant at, Instant now, ZoneId zone) {
        LocalDate day = at.atZone(zone).toLocalDate();
        boolean sameYear = day.getYear() == now.atZone(zone).getYear();
        return formatter(sameYear ? "d MMM" : "d MMM yyyy").format(day);
    }

    /**
     * The end of something as people say it: the last day of it when it ends with a day, else the moment.
     *
     * @param end the first moment after it
     */
    public static String end(Instant end, Instant now, ZoneId zone) {
        boolean wholeDay = end.atZone(zone).toLocalTime().equals(LocalTime.MIDNIGHT);
        return wholeDay ? day(end.minusMillis(1), now, zone) : coming(end, now, zone);
    }

    /** A moment for paper, which is read later: {@code 12 Nov 2026, 17:00}. */
    public static String dated(Instant at, ZoneId zone) {
        return format("d MMM yyyy, HH:mm", at.atZone(zone));
    }

    /** A moment whole, with its day of the week and without seconds: {@code Thu 12 Nov 2026, 17:00}. */
    public static String full(Instant at, ZoneId zone) {
        return format("EEE d MMM yyyy, HH:mm", at.atZone(zone));
    }

    /** A moment that is to come: {@code Fri 20 Nov 17:00}, and with the year when that is another one. */
    public static String coming(Instant at, Instant now, ZoneId zone) {
        boolean sameYear = at.atZone(zone).getYear() == now.atZone(zone).getYear();
        return format(sameYear ? "EEE d MMM HH:mm" : "EEE d MMM yyyy HH:mm", at.atZone(zone));
    }

    /** A moment whole with its zone, and with seconds where they matter: {@code Thu 12 Nov 2026, 17:00 CET}. */
    public static String zoned(Instant at, ZoneId zone) {
        ZonedDateTime time = at.atZone(zone);
        String pattern = time.getSecond() == 0 ? "EEE d MMM yyyy, HH:mm z" : "EEE d MMM yyyy, HH:mm:ss z";
        return formatter(pattern).format(time);
    }

    /** A moment to the second with its zone, for tooltips and details. */
    public static String exact(Instant at, ZoneId zone) {
        return DateTimeFormatter.ofLocalizedDateTime(FormatStyle.LONG)
                .withLocale(Words.locale())
                .format(at.atZone(zone).truncatedTo(ChronoUnit.SECONDS));
    }

    /** How long ago: {@code just now}, {@code 2 min ago}, {@code 3 h ago}; from a day on, the moment. */
    public static String ago(Instant at, Instant now, ZoneId zone) {
        Duration since = Duration.between(at, now);
        if (since.toMinutes() < 1) {
            return Words.of("say.justNow");
        }
        if (since.toHours() < 1) {
            return Words.of("say.minutesAgo", since.toMinutes());
        }
        if (since.toHours() < 24) {
            return Words.of("say.hoursAgo", since.toHours());
        }
        return moment(at, now, zone);
    }

    /** A duration in its largest units: {@code 4 s}, {@code 2 min}, {@code 1 h 20 min}. */
    public static String duration(Duration duration) {
        long seconds = Math.max(1, duration.toSeconds());
        if (seconds < 90) {
            return Words.of("say.seconds", seconds);
        }
        long minutes = (seconds + 30) / 60;
        return minutes < 90 ? Words.of("say.minutes", minutes) : Words.of("say.hours", minutes / 60, minutes % 60);
    }
}
