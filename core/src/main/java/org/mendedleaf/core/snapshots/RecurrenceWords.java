package org.mendedleaf.core.snapshots;

import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Says a rule of recurrence (RFC 5545) in a sentence. */
final class RecurrenceWords {

    private final String text;
    private final LocalDateTime start;

    RecurrenceWords(String text, LocalDateTime start) {
        this.text = text;
        this.start = start;
    }

    /** In a sentence: {@code Monday to Friday at 18:00}. */
    String sentence() {
        Map<String, String> parts = new HashMap<>();
        for (String part : text.split(";")) {
            int equals = part.indexOf('=');
            if (equals > 0) {
                parts.put(part.substring(0, equals), part.substring(equals + 1));
            }
        }
        String frequency = parts.getOrDefault("FREQ", "");
        int interval = number(parts.getOrDefault("INTERVAL", "1"), 1);
        String clock = Formats.formatter("HH:mm").format(start);
        Set<String> known = new TreeSet<>(Set.of("FREQ", "INTERVAL", "UNTIL", "COUNT", "WKST"));
        String said = switch (frequency) {
            case "HOURLY" -> Words.of("schedule.hourly", interval, clock);
            case "DAILY" -> Words.of("schedule.daily", interval, clock);
            case "WEEKLY" -> {
                known.add("BYDAY");
                yield Words.of("schedule.weekly", interval, days(parts), clock);
            }
            case "MONTHLY" -> {
                known.add(parts.containsKey("BYDAY") ? "BYDAY" : "BYMONTHDAY");
                yield monthly(parts, interval, clock);
            }
            case "YEARLY" ->
                Words.of(
                        "schedule.yearly", interval, Formats.formatter("d MMMM").format(start), clock);
            default -> "";
        };
        if (said.isEmpty() || !known.containsAll(parts.keySet())) {
            return Words.of("schedule.own", text, clock);
        }
        return said + ending(parts);
    }

    private static int number(String digits, int otherwise) {
        return digits.matches("-?\\d{1,4}") ? Integer.parseInt(digits) : otherwise;
    }

    private static String ending(Map<String, String> parts) {
        if (parts.containsKey("COUNT")) {
            return Words.of("schedule.count", number(parts.getOrDefault("COUNT", ""), 0));
        }
        String until = parts.getOrDefault("UNTIL", "");
        return until.length() < 8
                ? ""
                : Words.of(
                        "schedule.until",
                        Formats.formatter("d MMM yyyy")
                                .format(DateTimeFormatter.BASIC_ISO_DATE.parse(until.substring(0, 8))));
    }

    private String days(Map<String, String> parts) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        for (String day : parts.getOrDefault("BYDAY", "").split(",")) {
            if (Recurrence.DAYS.contains(day)) {
                days.add(DayOfWeek.of(Recurrence.DAYS.indexOf(day) + 1));
            }
        }
        if (days.isEmpty()) {
            days.add(start.getDayOfWeek());
        }
        if (days.size() == 7) {
            return Words.of("schedule.allDays");
        }
        if (days.equals(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY))) {
            return Words.of(
                    "schedule.toDay",
                    DayOfWeek.MONDAY.getDisplayName(TextStyle.FULL, Words.locale()),
                    DayOfWeek.FRIDAY.getDisplayName(TextStyle.FULL, Words.locale()));
        }
        List<String> names = days.stream()
                .map(d -> d.getDisplayName(TextStyle.FULL, Words.locale()))
                .toList();
        return names.size() == 1
                ? names.get(0)
                : Words.of(
                        "schedule.andDay",
                        String.join(", ", names.subList(0, names.size() - 1)),
                        names.get(names.size() - 1));
    }

    private String monthly(Map<String, String> parts, int interval, String clock) {
        String byDay = parts.getOrDefault("BYDAY", "");
        if (byDay.matches("(-1|[1-5])(MO|TU|WE|TH|FR|SA|SU)")) {
            int which = Integer.parseInt(byDay.substring(0, byDay.length() - 2));
            DayOfWeek day = DayOfWeek.of(Recurrence.DAYS.indexOf(byDay.substring(byDay.length() - 2)) + 1);
            return Words.of(
                    "schedule.monthlyOn",
                    interval,
                    Words.of("schedule.which." + (which < 0 ? "last" : which)),
                    day.getDisplayName(TextStyle.FULL, Words.locale()),
                    clock);
        }
        if (!byDay.isEmpty()) {
            return "";
        }
        String byMonthDay = parts.getOrDefault("BYMONTHDAY", String.valueOf(start.getDayOfMonth()));
        if (!byMonthDay.matches("-1|\\d{1,2}")) {
            return "";
        }
        return byMonthDay.equals("-1")
                ? Words.of("schedule.monthlyLast", interval, clock)
                : Words.of("schedule.monthly", interval, Integer.parseInt(byMonthDay), clock);
    }
}
