package org.mendedleaf.desktop.snapshots;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.snapshots.Recurrence;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** A schedule that is being made, without a scene: plain choices, and the rule that comes of them. */
final class ScheduleModel {

    private final ZoneId zone;
    private final Instant now;
    private Often often = Often.DAILY;
    private String time = "18:00";
    private final Set<DayOfWeek> days = EnumSet.of(DayOfWeek.MONDAY, DayOfWeek.THURSDAY);
    private int day = 1;
    private int which = 1;
    private DayOfWeek weekday = DayOfWeek.MONDAY;
    private int hours = 4;
    private String rule = "FREQ=WEEKLY;INTERVAL=2;BYDAY=FR";
    private String keep = "14";
    private SnapshotSchedule.Missed missed = SnapshotSchedule.Missed.CATCH_UP;
    private String label = "";

    ScheduleModel(ZoneId zone, Instant now) {
        this.zone = zone;
        this.now = now;
    }

    /** How often, in plain choices. */
    enum Often {
        /** Every day. */
        DAILY,
        /** Monday to Friday. */
        WORKDAYS,
        /** On chosen days of the week. */
        WEEKLY,
        /** On a day of the month by its number. */
        MONTH_DAY,
        /** On the last day of the month. */
        MONTH_END,
        /** On such a day as the first Monday of the month. */
        MONTH_WEEKDAY,
        /** Every few hours. */
        HOURLY,
        /** By a rule that is typed. */
        OWN
    }

    void often(Often to) {
        often = to;
    }

    Often often() {
        return often;
    }

    void time(String typed) {
        time = typed;
    }

    void day(DayOfWeek d, boolean on) {
        if (on) {
            days.add(d);
        } else {
            days.remove(d);
        }
    }

    Set<DayOfWeek> days() {
        return Set.copyOf(days);
    }

    void monthDay(int number) {
        day = number;
    }

    void monthWeekday(int whichOne, DayOfWeek of) {
        which = whichOne;
        weekday = of;
    }

    void hours(int every) {
        hours = every;
    }

    void rule(String typed) {
        rule = typed;
    }

    String rule() {
        return rule;
    }

    void keep(String typed) {
        keep = typed;
    }

    void missed(SnapshotSchedule.Missed choice) {
        missed = choice;
    }

    void label(String typed) {
        label = typed;
    }

    private String made() {
        return switch (often) {
            case DAILY -> Recurrence.daily();
            case WORKDAYS -> Recurrence.weekly(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY));
            case WEEKLY -> Recurrence.weekly(days);
            case MONTH_DAY -> Recurrence.monthly(day);
            case MONTH_END -> Recurrence.monthly(-1);
            case MONTH_WEEKDAY -> Recurrence.monthly(which, weekday);
            case HOURLY -> Recurrence.hourly(hours);
            case OWN -> rule;
        };
    }

    /**
     * The schedule that the choices come to.
     *
     * @throws IllegalArgumentException with a message for the user, when they come to none
     */
    SnapshotSchedule schedule(long place, String path) {
        if (often == Often.WEEKLY && days.isEmpty()) {
            throw new IllegalArgumentException(Words.of("schedule.noDay"));
        }
        LocalTime clock;
        try {
            String typed = time.strip();
            clock = LocalTime.parse(typed.length() == 4 ? "0" + typed : typed);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(Words.of("schedule.badTime", time), e);
        }
        String many = keep.strip();
        if (!many.matches("\\d{1,5}")) {
            throw new IllegalArgumentException(Words.of("schedule.badKeep", SnapshotSchedule.MOST, many));
        }
        LocalDate today = now.atZone(zone).toLocalDate();
        SnapshotSchedule made = new SnapshotSchedule(
                0,
                place,
                path,
                label.strip(),
                made(),
                today.atTime(clock),
                zone,
                Integer.parseInt(many),
                missed,
                Instant.EPOCH,
                false);
        Recurrence.of(made);
        return made;
    }

    /** A schedule in a sentence, with its next three times. */
    static String sentence(SnapshotSchedule s, Instant now) {
        Recurrence r = Recurrence.of(s);
        List<Instant> next = r.next(now, 3);
        String kept = s.keep() == 0 ? Words.of("schedule.keepAll") : Words.of("schedule.keep", s.keep());
        String times = next.isEmpty()
                ? Words.of("schedule.over")
                : Words.of(
                        "schedule.next",
                        next.stream().map(n -> Formats.coming(n, now, s.zone())).collect(Collectors.joining(" · ")));
        String folder = s.path().isEmpty() ? "" : Words.of("schedule.covers", s.path());
        String said = r.sentence() + ", " + kept + ", " + Words.of("schedule.missed." + s.missed()) + folder;
        return capital(said) + ".\n" + capital(times) + ".";
    }

    private static String capital(String words) {
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }
}
