package org.mendedleaf.core.line;

import java.io.IOException;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Month;
import java.time.OffsetDateTime;
import java.time.Year;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.format.TextStyle;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;

/**
 * Understands moments as people type them: ISO 8601, days and times in words, how long ago, a snapshot by its label, and
 * what was before the last change. A day without a time means its end. What could mean two moments, what the clocks left
 * out or went through twice, and what has not come yet is refused in words.
 *
 * <pre>{@code
 * new MomentText(zone, now, MomentText.NOWHERE).read("last Thursday 17:00")
 * }</pre>
 */
public final class MomentText {

    /** Where there is neither a change nor a snapshot. */
    public static final Around NOWHERE = new Around() {
        @Override
        public Optional<Instant> lastChange() {
            return Optional.empty();
        }

        @Override
        public List<Snapshot> snapshots() {
            return List.of();
        }
    };

    private static final Set<String> FILLERS = vocabulary("fillers");
    /** No file is as old as that. */
    private static final Instant LONG_AGO = Instant.parse("1900-01-01T00:00:00Z");

    private static final String DAY = "\\d{4}-\\d\\d-\\d\\d";

    private static final LocalTime MORNING = LocalTime.of(9, 0);
    private static final LocalTime AFTERNOON = LocalTime.of(15, 0);
    private static final LocalTime EVENING = LocalTime.of(20, 0);
    private static final LocalTime NIGHT = LocalTime.of(23, 0);

    private final ZoneId zone;
    private final Instant now;
    private final Around around;

    /** What moments can be told by, beside the calendar. */
    public interface Around {
        /** When the folder or file that is looked at last changed. */
        Optional<Instant> lastChange() throws IOException;

        /** The snapshots that stand. */
        List<Snapshot> snapshots() throws IOException;
    }

    /** What there is around where no folder and no file is looked at. */
    public static final Around NOTHING_AROUND = new Around() {
        @Override
        public Optional<Instant> lastChange() {
            return Optional.empty();
        }

        @Override
        public List<Snapshot> snapshots() {
            return List.of();
        }
    };

    /** A reader of moments in this zone, at this moment. */
    public MomentText(ZoneId zone, Instant now, Around around) {
        this.zone = zone;
        this.now = now;
        this.around = around;
    }

    private static Set<String> vocabulary(String name) {
        return Set.copyOf(Arrays.asList(Words.of("moment.vocabulary." + name).split(",")));
    }

    /** Whether this text means the present, however the clock goes on. */
    public static boolean isNow(String text) {
        return vocabulary("now").contains(text.strip().toLowerCase(Locale.ROOT));
    }

    /**
     * The moment that a text means.
     *
     * @throws IllegalArgumentException in words, when it means none, or more than one, or one that has not come yet
     */
    public Instant read(String text) throws IOException {
        String typed = text.strip();
        if (isNow(typed)) {
            return now;
        }
        try {
            Optional<Instant> iso = iso(typed);
            Instant moment = iso.isPresent() ? iso.get() : words(typed);
            if (moment.isBefore(LONG_AGO)) {
                throw unreadable(typed);
            }
            if (moment.isAfter(now)) {
                throw new IllegalArgumentException(Words.of("moment.future", typed, Say.full(moment, zone)));
            }
            return moment;
        } catch (DateTimeException | ArithmeticException e) {
            throw unreadable(typed);
        }
    }

    /**
     * The end that a text means, of something that goes on until then: a day, whose end is meant; how long from now; or a
     * moment that is yet to come.
     *
     * @throws IllegalArgumentException in words, when it means none, or one that has passed
     */
    public Instant readEnd(String text) throws IOException {
        String typed = text.strip();
        try {
            Optional<Instant> iso = iso(typed);
            Instant end = typed.matches(DAY)
                    ? LocalDate.parse(typed).plusDays(1).atStartOfDay(zone).toInstant()
                    : iso.isPresent() ? iso.get() : ahead(typed);
            if (!end.isAfter(now)) {
                throw new IllegalArgumentException(Words.of("hold.past"));
            }
            return end;
        } catch (DateTimeException | ArithmeticException e) {
            throw new IllegalArgumentException(Words.of("moment.noEnd", typed), e);
        }
    }

    private Instant ahead(String typed) {
        try {
            return span(typed, tokens(typed), 1);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(Words.of("moment.noEnd", typed), e);
        }
    }

