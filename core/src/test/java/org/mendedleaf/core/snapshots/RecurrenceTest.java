package org.mendedleaf.core.snapshots;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.line.SnapshotSchedule;

class RecurrenceTest {

    private static final ZoneId ZONE = ZoneId.of("Europe/Brussels");
    private static final LocalDateTime START = LocalDateTime.of(2026, 3, 2, 18, 0);

    private static Recurrence of(String rule) {
        return Recurrence.of(rule, START, ZONE);
    }

    @Test
    void theClockOnTheWallCountsThroughTheChangeToSummer() {
        assertThat(of("FREQ=DAILY").next(Instant.parse("2026-03-27T12:00:00Z"), 3))
                .containsExactly(
                        Instant.parse("2026-03-27T17:00:00Z"),
                        Instant.parse("2026-03-28T17:00:00Z"),
                        Instant.parse("2026-03-29T16:00:00Z"));
    }

    @Test
    void nothingComesBeforeItsStart() {
        assertThat(of("FREQ=DAILY").next(Instant.EPOCH, 1)).containsExactly(Instant.parse("2026-03-02T17:00:00Z"));
    }

    @Test
    void theLastOfAMonthAndTheFirstMondayAreFound() {
        assertThat(of(Recurrence.monthly(-1)).next(Instant.parse("2026-03-03T00:00:00Z"), 2))
                .containsExactly(Instant.parse("2026-03-31T16:00:00Z"), Instant.parse("2026-04-30T16:00:00Z"));
        assertThat(of(Recurrence.monthly(1, DayOfWeek.MONDAY)).next(Instant.parse("2026-03-03T00:00:00Z"), 1))
                .containsExactly(Instant.parse("2026-04-06T16:00:00Z"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "FREQ=DAILY | every day at 18:00",
                "FREQ=DAILY;INTERVAL=3 | every 3 days at 18:00",
                "FREQ=HOURLY;INTERVAL=4 | every 4 hours, from 18:00",
                "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR | Monday to Friday at 18:00",
                "FREQ=WEEKLY;BYDAY=TH,MO | Monday and Thursday at 18:00",
                "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO | every 2 weeks, Monday at 18:00",
                "FREQ=WEEKLY | Monday at 18:00",
                "FREQ=MONTHLY;BYMONTHDAY=-1 | every month on the last day at 18:00",
                "FREQ=MONTHLY;BYMONTHDAY=15;COUNT=4 | every month on day 15 at 18:00, 4 times",
                "FREQ=MONTHLY;BYDAY=-1FR | every month on the last Friday at 18:00",
                "RRULE:FREQ=YEARLY;UNTIL=20300101T000000Z | every year on 2 March at 18:00, until 1 Jan 2030",
                "FREQ=DAILY;BYHOUR=9,17 | by the rule FREQ=DAILY;BYHOUR=9,17, from 18:00"
            })
    void aRuleIsSaidInASentence(String rule, String sentence) {
        assertThat(of(rule).sentence()).isEqualTo(sentence);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "every now and then | no recurrence rule",
                "FREQ=DAILY;BYDAY=XX | no recurrence rule",
                "FREQ=MINUTELY | at least 10 minutes apart",
                "FREQ=DAILY;UNTIL=20200101T000000Z | never comes"
            })
    void whatIsNoRuleOrNeverComesOrTooOftenIsRefusedInWords(String rule, String words) {
        assertThatThrownBy(() -> of(rule)).hasMessageContaining(words);
    }

    @Property(tries = 200)
    void whatIsDueIsSeenToOnceHoweverOftenItIsAskedFor(
            @ForAll @IntRange(min = 1, max = 5000) int minutes, @ForAll boolean catchUp) {
        SnapshotSchedule schedule = schedule(
                catchUp ? SnapshotSchedule.Missed.CATCH_UP : SnapshotSchedule.Missed.SKIP,
                Instant.parse("2026-05-04T00:00:00Z"));
        Instant now = schedule.handled().plusSeconds(minutes * 60L);
        var due = Due.of(schedule, now);
        List<Instant> all = Recurrence.of(schedule).between(schedule.handled(), now, 1000);
        assertThat(due.isPresent()).isEqualTo(!all.isEmpty());
        if (due.isPresent()) {
            assertThat(due.get().at()).isEqualTo(all.get(all.size() - 1)).isBeforeOrEqualTo(now);
            boolean late = due.get().at().plusSeconds(900).isBefore(now);
            assertThat(due.get().take()).isEqualTo(catchUp || !late);
            assertThat(Due.of(schedule.handled(due.get().at()), now)).isEmpty();
        }
        assertThat(Due.of(schedule.end(), now)).isEmpty();
    }

    static SnapshotSchedule schedule(SnapshotSchedule.Missed missed, Instant handled) {
        return new SnapshotSchedule(
                7,
                1,
                "Seasons/2026",
                "Evening, daily",
                Recurrence.weekly(Set.of(DayOfWeek.MONDAY, DayOfWeek.TUESDAY, DayOfWeek.WEDNESDAY)),
                START,
                ZONE,
                5,
                missed,
                handled,
                false);
    }

    @Test
    void schedulesGoOutAsICalendarAndComeBackTheSame() {
        SnapshotSchedule before = schedule(SnapshotSchedule.Missed.SKIP, Instant.EPOCH);
        String text = CalendarFile.write(List.of(before), "Front desk", Instant.parse("2026-05-04T00:00:00Z"));
        assertThat(text)
                .contains("BEGIN:VCALENDAR", "VERSION:2.0", "BEGIN:VEVENT", "RRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE")
                .contains("DTSTART;TZID=/Europe/Brussels:20260302T180000");
        SnapshotSchedule after = CalendarFile.read(text, 1, "", ZoneOffset.UTC).get(0);
        assertThat(after).usingRecursiveComparison().ignoringFields("id").isEqualTo(before);
    }

    @Test
    void aCalendarOfSomebodyElseIsReadToo() {
        String text = String.join(
                "\r\n",
                "BEGIN:VCALENDAR",
                "VERSION:2.0",
                "PRODID:-//Somebody//EN",
                "BEGIN:VEVENT",
                "UID:1",
                "DTSTAMP:20260101T000000Z",
                "DTSTART:20260105T073000",
                "SUMMARY:Morning",
                "RRULE:FREQ=DAILY;INTERVAL=2",
                "END:VEVENT",
                "BEGIN:VEVENT",
                "UID:2",
                "DTSTAMP:20260101T000000Z",
                "DTSTART:20260105T080000",
                "SUMMARY:Once only",
                "END:VEVENT",
                "END:VCALENDAR",
                "");
        List<SnapshotSchedule> found = CalendarFile.read(text, 3, "Seasons", ZONE);
        assertThat(found).hasSize(1);
        assertThat(found.get(0).start()).isEqualTo(LocalDateTime.of(2026, 1, 5, 7, 30));
        assertThat(found.get(0).zone()).isEqualTo(ZONE);
        assertThat(Recurrence.of(found.get(0)).sentence()).isEqualTo("every 2 days at 07:30");
        assertThatThrownBy(() -> CalendarFile.read("no calendar at all", 3, "", ZONE))
                .hasMessageContaining("no recurring event");
    }
}
