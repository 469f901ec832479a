package org.mendedleaf.core.snapshots;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.TimeZone;
import java.util.stream.Collectors;
import org.dmfs.rfc5545.DateTime;
import org.dmfs.rfc5545.recur.InvalidRecurrenceRuleException;
import org.dmfs.rfc5545.recur.RecurrenceRule;
import org.dmfs.rfc5545.recur.RecurrenceRuleIterator;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.words.Words;

/**
 * A recurrence as RFC 5545 has it: a rule, a local start, and the zone whose clock counts. Knows its next times, and how
 * to say itself in a sentence.
 */
public final class Recurrence {

    /** Closer together than this is what captures are for. */
    private static final Duration LEAST = Duration.ofMinutes(10);

    private static final int CHECKED = 30;
    static final List<String> DAYS = List.of("MO", "TU", "WE", "TH", "FR", "SA", "SU");

    private final String text;
    private final RecurrenceRule rule;
    private final LocalDateTime start;
    private final ZoneId zone;

    private Recurrence(String text, RecurrenceRule rule, LocalDateTime start, ZoneId zone) {
        this.text = text;
        this.rule = rule;
        this.start = start;
        this.zone = zone;
    }

    /**
     * Reads a rule.
     *
     * @param text as the value of RRULE, with or without that name before it
     * @throws IllegalArgumentException with a message for the user, when it is no rule, never comes, or comes too often
     */
    public static Recurrence of(String text, LocalDateTime start, ZoneId zone) {
        String value = text.strip().toUpperCase(Locale.ROOT);
        String bare = value.startsWith("RRULE:") ? value.substring(6) : value;
        RecurrenceRule rule;
        try {
            rule = new RecurrenceRule(bare, RecurrenceRule.RfcMode.RFC5545_STRICT);
        } catch (InvalidRecurrenceRuleException | IllegalArgumentException e) {
            throw new IllegalArgumentException(Words.of("schedule.badRule", text), e);
        }
        Recurrence found = new Recurrence(bare, rule, start, zone);
        List<Instant> first = found.from(start.atZone(zone).toInstant().minusMillis(1), CHECKED);
        if (first.isEmpty()) {
            throw new IllegalArgumentException(Words.of("schedule.never", text));
        }
        for (int i = 1; i < first.size(); i++) {
            if (Duration.between(first.get(i - 1), first.get(i)).compareTo(LEAST) < 0) {
                throw new IllegalArgumentException(Words.of("schedule.tooOften", LEAST.toMinutes()));
            }
        }
        return found;
    }

    /** That of a schedule. */
    public static Recurrence of(SnapshotSchedule schedule) {
        return of(schedule.rule(), schedule.start(), schedule.zone());
    }

    /** The rule for every so many hours. */
    public static String hourly(int hours) {
        return hours == 1 ? "FREQ=HOURLY" : "FREQ=HOURLY;INTERVAL=" + hours;
    }

    /** The rule for every day. */
    public static String daily() {
        return "FREQ=DAILY";
    }

    /** The rule for some days of the week. */
    public static String weekly(Collection<DayOfWeek> days) {
        return "FREQ=WEEKLY;BYDAY="
                + days.stream().sorted().map(d -> DAYS.get(d.ordinal())).collect(Collectors.joining(","));
    }

    /** The rule for a day of each month; -1 is the last one. */
    public static String monthly(int day) {
        return "FREQ=MONTHLY;BYMONTHDAY=" + day;
    }

    /** The rule for a day of the week in each month, such as its first Monday; -1 is the last one. */
    public static String monthly(int which, DayOfWeek day) {
        return "FREQ=MONTHLY;BYDAY=" + which + DAYS.get(day.ordinal());
    }

    /** The rule's text. */
    public String rule() {
        return text;
    }

    /** Its next times after a moment. */
    public List<Instant> next(Instant after, int most) {
        return from(after, most);
    }

    /** Its times after a moment and not after another, at most so many. */
    public List<Instant> between(Instant after, Instant last, int most) {
        return from(after, last, most);
    }

    private List<Instant> from(Instant after, int most) {
        return from(after, Instant.MAX, most);
    }

    /** No time beyond the last is computed but one: who asks what is due asks every few seconds. */
    private List<Instant> from(Instant after, Instant last, int most) {
        TimeZone zoned = TimeZone.getTimeZone(zone);
        DateTime first = new DateTime(
                zoned,
                start.getYear(),
                start.getMonthValue() - 1,
                start.getDayOfMonth(),
                start.getHour(),
                start.getMinute(),
                start.getSecond());
        RecurrenceRuleIterator all = rule.iterator(first);
        if (after.isAfter(Instant.ofEpochMilli(first.getTimestamp()))) {
            all.fastForward(new DateTime(zoned, after.toEpochMilli()));
        }
        List<Instant> found = new ArrayList<>();
        while (found.size() < most && all.hasNext()) {
            Instant at = Instant.ofEpochMilli(all.nextMillis());
            if (at.isAfter(last)) {
                break;
            }
            if (at.isAfter(after)) {
                found.add(at);
            }
        }
        return found;
    }

    /** In a sentence: {@code Monday to Friday at 18:00}. */
    public String sentence() {
        return new RecurrenceWords(text, start).sentence();
    }
}
