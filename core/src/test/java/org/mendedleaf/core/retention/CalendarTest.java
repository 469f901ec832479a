package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.Collections;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.time.Moment;

class CalendarTest {

    private static final ZoneId VIENNA = ZoneId.of("Europe/Vienna");
    private static final Calendar MONDAYS = new Calendar(VIENNA, DayOfWeek.MONDAY);

    private static long at(String moment) {
        return Moment.micros(Instant.parse(moment));
    }

    @Test
    void aDayIsThatOfTheZone() {
        // Half past eleven in the evening and half past midnight there, on one day of universal time.
        assertThat(MONDAYS.bucket(Level.DAILY, at("2026-05-04T21:30:00Z")))
                .isNotEqualTo(MONDAYS.bucket(Level.DAILY, at("2026-05-04T22:30:00Z")));
        assertThat(MONDAYS.bucket(Level.DAILY, at("2026-05-03T22:30:00Z")))
                .isEqualTo(MONDAYS.bucket(Level.DAILY, at("2026-05-04T21:30:00Z")));
    }

    @Test
    void theHourThatTheClockShowsTwiceIsTwoHours() {
        long first = MONDAYS.bucket(Level.HOURLY, at("2026-10-25T00:30:00Z"));
        long second = MONDAYS.bucket(Level.HOURLY, at("2026-10-25T01:30:00Z"));
        assertThat(first).isNotEqualTo(second);
        assertThat(MONDAYS.bucket(Level.DAILY, at("2026-10-25T00:30:00Z")))
                .isEqualTo(MONDAYS.bucket(Level.DAILY, at("2026-10-25T01:30:00Z")));
    }

    @Test
    void aTermIsNeverCutShortWhateverTheClocksDoMeanwhile() {
        // In the last night of March an hour is left out there, in the last of October one comes twice.
        for (String begin : List.of("2026-03-28T12:00:00Z", "2026-10-24T10:00:00Z")) {
            assertThat(Term.days(2).after(at(begin), VIENNA) - at(begin)).isEqualTo(48L * 3_600_000_000L);
        }
        assertThat(new Term(1, Term.Unit.MONTHS).after(at("2026-01-31T12:00:00Z"), VIENNA))
                .isEqualTo(at("2026-02-28T12:00:00Z"));
        // At the same time of day a month later.
        assertThat(new Term(1, Term.Unit.MONTHS).after(at("2026-03-10T12:00:00Z"), VIENNA))
                .isEqualTo(at("2026-04-10T11:00:00Z"));
        assertThat(new Term(1, Term.Unit.MONTHS).after(at("2026-02-28T01:30:00Z"), VIENNA))
                .isEqualTo(at("2026-03-28T01:30:00Z"));
        assertThat(new Term(1, Term.Unit.MONTHS).after(at("2026-03-01T01:30:00Z"), VIENNA))
                .isEqualTo(at("2026-04-01T00:30:00Z"));
    }

    @Property
    void manyBucketsAtOnceAreThoseOfEachMoment(
            @ForAll @Size(min = 1, max = 30) List<@LongRange(min = -2_000_000_000L, max = 4_000_000_000L) Long> seconds,
            @ForAll DayOfWeek weekStart) {
        Calendar calendar = new Calendar(VIENNA, weekStart);
        long first = Collections.min(seconds) * 1_000_000;
        long last = Collections.max(seconds) * 1_000_000;
        Buckets buckets = Buckets.of(calendar, first, last).fresh();
        Level[] levels = Level.values();
        long[] into = new long[levels.length];
        for (long s : seconds) {
            buckets.of(levels, s * 1_000_000, into);
            for (int i = 0; i < levels.length; i++) {
                assertThat(into[i]).isEqualTo(calendar.bucket(levels[i], s * 1_000_000));
            }
        }
    }

    @Property
    void bucketsAreThoseOfTheCalendar(
            @ForAll @LongRange(min = -2_000_000_000L, max = 4_000_000_000L) long a,
            @ForAll @LongRange(min = -3_000_000L, max = 3_000_000L) long apart,
            @ForAll DayOfWeek weekStart) {
        Calendar calendar = new Calendar(VIENNA, weekStart);
        LocalDateTime x = LocalDateTime.ofInstant(Instant.ofEpochSecond(a), VIENNA);
        LocalDateTime y = LocalDateTime.ofInstant(Instant.ofEpochSecond(a + apart), VIENNA);
        long mx = a * 1_000_000;
        long my = (a + apart) * 1_000_000;
        assertThat(calendar.bucket(Level.DAILY, mx) == calendar.bucket(Level.DAILY, my))
                .isEqualTo(x.toLocalDate().equals(y.toLocalDate()));
        assertThat(calendar.bucket(Level.WEEKLY, mx) == calendar.bucket(Level.WEEKLY, my))
                .isEqualTo(x.with(TemporalAdjusters.previousOrSame(weekStart))
                        .toLocalDate()
                        .equals(y.with(TemporalAdjusters.previousOrSame(weekStart))
                                .toLocalDate()));
        assertThat(calendar.bucket(Level.MONTHLY, mx) == calendar.bucket(Level.MONTHLY, my))
                .isEqualTo(x.getMonthValue() == y.getMonthValue() && x.getYear() == y.getYear());
        assertThat(calendar.bucket(Level.YEARLY, mx) == calendar.bucket(Level.YEARLY, my))
                .isEqualTo(x.getYear() == y.getYear());
        if (calendar.bucket(Level.HOURLY, mx) == calendar.bucket(Level.HOURLY, my)) {
            assertThat(x.truncatedTo(ChronoUnit.HOURS)).isEqualTo(y.truncatedTo(ChronoUnit.HOURS));
        }
    }
}
