package org.mendedleaf.core.time;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.Month;
import java.time.Year;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Days as people type them: in words, as a day of the week, and as a date. */
final class DayText {

    private final LocalDate today;
    private final ZoneId zone;

    /** A reader of days, on this day. */
    DayText(LocalDate today, ZoneId zone) {
        this.today = today;
        this.zone = zone;
    }

    /**
     * The day that these words mean.
     *
     * @param typed all that was typed, for messages
     * @param timed whether a time was said beside it
     * @param night whether that was the night
     * @throws IllegalArgumentException with a message for the user, when they mean none, or more than one
     */
    LocalDate day(String typed, List<String> tokens, boolean timed, boolean night) {
        String all = String.join(" ", tokens);
        if (MomentWords.vocabulary("today").contains(all)) {
            return today;
        }
        if (MomentWords.vocabulary("yesterday").contains(all)) {
            return today.minusDays(1);
        }
        if (MomentWords.vocabulary("dayBeforeYesterday").contains(all)) {
            return today.minusDays(2);
        }
        boolean last = MomentWords.vocabulary("last").contains(tokens.get(0));
        if (last && tokens.size() == 1 && night) {
            return today.minusDays(1);
        }
        if (last && tokens.size() == 2 && MomentWords.unit(tokens.get(1)).isPresent()) {
            throw new IllegalArgumentException(Words.of("moment.stretch", typed));
        }
        Optional<DayOfWeek> weekday = tokens.size() > 2
                ? Optional.empty()
                : MomentWords.named(tokens.get(tokens.size() - 1), DayOfWeek.values(), DayOfWeek::getDisplayName);
        if (weekday.isPresent() && (tokens.size() == 1 || last)) {
            return weekday(typed, weekday.get(), last, timed);
        }
        if (weekday.isPresent() && MomentWords.vocabulary("this").contains(tokens.get(0))) {
            return Stretch.inWeekOf(today, weekday.get());
        }
        Optional<LocalDate> inWeek = inWeek(tokens);
        return inWeek.isPresent() ? inWeek.get() : date(typed, tokens);
    }

    /** A day of this week or the last one, the day said before or behind it. */
    private Optional<LocalDate> inWeek(List<String> tokens) {
        if (tokens.size() != 3) {
            return Optional.empty();
        }
        boolean before = MomentWords.named(tokens.get(0), DayOfWeek.values(), DayOfWeek::getDisplayName)
                .isPresent();
        List<String> week = before ? tokens.subList(1, 3) : tokens.subList(0, 2);
        Optional<DayOfWeek> day =
                MomentWords.named(tokens.get(before ? 0 : 2), DayOfWeek.values(), DayOfWeek::getDisplayName);
        boolean last = MomentWords.vocabulary("last").contains(week.get(0));
        boolean isWeek =
                MomentWords.unit(week.get(1)).filter(u -> u == ChronoUnit.WEEKS).isPresent()
                        && (last || MomentWords.vocabulary("this").contains(week.get(0)));
        return isWeek ? day.map(d -> Stretch.inWeekOf(today.minusWeeks(last ? 1 : 0), d)) : Optional.empty();
    }

    private LocalDate weekday(String typed, DayOfWeek wanted, boolean last, boolean timed) {
        int back = Math.floorMod(today.getDayOfWeek().getValue() - wanted.getValue(), 7);
        if (back == 0 && !last) {
            String time = timed ? typed.substring(typed.indexOf(' ') + 1) : "";
            throw new IllegalArgumentException(Words.of(
                    "moment.todayOrLast",
                    typed,
                    Words.of("moment.vocabulary.today") + (timed ? " " + time : ""),
                    Words.of("moment.lastOf", typed)));
        }
        return today.minusDays(back == 0 ? 7 : back);
    }

