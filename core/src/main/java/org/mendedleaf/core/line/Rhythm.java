package org.mendedleaf.core.line;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.TextStyle;
import java.time.temporal.TemporalAdjusters;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * How often a place is captured.
 *
 * @param kind on every save, at intervals, at a time of the day or the week, or only by hand
 * @param minutes of the interval, 10 to 720; since midnight for each day; since midnight before Monday for each week; 0 for the
 *     other kinds
 */
public record Rhythm(Kind kind, int minutes) {

    /** On every save: the folder is watched. */
    public static final Rhythm ON_SAVE = new Rhythm(Kind.ON_SAVE, 0);

    /** Only when somebody asks for it. */
    public static final Rhythm BY_HAND = new Rhythm(Kind.BY_HAND, 0);

    /** When a day's capture is taken unless another time was chosen. */
    public static final LocalTime EVENING = LocalTime.of(18, 0);

    private static final int LEAST = 10;
    private static final int MOST = 720;
    private static final int DAY = 24 * 60;

    /** The kinds of rhythm. */
    public enum Kind {
        /** Shortly after each change. */
        ON_SAVE,
        /** Every so many minutes. */
        EVERY,
        /** Each day at a time. */
        DAILY,
        /** Each week, on a day at a time. */
        WEEKLY,
        /** Only when asked for. */
        BY_HAND
    }

    /** Checks the minutes. */
    public Rhythm {
        boolean good = switch (kind) {
            case EVERY -> minutes >= LEAST && minutes <= MOST;
            case DAILY -> minutes >= 0 && minutes < DAY;
            case WEEKLY -> minutes >= 0 && minutes < 7 * DAY;
            case ON_SAVE, BY_HAND -> minutes == 0;
        };
        if (!good) {
            throw new IllegalArgumentException(Words.of("rhythm.minutes", LEAST, MOST, minutes));
        }
    }

    /** Every so many minutes. */
    public static Rhythm every(int minutes) {
        return new Rhythm(Kind.EVERY, minutes);
    }

    /** Each day at a time; seconds do not count. */
    public static Rhythm daily(LocalTime at) {
        return new Rhythm(Kind.DAILY, at.getHour() * 60 + at.getMinute());
    }

    /** Each week, on a day at a time; seconds do not count. */
    public static Rhythm weekly(DayOfWeek day, LocalTime at) {
        return new Rhythm(Kind.WEEKLY, (day.getValue() - 1) * DAY + at.getHour() * 60 + at.getMinute());
    }

    /** The time of the day of a daily or weekly rhythm; midnight for the others. */
    public LocalTime at() {
        boolean timed = kind == Kind.DAILY || kind == Kind.WEEKLY;
        return timed ? LocalTime.of(minutes % DAY / 60, minutes % 60) : LocalTime.MIDNIGHT;
    }

    /** The day of a weekly rhythm; Monday for the others. */
    public DayOfWeek day() {
        return kind == Kind.WEEKLY ? DayOfWeek.of(minutes / DAY + 1) : DayOfWeek.MONDAY;
    }

    /**
     * When the next capture is due after one; empty for what has no time of its own. A time that a clock change leaves out is
     * taken as late as the clock was put forward.
     */
    public Optional<Instant> next(Instant last, ZoneId zone) {
        return switch (kind) {
            case ON_SAVE, BY_HAND -> Optional.empty();
            case EVERY -> Optional.of(last.plus(Duration.ofMinutes(minutes)));
            case DAILY -> Optional.of(after(last.atZone(zone), 1));
            case WEEKLY -> Optional.of(after(last.atZone(zone), 7));
        };
    }

    private Instant after(ZonedDateTime last, int days) {
        ZonedDateTime first = kind == Kind.WEEKLY ? last.with(TemporalAdjusters.nextOrSame(day())) : last;
        ZonedDateTime at = first.toLocalDate().atTime(at()).atZone(last.getZone());
        // Counted in days of the calendar, which are not always of 24 hours.
        return (at.isAfter(last)
                        ? at
                        : at.toLocalDate().plusDays(days).atTime(at()).atZone(last.getZone()))
                .toInstant();
    }