    private static List<String> tokens(String typed) {
        List<String> tokens =
                new ArrayList<>(Arrays.asList(typed.toLowerCase(Locale.ROOT).split("[\\s,]+")));
        tokens.removeIf(t -> FILLERS.contains(t) || t.isEmpty());
        return tokens;
    }

    private static IllegalArgumentException unreadable(String typed) {
        return new IllegalArgumentException(Words.of("moment.unreadable", typed));
    }

    private Optional<Instant> iso(String typed) {
        if (!typed.matches(DAY + "([T ].*)?")) {
            return Optional.empty();
        }
        String text = typed.length() > 10 ? typed.substring(0, 10) + "T" + typed.substring(11) : typed;
        try {
            if (text.length() == 10) {
                return Optional.of(endOf(LocalDate.parse(text)));
            }
            if (text.endsWith("]")) {
                return Optional.of(ZonedDateTime.parse(text).toInstant());
            }
            if (text.endsWith("Z") || text.matches(".*T.*[+-]\\d\\d(:?\\d\\d)?$")) {
                return Optional.of(OffsetDateTime.parse(text).toInstant());
            }
            return Optional.of(local(LocalDateTime.parse(text)));
        } catch (DateTimeParseException e) {
            // The time may still be in words, as in "2026-05-04 evening".
            return Optional.empty();
        }
    }

    /** The last moment of a day; of today, now. */
    private Instant endOf(LocalDate day) {
        if (day.equals(today())) {
            return now;
        }
        return day.plusDays(1).atStartOfDay(zone).toInstant().minus(1, ChronoUnit.MICROS);
    }

    private LocalDate today() {
        return now.atZone(zone).toLocalDate();
    }

    private Instant local(LocalDateTime time) {
        List<ZoneOffset> offsets = zone.getRules().getValidOffsets(time);
        String said = DateTimeFormatter.ofPattern("d MMM yyyy, HH:mm", Locale.getDefault(Locale.Category.FORMAT))
                .format(time);
        if (offsets.isEmpty()) {
            LocalTime after =
                    zone.getRules().getTransition(time).getDateTimeAfter().toLocalTime();
            throw new IllegalArgumentException(Words.of("moment.leftOut", said, after));
        }
        if (offsets.size() > 1) {
            throw new IllegalArgumentException(
                    Words.of("moment.twice", said, time.atOffset(offsets.get(0)), time.atOffset(offsets.get(1))));
        }
        return time.toInstant(offsets.get(0));
    }

