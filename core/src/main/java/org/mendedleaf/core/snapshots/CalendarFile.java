package org.mendedleaf.core.snapshots;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.io.TimezoneAssignment;
import biweekly.io.WriteContext;
import biweekly.io.scribe.property.RecurrenceRuleScribe;
import biweekly.property.DateStart;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.TimeZone;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.words.Words;

/**
 * Schedules as iCalendar (RFC 5545): an event for each, with its rule, its start in its zone, and what the standard has no
 * word for in properties of our own. Zones go by their name in the common registry, with a slash before it.
 */
public final class CalendarFile {

    private static final String KEEP = "X-MENDED-LEAF-KEEP";
    private static final String MISSED = "X-MENDED-LEAF-MISSED";
    private static final String PATH = "X-MENDED-LEAF-PATH";

    private CalendarFile() {}

    /** The text of a calendar with these schedules. */
    public static String write(List<SnapshotSchedule> schedules, String place, Instant now) {
        ICalendar calendar = new ICalendar();
        calendar.setProductId("-//Mended Leaf//Snapshots//EN");
        for (SnapshotSchedule s : schedules) {
            VEvent event = new VEvent();
            event.setUid("schedule-" + s.id() + "@" + place.replaceAll("[^A-Za-z0-9]+", "-"));
            event.setDateTimeStamp(Date.from(now));
            event.setSummary(s.label().isEmpty() ? Words.of("schedule.summary", place) : s.label());
            DateStart start = new DateStart(Date.from(s.start().atZone(s.zone()).toInstant()), true);
            event.setDateStart(start);
            calendar.getTimezoneInfo()
                    .setTimezone(
                            start,
                            new TimezoneAssignment(
                                    TimeZone.getTimeZone(s.zone()), s.zone().getId()));
            event.addExperimentalProperty("RRULE", s.rule());
            event.addExperimentalProperty(KEEP, String.valueOf(s.keep()));
            event.addExperimentalProperty(MISSED, s.missed().name());
            event.addExperimentalProperty(PATH, s.path());
            calendar.addEvent(event);
        }
        return Biweekly.write(calendar).version(ICalVersion.V2_0).go();
    }

    /**
     * Reads the recurring events of a calendar as schedules for a folder.
     *
     * @param local zone of events that name none
     * @throws IllegalArgumentException with a message for the user, when there is none in it, or one with a rule that is none
     */
    public static List<SnapshotSchedule> read(String text, long place, String path, ZoneId local) {
        ICalendar calendar = Biweekly.parse(text).first();
        List<SnapshotSchedule> found = new ArrayList<>();
        if (calendar != null) {
            for (VEvent event : calendar.getEvents()) {
                DateStart start = event.getDateStart();
                if (event.getRecurrenceRule() != null && start != null && start.getValue() != null) {
                    found.add(schedule(calendar, event, start, place, path, local));
                }
            }
        }
        if (found.isEmpty()) {
            throw new IllegalArgumentException(Words.of("schedule.noEvents"));
        }
        found.forEach(Recurrence::of);
        return found;
    }

    private static SnapshotSchedule schedule(
            ICalendar calendar, VEvent event, DateStart start, long place, String path, ZoneId local) {
        String rule = new RecurrenceRuleScribe()
                .writeText(
                        event.getRecurrenceRule(),
                        new WriteContext(ICalVersion.V2_0, calendar.getTimezoneInfo(), null));
        TimezoneAssignment assigned = calendar.getTimezoneInfo().getTimezone(start);
        boolean floating = assigned == null || calendar.getTimezoneInfo().isFloating(start);
        ZoneId zone = floating ? local : assigned.getTimeZone().toZoneId();
        // Without a zone the library reads the digits on this computer's clock.
        LocalDateTime at = start.getValue()
                .toInstant()
                .atZone(floating ? ZoneId.systemDefault() : zone)
                .toLocalDateTime();
        String keep = own(event, KEEP);
        String own = own(event, PATH);
        String label = event.getSummary() == null ? "" : event.getSummary().getValue();
        return new SnapshotSchedule(
                0,
                place,
                path.isEmpty() ? own : path,
                label == null ? "" : label,
                rule,
                at,
                zone,
                keep.matches("\\d{1,5}") ? Integer.parseInt(keep) : 0,
                own(event, MISSED).equals(SnapshotSchedule.Missed.SKIP.name())
                        ? SnapshotSchedule.Missed.SKIP
                        : SnapshotSchedule.Missed.CATCH_UP,
                Instant.EPOCH,
                false);
    }

    private static String own(VEvent event, String name) {
        return event.getExperimentalProperty(name) == null
                ? ""
                : String.valueOf(event.getExperimentalProperty(name).getValue());
    }
}