    private LocalDate date(String typed, List<String> tokens) {
        if (tokens.size() == 1) {
            return numbers(typed, tokens.get(0));
        }
        int day = -1;
        int year = -1;
        Month month = null;
        Optional<DayOfWeek> weekday = Optional.empty();
        for (String token : tokens) {
            Optional<Month> named = MomentWords.named(token, Month.values(), Month::getDisplayName);
            if (named.isPresent() && month == null) {
                month = named.get();
            } else if (token.matches("\\d{4}") && year < 0) {
                year = Integer.parseInt(token);
            } else if (token.matches("\\d{1,2}(st|nd|rd|th|\\.)?") && day < 0) {
                day = Integer.parseInt(token.replaceAll("\\D", ""));
            } else {
                weekday = MomentWords.named(token, DayOfWeek.values(), DayOfWeek::getDisplayName);
                if (weekday.isEmpty()) {
                    throw MomentWords.unreadable(typed);
                }
            }
        }
        if (month == null || day < 0) {
            throw MomentWords.unreadable(typed);
        }
        LocalDate date = year >= 0 ? LocalDate.of(year, month, day) : latest(typed, day, month.getValue());
        if (weekday.isPresent() && weekday.get() != date.getDayOfWeek()) {
            throw new IllegalArgumentException(Words.of(
                    "moment.otherWeekday",
                    typed,
                    Formats.full(date.atTime(LocalTime.NOON).atZone(zone).toInstant(), zone)
                            .replaceAll(",? 12:00.*", "")));
        }
        return date;
    }

    /** The latest of these days that is not to come. */
    LocalDate latest(String typed, int day, int month) {
        if (month < 1 || month > 12) {
            throw MomentWords.unreadable(typed);
        }
        for (int y = today.getYear(); y > today.getYear() - 8; y--) {
            boolean there = day >= 1 && day <= Month.of(month).length(Year.isLeap(y));
            if (there && !LocalDate.of(y, month, day).isAfter(today)) {
                return LocalDate.of(y, month, day);
            }
        }
        throw MomentWords.unreadable(typed);
    }

    private LocalDate numbers(String typed, String token) {
        if (token.matches("\\d{4}([-/.])\\d{1,2}\\1\\d{1,2}")) {
            String[] parts = token.split("[-/.]");
            return LocalDate.of(Integer.parseInt(parts[0]), Integer.parseInt(parts[1]), Integer.parseInt(parts[2]));
        }
        if (token.matches("\\d{1,2}\\.\\d{1,2}\\.")) {
            // With points it is the day that comes first, wherever people write it so.
            String[] parts = token.split("\\.");
            return latest(typed, Integer.parseInt(parts[0]), Integer.parseInt(parts[1]));
        }
        if (token.matches("\\d{1,2}/\\d{1,2}")) {
            int first = Integer.parseInt(token.substring(0, token.indexOf('/')));
            int second = Integer.parseInt(token.substring(token.indexOf('/') + 1));
            if (first <= 12 && second <= 12 && first != second) {
                throw new IllegalArgumentException(Words.of(
                        "moment.dayOrMonth", typed, latest(typed, first, second), latest(typed, second, first)));
            }
            return second > 12 ? latest(typed, second, first) : latest(typed, first, second);
        }
        if (!token.matches("\\d{1,2}[./]\\d{1,2}[./]\\d{4}")) {
            throw MomentWords.unreadable(typed);
        }
        String[] parts = token.split("[./]");
        int a = Integer.parseInt(parts[0]);
        int b = Integer.parseInt(parts[1]);
        int year = Integer.parseInt(parts[2]);
        boolean dayFirst = token.contains(".") && Words.plain("say.pattern.day").startsWith("d.");
        if (!dayFirst && a <= 12 && b <= 12 && a != b) {
            throw new IllegalArgumentException(
                    Words.of("moment.dayOrMonth", typed, LocalDate.of(year, b, a), LocalDate.of(year, a, b)));
        }
        return !dayFirst && b > 12 ? LocalDate.of(year, a, b) : LocalDate.of(year, b, a);
    }
}