    private Instant words(String typed) throws IOException {
        String lower = typed.toLowerCase(Locale.ROOT);
        for (String word : vocabulary("snapshot")) {
            if (lower.startsWith(word + " ")) {
                return snapshot(typed.substring(word.length()).strip());
            }
        }
        List<String> tokens = tokens(typed);
        if (vocabulary("beforeLastChange").contains(String.join(" ", tokens))) {
            return around.lastChange()
                    .map(t -> t.minus(1, ChronoUnit.MICROS))
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("moment.noChange")));
        }
        if (!tokens.isEmpty() && vocabulary("ago").contains(tokens.get(tokens.size() - 1))) {
            return span(typed, tokens.subList(0, tokens.size() - 1), -1);
        }
        return dayAndTime(typed, tokens);
    }

    private Instant snapshot(String label) throws IOException {
        List<Snapshot> named = around.snapshots().stream()
                .filter(s -> s.label().equalsIgnoreCase(label))
                .toList();
        if (named.isEmpty()) {
            throw new IllegalArgumentException(Words.of("moment.noSnapshot", label));
        }
        if (named.size() > 1) {
            throw new IllegalArgumentException(Words.of(
                    "moment.manySnapshots",
                    label,
                    String.join(
                            "; ",
                            named.stream().map(s -> Say.full(s.at(), zone)).toList())));
        }
        return named.get(0).at();
    }

    /** So long before now, or after it. */
    private Instant span(String typed, List<String> tokens, int direction) {
        List<String> spaced = Arrays.asList(
                String.join(" ", tokens).replaceAll("(\\d)(\\p{L})", "$1 $2").split(" "));
        ZonedDateTime at = now.atZone(zone);
        boolean half = false;
        int number = -1;
        boolean any = false;
        for (String token : spaced) {
            if (vocabulary("and").contains(token)) {
                continue;
            }
            if (vocabulary("half").contains(token)) {
                half = true;
            } else if (number(token) >= 0) {
                number = number(token);
            } else if (unit(token).isPresent() && (number >= 0 || half)) {
                ChronoUnit unit = unit(token).get();
                at = half && number <= 1 ? half(typed, at, unit, direction) : at.plus((long) direction * number, unit);
                half = false;
                number = -1;
                any = true;
            } else {
                throw unreadable(typed);
            }
        }
        if (!any || number >= 0) {
            throw unreadable(typed);
        }
        return at.toInstant();
    }

    private static ZonedDateTime half(String typed, ZonedDateTime at, ChronoUnit unit, int direction) {
        return switch (unit) {
            case HOURS -> at.plusMinutes(30L * direction);
            case DAYS -> at.plusHours(12L * direction);
            case YEARS -> at.plusMonths(6L * direction);
            default -> throw unreadable(typed);
        };
    }

    private static int number(String token) {
        if (token.matches("\\d{1,6}")) {
            return Integer.parseInt(token);
        }
        List<String> numbers =
                Arrays.asList(Words.of("moment.vocabulary.numbers").split(","));
        int index = numbers.indexOf(token);
        return vocabulary("one").contains(token) ? 1 : index < 0 ? -1 : index + 1;
    }

    private static Optional<ChronoUnit> unit(String token) {
        for (ChronoUnit unit : List.of(
                ChronoUnit.SECONDS,
                ChronoUnit.MINUTES,
                ChronoUnit.HOURS,
                ChronoUnit.DAYS,
                ChronoUnit.WEEKS,
                ChronoUnit.MONTHS,
                ChronoUnit.YEARS)) {
            if (vocabulary(unit.name()).contains(token)) {
                return Optional.of(unit);
            }
        }
        return Optional.empty();
    }

    private Instant dayAndTime(String typed, List<String> tokens) {
        List<String> day = new ArrayList<>();
        LocalTime time = null;
        boolean night = false;
        for (int i = 0; i < tokens.size(); i++) {
            String token = tokens.get(i);
            boolean half = i + 1 < tokens.size() && tokens.get(i + 1).matches("[ap]\\.?m\\.?");
            Optional<LocalTime> found = time(half ? token + tokens.get(i + 1) : token);
            if (found.isEmpty()) {
                day.add(token);
                continue;
            }
            if (time != null) {
                throw unreadable(typed);
            }
            time = found.get();
            night = vocabulary("night").contains(token);
            i += half ? 1 : 0;
            if (vocabulary("tonight").contains(token)) {
                day.add(Words.of("moment.vocabulary.today"));
            }
        }
        if (tokens.stream().anyMatch(vocabulary("midnight")::contains)) {
            throw new IllegalArgumentException(Words.of("moment.midnight", typed));
        }
        if (time == null && day.isEmpty()) {
            throw unreadable(typed);
        }
        LocalDate date = day.isEmpty() || vocabulary("this").contains(String.join(" ", day))
                ? today()
                : day(typed, day, time != null, night);
        return time == null ? endOf(date) : local(date.atTime(time));
    }

    private static Optional<LocalTime> time(String token) {
        if (vocabulary("morning").contains(token)) {
            return Optional.of(MORNING);
        }
        if (vocabulary("noon").contains(token)) {
            return Optional.of(LocalTime.NOON);
        }
        if (vocabulary("afternoon").contains(token)) {
            return Optional.of(AFTERNOON);
        }
        if (vocabulary("evening").contains(token)) {
            return Optional.of(EVENING);
        }
        if (vocabulary("night").contains(token) || vocabulary("tonight").contains(token)) {
            return Optional.of(NIGHT);
        }
        if (token.matches("\\d{1,2}:\\d\\d(:\\d\\d)?")) {
            return Optional.of(LocalTime.parse((token.indexOf(':') == 1 ? "0" : "") + token));
        }
        if (token.matches("\\d{1,2}(:\\d\\d)?[ap]\\.?m\\.?")) {
            boolean afternoon = token.contains("p");
            String[] parts = token.replaceAll("[ap]\\.?m\\.?", "").split(":");
            int hour = Integer.parseInt(parts[0]);
            if (hour < 1 || hour > 12) {
                return Optional.empty();
            }
            return Optional.of(
                    LocalTime.of(hour % 12 + (afternoon ? 12 : 0), parts.length > 1 ? Integer.parseInt(parts[1]) : 0));
        }
        return Optional.empty();
    }

    private LocalDate day(String typed, List<String> tokens, boolean timed, boolean night) {
        String all = String.join(" ", tokens);
        if (vocabulary("today").contains(all)) {
            return today();
        }
        if (vocabulary("yesterday").contains(all)) {
            return today().minusDays(1);
        }
        if (vocabulary("dayBeforeYesterday").contains(all)) {
            return today().minusDays(2);
        }
        boolean last = vocabulary("last").contains(tokens.get(0));
        if (last && tokens.size() == 1 && night) {
            return today().minusDays(1);
        }
        if (last && tokens.size() == 2 && unit(tokens.get(1)).isPresent()) {
            throw new IllegalArgumentException(Words.of("moment.stretch", typed));
        }
        Optional<DayOfWeek> weekday = tokens.size() > 2
                ? Optional.empty()
                : named(tokens.get(tokens.size() - 1), DayOfWeek.values(), DayOfWeek::getDisplayName);
        if (weekday.isPresent() && (tokens.size() == 1 || last)) {
            return weekday(typed, weekday.get(), last, timed);
        }
        return date(typed, tokens);
    }

    private LocalDate weekday(String typed, DayOfWeek wanted, boolean last, boolean timed) {
        int back = Math.floorMod(today().getDayOfWeek().getValue() - wanted.getValue(), 7);
        if (back == 0 && !last) {
            String time = timed ? typed.substring(typed.indexOf(' ') + 1) : "";
            throw new IllegalArgumentException(Words.of(
                    "moment.todayOrLast",
                    typed,
                    Words.of("moment.vocabulary.today") + (timed ? " " + time : ""),
                    "last " + typed));
        }
        return today().minusDays(back == 0 ? 7 : back);
    }

    /** How the constants of an enum are called in a style and language. */
    private interface Naming<T> {
        String name(T value, TextStyle style, Locale locale);
    }

    /** By its whole name, or three letters of it and more, in English or in the user's language. */
    private static <T> Optional<T> named(String token, T[] values, Naming<T> naming) {
        String bare = token.endsWith(".") ? token.substring(0, token.length() - 1) : token;
        for (Locale locale : List.of(Locale.ENGLISH, Locale.getDefault(Locale.Category.FORMAT))) {
            for (T value : values) {
                Function<TextStyle, String> name =
                        style -> naming.name(value, style, locale).toLowerCase(Locale.ROOT);
                if (bare.length() >= 3 && name.apply(TextStyle.FULL).startsWith(bare)
                        || name.apply(TextStyle.SHORT).equals(token)) {
                    return Optional.of(value);
                }
            }
        }
        return Optional.empty();
    }

    private LocalDate date(String typed, List<String> tokens) {
        if (tokens.size() == 1) {
            return numbers(typed, tokens.get(0));
        }
        int day = -1;
        int year = -1;
        Month month = null;
        for (String token : tokens) {
            Optional<Month> named = named(token, Month.values(), Month::getDisplayName);
            if (named.isPresent() && month == null) {
                month = named.get();
            } else if (token.matches("\\d{4}") && year < 0) {
                year = Integer.parseInt(token);
            } else if (token.matches("\\d{1,2}(st|nd|rd|th|\\.)?") && day < 0) {
                day = Integer.parseInt(token.replaceAll("\\D", ""));
            } else if (named(token, DayOfWeek.values(), DayOfWeek::getDisplayName)
                    .isEmpty()) {
                throw unreadable(typed);
            }
        }
        if (month == null || day < 0) {
            throw unreadable(typed);
        }
        if (year >= 0) {
            return LocalDate.of(year, month, day);
        }
        for (int y = today().getYear(); y > today().getYear() - 8; y--) {
            boolean there = day <= month.length(Year.isLeap(y));
            if (there && !LocalDate.of(y, month, day).isAfter(today())) {
                return LocalDate.of(y, month, day);
            }
        }
        throw unreadable(typed);
    }

    private static LocalDate numbers(String typed, String token) {
        if (token.matches("\\d{4}-\\d\\d-\\d\\d")) {
            return LocalDate.parse(token);
        }
        if (!token.matches("\\d{1,2}[./]\\d{1,2}[./]\\d{4}")) {
            throw unreadable(typed);
        }
        String[] parts = token.split("[./]");
        int a = Integer.parseInt(parts[0]);
        int b = Integer.parseInt(parts[1]);
        int year = Integer.parseInt(parts[2]);
        if (a <= 12 && b <= 12 && a != b) {
            throw new IllegalArgumentException(
                    Words.of("moment.dayOrMonth", typed, LocalDate.of(year, b, a), LocalDate.of(year, a, b)));
        }
        return b > 12 ? LocalDate.of(year, a, b) : LocalDate.of(year, b, a);
    }
}
