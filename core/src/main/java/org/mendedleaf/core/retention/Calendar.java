package org.mendedleaf.core.retention;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.mendedleaf.core.time.Moment;

/**
 * The calendar that somebody lives by: into which hour, day, week, month and year a moment falls. Pure. An hour that the
 * clock shows twice, when daylight saving ends, is two hours.
 *
 * @param zone whose clock is meant
 * @param weekStart the first day of a week
 */
public record Calendar(ZoneId zone, DayOfWeek weekStart) {

    private static final long MICROS = 1_000_000L;
    private static final long DAY = 86_400L;

    /** Days from Monday, 29 December 1969, to the first of January 1970. */
    private static final int THURSDAY = 3;

    /** The bucket of a moment: two moments fall into the same span of a level when their numbers are the same. */
    public long bucket(Level level, long micros) {
        ZoneOffset offset = offset(micros);
        return bucket(level, Math.floorDiv(micros, MICROS) + offset.getTotalSeconds(), offset);
    }

    private ZoneOffset offset(long micros) {
        return zone.getRules().getOffset(Moment.instant(micros));
    }

    /** @param local seconds that the clock shows, as if they were universal ones */
    long bucket(Level level, long local, ZoneOffset offset) {
        long day = Math.floorDiv(local, DAY);
        return switch (level) {
            // Two hours of the same name differ by their offsets: the hour as it began, told in universal time.
            case HOURLY -> Math.floorDiv(local, 3600) * 3600 - offset.getTotalSeconds();
            case DAILY -> day;
            case WEEKLY -> Math.floorDiv(day + THURSDAY - (weekStart.getValue() - 1), 7);
            case MONTHLY -> {
                LocalDate date = LocalDate.ofEpochDay(day);
                yield date.getYear() * 12L + date.getMonthValue();
            }
            case YEARLY -> LocalDate.ofEpochDay(day).getYear();
        };
    }
}
