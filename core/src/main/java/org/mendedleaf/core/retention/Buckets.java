package org.mendedleaf.core.retention;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneRules;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.time.Moment;

/**
 * The buckets of a {@link Calendar} for many moments: the same numbers, with the offsets of the zone looked up in a table and
 * the month of a day kept from one moment to the next. One thread at a time; {@link #fresh} gives another thread its own.
 */
final class Buckets {

    private final Calendar calendar;

    /** From when each offset is valid, seconds since 1970; the first one is that of all time before the second. */
    private final long[] from;

    private final ZoneOffset[] offsets;
    private int at;
    private long day = Long.MIN_VALUE;
    private long month;
    private long year;

    private Buckets(Calendar calendar, long[] from, ZoneOffset[] offsets) {
        this.calendar = calendar;
        this.from = from;
        this.offsets = offsets;
    }

    /** For moments between these, microseconds. */
    static Buckets of(Calendar calendar, long first, long last) {
        ZoneRules rules = calendar.zone().getRules();
        Instant start = Moment.instant(first);
        List<Long> from = new ArrayList<>(List.of(Long.MIN_VALUE));
        List<ZoneOffset> offsets = new ArrayList<>(List.of(rules.getOffset(start)));
        ZoneOffsetTransition next = rules.nextTransition(start);
        while (next != null && !next.getInstant().isAfter(Moment.instant(last))) {
            from.add(next.toEpochSecond());
            offsets.add(next.getOffsetAfter());
            next = rules.nextTransition(next.getInstant());
        }
        return new Buckets(
                calendar, from.stream().mapToLong(Long::longValue).toArray(), offsets.toArray(new ZoneOffset[0]));
    }

    /** The same for another thread. */
    Buckets fresh() {
        return new Buckets(calendar, from, offsets);
    }

    /** The buckets of a moment on several levels. */
    void of(Level[] levels, long micros, long[] into) {
        long seconds = Math.floorDiv(micros, 1_000_000L);
        while (seconds < from[at]) {
            at--;
        }
        while (at + 1 < from.length && seconds >= from[at + 1]) {
            at++;
        }
        ZoneOffset offset = offsets[at];
        long local = seconds + offset.getTotalSeconds();
        long today = Math.floorDiv(local, 86_400L);
        if (today != day) {
            LocalDate date = LocalDate.ofEpochDay(today);
            day = today;
            year = date.getYear();
            month = year * 12 + date.getMonthValue();
        }
        for (int i = 0; i < levels.length; i++) {
            into[i] = switch (levels[i]) {
                case HOURLY, DAILY, WEEKLY -> calendar.bucket(levels[i], local, offset);
                case MONTHLY -> month;
                case YEARLY -> year;
            };
        }
    }
}