    /** The longest time between two captures; empty for by hand. Shortly after each save is no time at all. */
    public Optional<Duration> longest() {
        return switch (kind) {
            case ON_SAVE -> Optional.of(Duration.ZERO);
            case EVERY -> Optional.of(Duration.ofMinutes(minutes));
            // A day on which the clock is put back is of 25 hours.
            case DAILY -> Optional.of(Duration.ofHours(25));
            case WEEKLY -> Optional.of(Duration.ofHours(7 * 24 + 1));
            case BY_HAND -> Optional.empty();
        };
    }

    /** How far apart captures are, minutes; 0 on every save and by hand. */
    public int intervalMinutes() {
        return switch (kind) {
            case ON_SAVE, BY_HAND -> 0;
            case EVERY -> minutes;
            case DAILY -> DAY;
            case WEEKLY -> 7 * DAY;
        };
    }

    /**
     * Reads {@code save}, {@code hand}, a number of minutes, {@code daily 18:00} or {@code weekly fri 18:00}. Without a time it
     * is the evening, without a day Friday.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static Rhythm parse(String text) {
        List<String> words = Arrays.asList(text.strip().toLowerCase(Locale.ROOT).split("[\\s,@]+"));
        String first = words.get(0);
        if (words.size() == 1 && first.equals("save")) {
            return ON_SAVE;
        }
        if (words.size() == 1 && first.equals("hand")) {
            return BY_HAND;
        }
        if (words.size() == 1 && first.matches("\\d{1,6}")) {
            return every(Integer.parseInt(first));
        }
        if (first.equals("daily") && words.size() <= 2) {
            return daily(words.size() == 1 ? EVENING : time(words.get(1), text));
        }
        if (first.equals("weekly") && words.size() <= 3) {
            boolean hasDay = words.size() > 1 && !Character.isDigit(words.get(1).charAt(0));
            DayOfWeek day = hasDay ? day(words.get(1), text) : DayOfWeek.FRIDAY;
            String last = words.get(words.size() - 1);
            boolean hasTime = words.size() == (hasDay ? 3 : 2);
            if (words.size() == 3 && !hasDay) {
                throw unreadable(text);
            }
            return weekly(day, hasTime ? time(last, text) : EVENING);
        }
        throw unreadable(text);
    }

    private static LocalTime time(String word, String text) {
        try {
            if (word.matches("\\d{1,2}([:.]\\d{2})?")) {
                String[] parts = word.split("[:.]");
                return LocalTime.of(Integer.parseInt(parts[0]), parts.length == 1 ? 0 : Integer.parseInt(parts[1]));
            }
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(Words.of("rhythm.time", word), e);
        }
        throw unreadable(text);
    }

    private static DayOfWeek day(String word, String text) {
        for (DayOfWeek day : DayOfWeek.values()) {
            String name = day.name().toLowerCase(Locale.ROOT);
            if (word.length() >= 2 && name.startsWith(word)) {
                return day;
            }
        }
        throw unreadable(text);
    }

    private static IllegalArgumentException unreadable(String text) {
        return new IllegalArgumentException(Words.of("rhythm.unreadable", text));
    }

    /** What {@link #parse} reads. */
    public String text() {
        return switch (kind) {
            case ON_SAVE -> "save";
            case BY_HAND -> "hand";
            case EVERY -> Integer.toString(minutes);
            case DAILY -> "daily " + at();
            case WEEKLY -> "weekly " + day().name().toLowerCase(Locale.ROOT).substring(0, 3) + " " + at();
        };
    }

    /** In few words, such as {@code every day at 18:00}. */
    public String words() {
        return words("rhythm.");
    }

    /** In words that say what it does. */
    public String longWords() {
        return words("protect.rhythm.");
    }

    private String words(String key) {
        return Words.of(key + kind, minutes, Formats.time(at()), day().getDisplayName(TextStyle.FULL, Words.locale()));
    }
}
