package org.mendedleaf.core.retention;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.time.Moment;

/**
 * How much space the versions will take, from how the files really changed and what the rules keep. Pure.
 *
 * <p>What is there now is followed exactly, by when its verdict ends. What is to come is expected file by file: a file that
 * got {@code r} versions a day goes on so; of versions of an age only as many are expected to be left as the finest span of
 * the calendar that is still kept at that age can hold, {@code (1 - exp(-r L)) / L} a day for spans of {@code L} days (saves
 * as a Poisson process). A version costs what versions of that file really added to the packs. The band is that in which four
 * of five outcomes lie, from how the weeks differed.
 *
 * @param assumed whether there was no history to go by, and a stated assumption took its place
 * @param observedDays of history that were used
 * @param versionsPerDay that come in
 * @param curve space in bytes by days from now
 * @param monthBytes after 30 days
 * @param yearBytes after 365 days
 * @param full the day on which the drive has no space left; empty when that is not within a year
 */
public record Forecast(
        boolean assumed,
        int observedDays,
        double versionsPerDay,
        List<Point> curve,
        long monthBytes,
        long yearBytes,
        OptionalInt full) {

    /** What is looked back at, at most. */
    private static final int LOOK_BACK = 91;

    private static final int YEAR = 365;
    private static final int MONTH = 30;
    private static final long DAY_MICROS = 86_400_000_000L;

    /** Four of five outcomes of a normal distribution lie within so many deviations. */
    private static final double BAND = 1.28;

    /** Minutes of a day in which somebody works; saves are expected in them. */
    private static final double WORKING_MINUTES = 480;

    private static final int DAY_MINUTES = 24 * 60;

    /** Without a history: each file changes once in so many days, by this share of its size. */
    private static final double ASSUMED_DAYS = 25;

    private static final double ASSUMED_SHARE = 0.2;

    /** Copies. */
    public Forecast {
        curve = List.copyOf(curve);
    }

    /**
     * One point of the curve.
     *
     * @param day from now
     * @param lowBytes lower end of the band
     * @param bytes expected
     * @param highBytes upper end of the band
     */
    public record Point(int day, long lowBytes, long bytes, long highBytes) {}

    /**
     * What is asked beside the rules.
     *
     * @param presentMinutes how far captures are apart now; 0 for every save
     * @param minutes how far they shall be apart; 0 for every save
     * @param freeBytes on the drive; negative when that is not known
     * @param place id of the only place; 0 for all
     * @param path the only folder in it; empty for all
     */
    public record Asked(int presentMinutes, int minutes, long freeBytes, long place, String path) {

        /** As it is now, everywhere. */
        public static Asked asItIs(long freeBytes) {
            return new Asked(0, 0, freeBytes, 0, "");
        }

        private boolean covers(VersionTable t, int line) {
            if (place != 0 && t.place(line) != place) {
                return false;
            }
            if (path.isEmpty()) {
                return true;
            }
            String own = t.path(line);
            return own.equals(path) || own.startsWith(path + "/");
        }
    }

    /** Looks ahead. */
    public static Forecast of(Verdicts verdicts, Instant now, Asked asked) {
        return new Looker(verdicts, Moment.micros(now), asked).look();
    }

    private static final class Looker {
        private final Verdicts verdicts;
        private final VersionTable t;
        private final long now;
        private final Asked asked;
        private final int[] firstUser;
        private final double[] weeks = new double[LOOK_BACK / 7];
        private final int[] days = days();
        private final double[] expected = new double[days.length];

        /** Bytes of what is there now by the number of days, the first ones, on which it is expected to be there. */
        private final double[] thereOn = new double[days.length + 1];

        private double perDay;
        private double newFilesPerDay;
        private double addedPerDay;

        Looker(Verdicts verdicts, long now, Asked asked) {
            this.verdicts = verdicts;
            this.t = verdicts.table();
            this.now = now;
            this.asked = asked;
            this.firstUser = firstUser();
        }

        private static int[] days() {
            List<Integer> all = new ArrayList<>();
            for (int d = 0; d <= YEAR; d += d < 35 ? 5 : 15) {
                all.add(d);
            }
            return all.stream().mapToInt(Integer::intValue).toArray();
        }

        /** Which version was the first to need each chunk; -1 for none. */
        private int[] firstUser() {
            int[] first = new int[t.chunks() + 1];
            Arrays.fill(first, -1);
            for (int row = 0; row < t.size(); row++) {
                if (!t.is(row, VersionColumns.ELSEWHERE)) {
                    int r = row;
                    t.chunks(row, chunk -> {
                        int before = first[chunk];
                        if (before < 0 || t.saved(r) < t.saved(before)) {
                            first[chunk] = r;
                        }
                    });
                }
            }
            return first;
        }

        /** Bytes that a version really added: of chunks that it was the first to need. */
        private long added(int row) {
            long[] sum = {0};
            t.distinctChunks(row, chunk -> sum[0] += firstUser[chunk] == row ? t.chunkBytes(chunk) : 0);
            return sum[0];
        }

        Forecast look() {
            long first = now;
            for (int row = 0; row < t.size(); row++) {
                first = Math.min(first, t.is(row, VersionColumns.FOUND) ? now : t.saved(row));
            }
            double observed = Math.min(LOOK_BACK, (now - first) / (double) DAY_MICROS);
            boolean assumed = observed < 1;
            for (int line = 0; line < t.lines(); line++) {
                if (asked.covers(t, line)) {
                    existing(line);
                    if (assumed) {
                        assume(line);
                    } else {
                        follow(line, observed);
                    }
                }
            }
            double there = 0;
            for (int i = days.length - 1; i >= 0; i--) {
                there += thereOn[i + 1];
                expected[i] += there;
            }
            return result(assumed, observed);
        }

        /** What is there and when it goes. */
        private void existing(int line) {
            for (int row = t.first(line); row < t.first(line + 1); row++) {
                if (t.is(row, VersionColumns.ELSEWHERE)) {
                    continue;
                }
                thereOn[there(row)] += added(row);
            }
        }

        /** On how many of the days, the first ones, a version is expected to be there. */
        private int there(int row) {
            if (!t.stays(row)) {
                return upTo(verdicts.rules().grace().roughDays());
            }
            if (verdicts.goes(row)) {
                return 1;
            }
            long until = verdicts.until(row);
            return until == Moment.OPEN ? days.length : upTo((until - now - 1) / (double) DAY_MICROS);
        }

        /** How many of the days are not after this one. */
        private int upTo(double day) {
            int n = 0;
            while (n < days.length && days[n] <= day) {
                n++;
            }
            return n;
        }

        private void assume(int line) {
            if (t.removed(line) == 0 && t.first(line + 1) > t.first(line)) {
                double bytes = t.bytes(t.first(line + 1) - 1) * ASSUMED_SHARE;
                come(line, 1 / ASSUMED_DAYS, bytes);
            }
        }

        private void follow(int line, double observed) {
            long from = now - (long) (observed * DAY_MICROS);
            int versions = 0;
            int activeDays = 0;
            long lastDay = Long.MIN_VALUE;
            double bytes = 0;
            int firstRow = t.first(line);
            for (int row = firstRow; row < t.first(line + 1); row++) {
                if (t.saved(row) < from || t.is(row, VersionColumns.FOUND) || t.is(row, VersionColumns.ELSEWHERE)) {
                    continue;
                }
                long added = added(row);
                int week = (int) ((now - t.saved(row)) / (7 * DAY_MICROS));
                if (week >= 0 && week < weeks.length) {
                    weeks[week] += added;
                }
                addedPerDay += added / observed;
                if (row == firstRow) {
                    newFilesPerDay += added / observed;
                    continue;
                }
                versions++;
                bytes += added;
                long day = Math.floorDiv(t.saved(row), DAY_MICROS);
                activeDays += day == lastDay ? 0 : 1;
                lastDay = day;
            }
            if (versions > 0 && t.removed(line) == 0) {
                double rate = atOtherIntervals((double) versions / activeDays) * activeDays / observed;
                come(line, rate, bytes / versions);
            }
        }

        /** Versions on a day with changes, when captures are as far apart as asked. */
        private double atOtherIntervals(double present) {
            if (asked.presentMinutes() == asked.minutes()) {
                return present;
            }
            double saves = present;
            if (asked.presentMinutes() > 0) {
                double slots = slots(asked.presentMinutes());
                saves = -slots * Math.log(1 - Math.min(present / slots, 0.98));
            }
            if (asked.minutes() == 0) {
                return saves;
            }
            double slots = slots(asked.minutes());
            return slots * (1 - Math.exp(-saves / slots));
        }

        /** Captures on a day, when they are so far apart; from a day on, parts of one. */
        private static double slots(int minutes) {
            return minutes > DAY_MINUTES ? (double) DAY_MINUTES / minutes : Math.max(1, WORKING_MINUTES / minutes);
        }

        /** New versions of one file, as they pile up and are thinned. */
        private void come(int line, double rate, double bytes) {
            perDay += rate;
            int ruleIndex = t.first(line) < t.first(line + 1) ? verdicts.rule(t.first(line)) : -1;
            @Nullable
            Rule rule = ruleIndex < 0 ? null : verdicts.rules().rules().get(ruleIndex);
            for (int i = 0; i < days.length; i++) {
                expected[i] += bytes * left(rule, rate, days[i]);
            }
        }

        /** How many versions of a file are expected to be left of those that come in so many days. */
        private static double left(@Nullable Rule rule, double rate, double span) {
            double all = rate * span;
            if (rule == null
                    || (!rule.hasTimes()
                            && rule.atMost() == 0
                            && rule.dropAfter().isEmpty())) {
                return all;
            }
            double drop = rule.dropAfter().map(Term::roughDays).orElse(Double.MAX_VALUE);
            double horizon = Math.min(span, drop);
            double kept = rate * horizon;
            if (rule.hasTimes()) {
                double age = rule.everything().map(Term::roughDays).orElse(0.0);
                kept = rate * Math.min(age, horizon);
                for (Map.Entry<Level, Term> level : rule.last().entrySet()) {
                    double end = Math.min(horizon, level.getValue().roughDays());
                    if (end > age) {
                        double length = level.getKey().days();
                        kept += (end - age) * (1 - Math.exp(-rate * length)) / length;
                        age = end;
                    }
                }
            }
            kept = Math.max(kept, Math.min(rule.atLeast(), all));
            return rule.atMost() > 0 ? Math.min(kept, rule.atMost()) : kept;
        }

        private Forecast result(boolean assumed, double observed) {
            int n = (int) Math.max(1, Math.min(weeks.length, Math.round(observed / 7)));
            double mean = Arrays.stream(weeks, 0, n).sum() / n;
            double square = 0;
            for (int i = 0; i < n; i++) {
                square += (weeks[i] - mean) * (weeks[i] - mean);
            }
            double deviation = n > 1 ? Math.sqrt(square / (n - 1)) : mean;
            List<Point> curve = new ArrayList<>();
            for (int i = 0; i < days.length; i++) {
                double w = days[i] / 7.0;
                double come = addedPerDay * days[i];
                double grown = expected[i] + newFilesPerDay * days[i];
                // Of what varies only that share is left which the rules keep of what comes.
                double kept = come <= 0 ? 1 : Math.min(1, Math.max(0, (grown - expected[0]) / come));
                double band = BAND * Math.sqrt(deviation * deviation * w * (1 + w / n)) * kept;
                curve.add(new Point(days[i], (long) Math.max(0, grown - band), (long) grown, (long) (grown + band)));
            }
            return new Forecast(
                    assumed,
                    (int) Math.round(observed),
                    perDay,
                    curve,
                    at(curve, MONTH),
                    at(curve, YEAR),
                    fullOn(curve));
        }

        private static long at(List<Point> curve, int day) {
            for (int i = 1; i < curve.size(); i++) {
                Point a = curve.get(i - 1);
                Point b = curve.get(i);
                if (b.day() >= day) {
                    double share = (double) (day - a.day()) / (b.day() - a.day());
                    return (long) (a.bytes() + share * (b.bytes() - a.bytes()));
                }
            }
            return curve.get(curve.size() - 1).bytes();
        }

        private OptionalInt fullOn(List<Point> curve) {
            if (asked.freeBytes() < 0) {
                return OptionalInt.empty();
            }
            long limit = curve.get(0).bytes() + asked.freeBytes();
            for (int day = 0; day <= YEAR; day++) {
                if (at(curve, Math.max(1, day)) > limit) {
                    return OptionalInt.of(day);
                }
            }
            return OptionalInt.empty();
        }
    }

    /** The day on which the drive is full, as a moment; empty when that is not within a year. */
    public Optional<Instant> fullAt(Instant now) {
        return full.isPresent() ? Optional.of(now.plus(full.getAsInt(), ChronoUnit.DAYS)) : Optional.empty();
    }
}
