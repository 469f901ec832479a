package org.mendedleaf.core.time;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.Year;
import java.time.YearMonth;
import java.time.temporal.ChronoUnit;
import java.time.temporal.WeekFields;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Weeks, months and years as people say them, seen from a day. */
final class Stretch {

    private final LocalDate today;

    Stretch(LocalDate today) {
        this.today = today;
    }

    /** The days of a stretch, both of them in it. */
    record Days(LocalDate first, LocalDate last) {}

    /** The day with this name in the week of a day, as the user's country counts weeks. */
    static LocalDate inWeekOf(LocalDate day, DayOfWeek wanted) {
        LocalDate first = firstOfWeek(day);
        return first.plusDays(
                Math.floorMod(wanted.getValue() - first.getDayOfWeek().getValue(), 7));
    }

    private static LocalDate firstOfWeek(LocalDate day) {
        Locale locale = Locale.getDefault(Locale.Category.FORMAT);
        // A language alone says nothing of how weeks are counted; ISO 8601 does.
        DayOfWeek first = (locale.getCountry().isEmpty() ? WeekFields.ISO : WeekFields.of(locale)).getFirstDayOfWeek();
        return day.minusDays(Math.floorMod(day.getDayOfWeek().getValue() - first.getValue(), 7));
    }

    /** What these words name: this or last week, month or year; a month, with its year or the latest; a year; today. */
    Optional<Days> days(List<String> words) {
        if (words.size() == 1 && MomentWords.vocabulary("today").contains(words.get(0))) {
            return Optional.of(new Days(today, today));
        }
        if (words.size() == 1 && MomentWords.vocabulary("yesterday").contains(words.get(0))) {
            return Optional.of(new Days(today.minusDays(1), today.minusDays(1)));
        }
        boolean last = !words.isEmpty() && MomentWords.vocabulary("last").contains(words.get(0));
        boolean present = !words.isEmpty() && MomentWords.vocabulary("this").contains(words.get(0));
        if (words.size() == 2 && (last || present)) {
            Optional<ChronoUnit> unit = MomentWords.unit(words.get(1));
            if (unit.isPresent()) {
                return days(unit.get(), today.minus(last ? 1 : 0, unit.get()));
            }
        }
        return named(last && words.size() > 1 ? words.subList(1, words.size()) : words, last);
    }

    private static Optional<Days> days(ChronoUnit unit, LocalDate in) {
        return switch (unit) {
            case WEEKS -> Optional.of(new Days(firstOfWeek(in), firstOfWeek(in).plusDays(6)));
            case MONTHS -> Optional.of(days(YearMonth.from(in)));
            case YEARS ->
                Optional.of(new Days(
                        in.withDayOfYear(1), in.withDayOfYear(Year.from(in).length())));
            default -> Optional.empty();
        };
    }

    private static Days days(YearMonth month) {
        return new Days(month.atDay(1), month.atEndOfMonth());
    }

    private Optional<Days> named(List<String> words, boolean last) {
        Optional<Month> month = words.isEmpty() || words.size() > 2
                ? Optional.empty()
                : MomentWords.named(words.get(0), Month.values(), Month::getDisplayName);
        String end = words.isEmpty() ? "" : words.get(words.size() - 1);
        boolean hasYear = end.matches("\\d{4}");
        if (month.isPresent() && words.size() == 2 && hasYear) {
            return Optional.of(days(YearMonth.of(Integer.parseInt(end), month.get())));
        }
        if (month.isPresent() && words.size() == 1) {
            YearMonth at = YearMonth.of(today.getYear(), month.get());
            boolean toCome = at.isAfter(YearMonth.from(today)) || last && at.equals(YearMonth.from(today));
            return Optional.of(days(toCome ? at.minusYears(1) : at));
        }
        return words.size() == 1 && hasYear
                ? days(ChronoUnit.YEARS, LocalDate.of(Integer.parseInt(end), 1, 1))
                : Optional.empty();
    }
}
