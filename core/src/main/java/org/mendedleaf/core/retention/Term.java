package org.mendedleaf.core.retention;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/**
 * For how long something is kept: so many hours, days, weeks, months or years, or for good. Written as an ISO 8601 duration
 * of one unit ({@code PT36H}, {@code P30D}, {@code P12W}, {@code P6M}, {@code P2Y}) or {@code forever}.
 *
 * @param count of units; 0 with {@link Unit#FOREVER}
 * @param unit of the count
 */
public record Term(int count, Unit unit) {

    /** For good. */
    public static final Term FOREVER = new Term(0, Unit.FOREVER);

    private static final Pattern WRITTEN = Pattern.compile("P(?:T(\\d{1,6})H|(\\d{1,6})([DWMY]))");
    private static final long HOUR_MICROS = 3_600_000_000L;
    private static final long DAY_MICROS = 24 * HOUR_MICROS;

    /** What is counted. */
    public enum Unit {
        /** Hours of 60 minutes. */
        HOURS,
        /** Days of 24 hours. */
        DAYS,
        /** Weeks of 7 such days. */
        WEEKS,
        /** Months of the calendar. */
        MONTHS,
        /** Years of the calendar. */
        YEARS,
        /** No end. */
        FOREVER
    }

    /** Refuses what is no time. */
    public Term {
        if ((unit == Unit.FOREVER) != (count == 0) || count < 0) {
            throw new IllegalArgumentException(Words.of("rule.badTerm", count + " " + unit));
        }
    }

    /** So many days. */
    public static Term days(int count) {
        return new Term(count, Unit.DAYS);
    }

    /**
     * Reads what {@link #text} writes.
     *
     * @throws IllegalArgumentException with a message for the user, when it is no such time
     */
    public static Term parse(String text) {
        String plain = text.strip().toUpperCase(Locale.ROOT);
        if (plain.equals("FOREVER")) {
            return FOREVER;
        }
        Matcher m = WRITTEN.matcher(plain);
        if (!m.matches()) {
            throw new IllegalArgumentException(Words.of("rule.badTerm", text));
        }
        if (m.group(1) != null) {
            return new Term(Integer.parseInt(m.group(1)), Unit.HOURS);
        }
        Unit unit = switch (m.group(3)) {
            case "D" -> Unit.DAYS;
            case "W" -> Unit.WEEKS;
            case "M" -> Unit.MONTHS;
            default -> Unit.YEARS;
        };
        return new Term(Integer.parseInt(m.group(2)), unit);
    }

    /** As it stands in a file. */
    public String text() {
        return switch (unit) {
            case HOURS -> "PT" + count + "H";
            case DAYS -> "P" + count + "D";
            case WEEKS -> "P" + count + "W";
            case MONTHS -> "P" + count + "M";
            case YEARS -> "P" + count + "Y";
            case FOREVER -> "forever";
        };
    }

    /** As it is said after "for": {@code 30 days}, {@code 1 year}, {@code good}. */
    public String words() {
        return unit == Unit.FOREVER ? Words.of("term.forever") : Words.of("term." + unit, count);
    }

    /**
     * The moment when it ends.
     *
     * @param from microseconds since 1970
     * @param zone whose calendar months and years follow
     * @return microseconds; {@link Moment#OPEN} for never
     */
    public long after(long from, ZoneId zone) {
        if (from == Moment.OPEN) {
            return Moment.OPEN;
        }
        return switch (unit) {
            case HOURS -> from + (long) count * HOUR_MICROS;
            case DAYS -> from + (long) count * DAY_MICROS;
            case WEEKS -> from + 7L * count * DAY_MICROS;
            case MONTHS -> calendar(from, zone, count);
            case YEARS -> calendar(from, zone, 12L * count);
            case FOREVER -> Moment.OPEN;
        };
    }

    private static long calendar(long from, ZoneId zone, long months) {
        Instant at = Moment.instant(from);
        LocalDateTime local = LocalDateTime.ofInstant(at, zone);
        return Moment.micros(local.plusMonths(months).atZone(zone).toInstant());
    }

    /** About how many days; for good counts as a hundred years. For curves, not for verdicts. */
    public double roughDays() {
        return switch (unit) {
            case HOURS -> count / 24.0;
            case DAYS -> count;
            case WEEKS -> count * 7.0;
            case MONTHS -> count * 30.44;
            case YEARS -> count * 365.25;
            case FOREVER -> 36_525;
        };
    }
}
