package org.mendedleaf.core.time;

import java.io.IOException;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Understands moments as people type them: ISO 8601, days and times in words, how long ago, the beginning or the end of a week,
 * month or year, a snapshot by its label or number, a version of the file that is asked about, and what was before the last
 * change. A day without a time means its end. What could mean two moments, what the clocks left
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
        public List<Named> snapshots() {
            return List.of();
        }
    };

    /** No file is as old as that. */
    private static final Instant LONG_AGO = Instant.parse("1900-01-01T00:00:00Z");

    private static final String DAY = "\\d{4}-\\d\\d-\\d\\d";

    private final ZoneId zone;
    private final Instant now;
    private final Around around;
    private final boolean daysBegin;
    private final DayText days;
    private final SpanText spans;

    /**
     * A moment that has a name: that of a snapshot.
     *
     * @param number by which it can be asked for
     * @param label what people call it; empty when nobody named it
     * @param at the moment
     */
    public record Named(long number, String label, Instant at) {}

    /** What moments can be told by, beside the calendar. */
    public interface Around {
        /** When the folder or file that is looked at last changed. */
        Optional<Instant> lastChange() throws IOException;

        /** The snapshots that stand. */
        List<Named> snapshots() throws IOException;

        /** When a version of the file that is asked about was saved; empty where there is none, and of a folder. */
        default Optional<Instant> version(String label) throws IOException {
            return Optional.empty();
        }
    }

    /** A reader of moments in this zone, at this moment. */
    public MomentText(ZoneId zone, Instant now, Around around) {
        this(zone, now, around, false);
    }

    private MomentText(ZoneId zone, Instant now, Around around, boolean daysBegin) {
        this.daysBegin = daysBegin;
        this.zone = zone;
        this.now = now;
        this.around = around;
        this.days = new DayText(today(), zone);
        this.spans = new SpanText(now, zone);
    }

    /** Whether this text means the present, however the clock goes on. */
    public static boolean isNow(String text) {
        String word = text.strip().toLowerCase(Locale.ROOT);
        return MomentWords.vocabulary("now").contains(word)
                || MomentWords.vocabulary("justNow").contains(word);
    }

    /**
     * The moment that a text means.
     *
     * @throws IllegalArgumentException with a message for the user, when it means none, or more than one, or one that has not come yet
     */
    public Instant read(String text) throws IOException {
        String typed = text.strip();
        if (isNow(typed)) {
            return now;
        }
        try {
            Optional<Instant> iso = iso(typed);
            Instant moment = iso.isPresent() ? iso.get() : wordsOrSnapshot(typed);
            if (moment.isBefore(LONG_AGO)) {
                throw MomentWords.unreadable(typed);
            }
            if (moment.isAfter(now)) {
                throw new IllegalArgumentException(Words.of("moment.future", typed, Formats.full(moment, zone)));
            }
            return moment;
        } catch (DateTimeException | ArithmeticException e) {
            throw MomentWords.unreadable(typed);
        }
    }

    /**
     * The moment from which on something counts that a text means: as {@link #read}, but a day without a time means its
     * beginning, since what happened on it counts.
     *
     * @throws IllegalArgumentException as there
     */
    public Instant readSince(String text) throws IOException {
        return new MomentText(zone, now, around, true).read(text);
    }

    /**
     * The end that a text means, of something that goes on until then: a day, whose end is meant; how long from now; or a
     * moment that is yet to come.
     *
     * @throws IllegalArgumentException with a message for the user, when it means none, or one that has passed
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
            return spans.span(typed, MomentWords.tokens(typed), 1);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(Words.of("moment.noEnd", typed), e);
        }
    }

    /** A snapshot by its label or number alone, where nothing else has that reading. */
    private Instant wordsOrSnapshot(String typed) throws IOException {
        try {
            return words(typed);
        } catch (MomentWords.UnreadableException e) {
            List<Named> named = named(typed);
            if (named.isEmpty()) {
                throw e;
            }
            return only(typed, named);
        }
    }

    private Optional<Instant> iso(String typed) {
        if (!typed.matches(DAY + "([T ].*)?")) {
            return Optional.empty();
        }
        String text = typed.length() > 10 ? typed.substring(0, 10) + "T" + typed.substring(11) : typed;
        try {
            if (text.length() == 10) {
                return Optional.of(alone(LocalDate.parse(text)));
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

    /** What a day without a time means. */
    private Instant alone(LocalDate day) {
        return daysBegin ? day.atStartOfDay(zone).toInstant() : endOf(day);
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
        String said = Formats.formatter("d MMM yyyy, HH:mm").format(time);
        if (offsets.isEmpty()) {
            LocalTime after =
                    zone.getRules().getTransition(time).getDateTimeAfter().toLocalTime();
            throw new IllegalArgumentException(Words.of("moment.leftOut", said, Formats.time(after)));
        }
        if (offsets.size() > 1) {
            throw new IllegalArgumentException(
                    Words.of("moment.twice", said, time.atOffset(offsets.get(0)), time.atOffset(offsets.get(1))));
        }
        return time.toInstant(offsets.get(0));
    }

    private Instant words(String typed) throws IOException {
        String lower = typed.toLowerCase(Locale.ROOT);
        for (String word : MomentWords.vocabulary("snapshot")) {
            if (lower.startsWith(word + " ")) {
                return snapshot(typed.substring(word.length()).strip());
            }
        }
        for (String word : MomentWords.vocabulary("version")) {
            if (lower.startsWith(word + " ")) {
                String label = typed.substring(word.length()).strip();
                return around.version(label)
                        .orElseThrow(() -> new IllegalArgumentException(Words.of("moment.noVersion", label)));
            }
        }
        List<String> tokens = MomentWords.tokens(bareHours(typed));
        String all = String.join(" ", tokens);
        if (MomentWords.vocabulary("beforeLastChange").contains(all)) {
            return around.lastChange()
                    .map(t -> t.minus(1, ChronoUnit.MICROS))
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("moment.noChange")));
        }
        if (MomentWords.vocabulary("earlierToday").contains(all)) {
            Instant midnight = today().atStartOfDay(zone).toInstant();
            return around.lastChange()
                    .map(t -> t.minus(1, ChronoUnit.MICROS))
                    .filter(midnight::isBefore)
                    .orElse(midnight);
        }
        if (isTomorrow(tokens)) {
            throw new IllegalArgumentException(Words.of("moment.tomorrow", typed));
        }
        Stretch stretch = new Stretch(today());
        boolean begins =
                !tokens.isEmpty() && MomentWords.vocabulary("beginning").contains(tokens.get(0));
        if (begins || !tokens.isEmpty() && MomentWords.vocabulary("end").contains(tokens.get(0))) {
            Stretch.Days days =
                    stretch.days(tokens.subList(1, tokens.size())).orElseThrow(() -> MomentWords.unreadable(typed));
            return begins ? days.first().atStartOfDay(zone).toInstant() : endOf(days.last());
        }
        Optional<Instant> before = before(typed, tokens);
        if (before.isPresent()) {
            return before.get();
        }
        int ago = ago(tokens);
        if (ago > 0) {
            return ago(typed, tokens.subList(0, ago), tokens.subList(ago + 1, tokens.size()));
        }
        return dayAndTime(typed, tokens);
    }

    /** An hour alone counts as one where it is said to be: {@code at 17}. */
    private static String bareHours(String typed) {
        String at = String.join("|", MomentWords.vocabulary("at"));
        return typed.replaceAll("(?iu)(^|\\s)(" + at + ")\\s+(\\d{1,2})(?=$|[\\s,])", "$1$3:00");
    }

    /** In some languages one word is the next day and, behind another day, its morning. */
    private static boolean isTomorrow(List<String> tokens) {
        Set<String> morning = MomentWords.vocabulary("morning");
        Set<String> tomorrow = MomentWords.vocabulary("tomorrow");
        return !tokens.isEmpty() && tomorrow.contains(tokens.get(0))
                || tokens.stream().anyMatch(t -> tomorrow.contains(t) && !morning.contains(t));
    }

    /** So long ago where the language says that in front, as in {@code vor 3 Stunden}. */
    private Optional<Instant> before(String typed, List<String> tokens) {
        int at = tokens.isEmpty() || MomentWords.vocabulary("before").contains(tokens.get(0)) ? 0 : 1;
        if (tokens.size() < at + 2 || !MomentWords.vocabulary("before").contains(tokens.get(at))) {
            return Optional.empty();
        }
        int end = at + 1;
        while (end < tokens.size() && SpanText.isOfSpan(tokens.get(end))) {
            end++;
        }
        List<String> span = new ArrayList<>(tokens.subList(0, at));
        span.addAll(tokens.subList(at + 1, end));
        return span.size() == at ? Optional.empty() : Optional.of(ago(typed, span, tokens.subList(end, tokens.size())));
    }

    private static int ago(List<String> tokens) {
        for (int i = 0; i < tokens.size(); i++) {
            if (MomentWords.vocabulary("ago").contains(tokens.get(i))) {
                return i;
            }
        }
        return -1;
    }

    /** So long ago; on that day at a time; or on a day of the week so many weeks ago. */
    private Instant ago(String typed, List<String> span, List<String> behind) {
        Optional<DayOfWeek> weekday = MomentWords.named(span.get(0), DayOfWeek.values(), DayOfWeek::getDisplayName);
        if (weekday.isEmpty() && behind.isEmpty()) {
            return spans.span(typed, span, -1);
        }
        List<String> of = weekday.isPresent() ? span.subList(1, span.size()) : span;
        LocalDate day = spans.span(typed, of, -1).atZone(zone).toLocalDate();
        boolean whole = of.size() == 2
                && MomentWords.unit(of.get(1))
                        .filter(u -> u.compareTo(ChronoUnit.DAYS) >= 0)
                        .isPresent();
        if (!whole) {
            throw MomentWords.unreadable(typed);
        }
        if (weekday.isPresent()) {
            if (MomentWords.unit(of.get(1)).orElseThrow() != ChronoUnit.WEEKS) {
                throw MomentWords.unreadable(typed);
            }
            day = Stretch.inWeekOf(day, weekday.get());
        }
        if (behind.isEmpty()) {
            return alone(day);
        }
        String last = behind.get(behind.size() - 1);
        Optional<LocalTime> time = behind.size() > 2 ? Optional.empty() : TimeOfDay.parse(String.join("", behind));
        if (time.isEmpty() && behind.size() == 1 && last.matches("\\d{1,2}")) {
            time = Optional.of(LocalTime.of(Integer.parseInt(last), 0));
        }
        return local(day.atTime(time.orElseThrow(() -> MomentWords.unreadable(typed))));
    }

    private Instant snapshot(String label) throws IOException {
        List<Named> named = named(label);
        if (named.isEmpty()) {
            throw new IllegalArgumentException(Words.of("moment.noSnapshot", label));
        }
        return only(label, named);
    }

    /** The snapshots that have this label; where none has, the one of this number. */
    private List<Named> named(String text) throws IOException {
        List<Named> all = around.snapshots();
        List<Named> labelled = all.stream()
                .filter(s -> !s.label().isEmpty() && s.label().equalsIgnoreCase(text))
                .toList();
        return labelled.isEmpty() && text.matches("\\d{1,9}")
                ? all.stream().filter(s -> s.number() == Long.parseLong(text)).toList()
                : labelled;
    }

    private Instant only(String label, List<Named> named) {
        if (named.size() > 1) {
            throw new IllegalArgumentException(Words.of(
                    "moment.manySnapshots",
                    label,
                    String.join(
                            "; ",
                            named.stream()
                                    .map(s -> Words.of("moment.snapshotNumber", s.number(), Formats.full(s.at(), zone)))
                                    .toList())));
        }
        return named.get(0).at();
    }

    private Instant dayAndTime(String typed, List<String> all) {
        List<String> day = new ArrayList<>();
        List<String> tokens = pointed(typed, all);
        LocalTime time = null;
        boolean night = false;
        for (int i = 0; i < tokens.size(); i++) {
            String token = tokens.get(i);
            boolean half = i + 1 < tokens.size() && tokens.get(i + 1).matches("[ap]\\.?m\\.?");
            Optional<LocalTime> found = TimeOfDay.parse(half ? token + tokens.get(i + 1) : token);
            if (found.isEmpty()) {
                day.add(token);
                continue;
            }
            if (time != null) {
                throw MomentWords.unreadable(typed);
            }
            time = found.get();
            night = MomentWords.vocabulary("night").contains(token);
            i += half ? 1 : 0;
            if (MomentWords.vocabulary("tonight").contains(token)) {
                day.add(Words.of("moment.vocabulary.today"));
            }
        }
        if (tokens.stream().anyMatch(MomentWords.vocabulary("midnight")::contains)) {
            throw new IllegalArgumentException(Words.of("moment.midnight", typed));
        }
        if (time == null && day.isEmpty()) {
            throw MomentWords.unreadable(typed);
        }
        if (time == null) {
            time = hourBehind(typed, day);
        }
        LocalDate date = day.isEmpty() || MomentWords.vocabulary("this").contains(String.join(" ", day))
                ? today()
                : days.day(typed, day, time != null, night);
        return time == null ? alone(date) : local(date.atTime(time));
    }

    /** The hour behind a day, taken off it, as in {@code yesterday 17}; null when there is none. */
    private @Nullable LocalTime hourBehind(String typed, List<String> day) {
        String last = day.get(day.size() - 1);
        if (day.size() < 2 || !last.matches("\\d{1,2}") || Integer.parseInt(last) > 23) {
            return null;
        }
        try {
            days.day(typed, day.subList(0, day.size() - 1), true, false);
        } catch (MomentWords.UnreadableException e) {
            return null;
        }
        day.remove(day.size() - 1);
        return LocalTime.of(Integer.parseInt(last), 0);
    }

    /**
     * With two numbers and a point between them written as a time or as a date: what can only be one is that, and beside a day
     * it is a time. Alone, what can be both is refused.
     */
    private List<String> pointed(String typed, List<String> tokens) {
        List<String> out = new ArrayList<>();
        for (String token : tokens) {
            if (!token.matches("\\d{1,2}\\.\\d\\d")) {
                out.add(token);
                continue;
            }
            int a = Integer.parseInt(token.substring(0, token.indexOf('.')));
            int b = Integer.parseInt(token.substring(token.indexOf('.') + 1));
            boolean isTime = a < 24 && b < 60;
            boolean isDate = a >= 1 && a <= 31 && b >= 1 && b <= 12;
            // Written so itself it is none of those that are a time for certain.
            boolean otherTime = tokens.stream().anyMatch(t -> TimeOfDay.parse(t).isPresent());
            if (isTime && isDate && tokens.size() == 1) {
                String asTime = LocalTime.of(a, b).toString();
                throw new IllegalArgumentException(
                        Words.of("moment.dayOrTime", typed, asTime, days.latest(typed, a, b)));
            }
            out.add(isTime && !(isDate && otherTime) ? LocalTime.of(a, b).toString() : isDate ? token + "." : token);
        }
        return out;
    }
}
