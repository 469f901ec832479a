package org.mendedleaf.core.retention;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What becomes of every version of a vault under given rules. Pure: versions, snapshots, holds, rules and a moment go in, and
 * for each version comes out whether it is kept, until when, and why.
 *
 * <p>Order: a hold; a standing snapshot; the newest version of a file that is there; the newest so many as are always kept;
 * then limits of number and age, then the times. The last version of an hour, day, week, month or year is the last of those
 * that still exist; since what is kept by one level is never taken by another, thinning every day comes to the same as
 * thinning once in the end.
 *
 * <pre>{@code
 * VersionTable table = VersionTable.of(reading);
 * Verdicts verdicts = Verdicts.of(table, holds, rules, now, calendar);
 * boolean goes = verdicts.goes(table.row(line.id(), 2));
 * }</pre>
 */
public final class Verdicts {

    private static final Reason[] REASONS = Reason.values();
    private static final int BLOCK = 4096;
    private static final int NONE = RowHolds.NONE;

    private final VersionTable table;
    private final RuleSet rules;
    private final List<Hold> holds;
    private final Instant now;
    private final Calendar calendar;
    private final Buckets buckets;
    private final byte[] reasons;
    private final short[] ruleOf;
    private final RowHolds holdOf;

    /** Until when versions are kept is made out anew where it is asked for; that takes far less than keeping it for all. */
    private final AtomicReference<@Nullable LineWork> last = new AtomicReference<>();

    private final List<Pressure.Cap> unmet = new ArrayList<>();
    private BitSet pressed = new BitSet();
    private long missingBytes;

    private Verdicts(
            VersionTable table,
            RuleSet rules,
            List<Hold> holds,
            RowHolds ofRows,
            short[] ofLines,
            Instant now,
            Calendar calendar) {
        this.table = table;
        this.rules = rules;
        this.holds = holds;
        this.now = now;
        this.calendar = calendar;
        reasons = new byte[table.size()];
        ruleOf = ofLines;
        holdOf = ofRows;
        buckets = buckets();
    }

    /** Verdicts on all versions of a vault. */
    public static Verdicts of(VersionTable table, List<Hold> holds, RuleSet rules, Instant now, Calendar calendar) {
        List<Hold> holding = holds.stream().filter(h -> h.holds(now)).toList();
        Verdicts all = new Verdicts(
                table, rules, holding, RowHolds.of(table, holding), LineRules.of(table, rules), now, calendar);
        int blocks = (table.lines() + BLOCK - 1) / BLOCK;
        IntStream.range(0, blocks).parallel().forEach(b -> {
            LineWork work = new LineWork(all.buckets.fresh());
            int end = Math.min(table.lines(), (b + 1) * BLOCK);
            for (int line = b * BLOCK; line < end; line++) {
                all.judge(line, work);
                System.arraycopy(work.reasons, 0, all.reasons, work.first, work.count);
            }
        });
        all.judgeCaps();
        return all;
    }

    /** One line while it is judged. */
    private static final class LineWork {
        private final Buckets buckets;
        private int line = -1;
        private int first;
        private int count;
        private byte[] reasons = new byte[32];
        private long[] untils = new long[32];

        LineWork(Buckets buckets) {
            this.buckets = buckets;
        }

        void begin(int newLine, int from, int end) {
            line = newLine;
            first = from;
            count = end - from;
            if (count > reasons.length) {
                reasons = new byte[count + count / 2];
                untils = new long[reasons.length];
            }
        }

        void set(int row, Reason reason, long until) {
            reasons[row - first] = (byte) reason.ordinal();
            untils[row - first] = until;
        }
    }

    /** Where the versions of a rule take more than it allows, the oldest go that may. */
    private void judgeCaps() {
        for (int r = 0; r < rules.rules().size() && table.hasChunks(); r++) {
            Rule rule = rules.rules().get(r);
            if (rule.capBytes() > 0) {
                Pressure.Over over = Pressure.cap(this, r);
                over.choice().rows().stream().forEach(row -> go(row, Reason.CAP));
                if (over.choice().missingBytes() > 0) {
                    long left = over.takenBytes() - over.choice().freedBytes();
                    unmet.add(new Pressure.Cap(rule.name(), left, rule.capBytes()));
                }
            }
        }
    }

    /** A version that has to go; one that goes at once anyway keeps its reason. */
    private void go(int row, Reason why) {
        boolean atOnce =
                goes(row) && !(rule(row) != NONE && rules.rules().get(rule(row)).whenNeeded());
        if (!atOnce) {
            reasons[row] = (byte) why.ordinal();
        }
    }

    /**
     * The same where the drive has too little space: then the oldest go that nothing but a rule's times keeps.
     *
     * @param lacking bytes that are needed; what is not above 0 changes nothing
     */
    public Verdicts pressed(SpaceTable space, long lacking) {
        if (lacking <= 0) {
            return this;
        }
        Verdicts other = new Verdicts(table, rules, holds, holdOf, ruleOf, now, calendar);
        System.arraycopy(reasons, 0, other.reasons, 0, reasons.length);
        other.unmet.addAll(unmet);
        Pressure.Choice choice = Pressure.space(this, space, lacking);
        choice.rows().stream().forEach(row -> other.go(row, Reason.ROOM));
        other.pressed = choice.rows();
        other.missingBytes = choice.missingBytes();
        return other;
    }

    /** Versions that go since the drive has too little space, those too that would go anyway. */
    public BitSet pressedRows() {
        return (BitSet) pressed.clone();
    }

    /** Bytes that the drive still lacks when all that may go has gone. */
    public long missingBytes() {
        return missingBytes;
    }

    /** Limits of space that are not kept even when all that may go has gone, with what is taken then. */
    public List<Pressure.Cap> unmet() {
        return List.copyOf(unmet);
    }

    private Buckets buckets() {
        long first = Moment.micros(now);
        long last = first;
        for (int row = 0; row < table.size(); row++) {
            first = Math.min(first, table.saved(row));
            last = Math.max(last, table.saved(row));
        }
        return Buckets.of(calendar, first, last);
    }

    private void judge(int line, LineWork work) {
        short ruleIndex = ruleOf[line];
        int first = table.first(line);
        int newest = table.first(line + 1) - 1;
        work.begin(line, first, newest + 1);
        long at = Moment.micros(now);
        boolean there = table.removed(line) == 0;
        @Nullable Rule rule = ruleIndex == NONE ? null : rules.rules().get(ruleIndex);
        long removedEnd = there || rule == null || rule.removed().isEmpty()
                ? Moment.OPEN
                : rule.removed().get().after(table.removed(line), calendar.zone());
        Level[] levels = rule == null ? new Level[0] : rule.last().keySet().toArray(new Level[0]);
        long[] seen = new long[levels.length];
        Arrays.fill(seen, Long.MIN_VALUE);
        long[] buckets = new long[levels.length];
        boolean[] fresh = new boolean[levels.length];
        int rank = 0;
        for (int row = newest; row >= first; row--) {
            if (table.is(row, VersionColumns.ELSEWHERE)) {
                work.set(row, Reason.NOT_HERE, Moment.OPEN);
                continue;
            }
            if (table.is(row, VersionColumns.WAITING)) {
                work.set(row, Reason.WAITING, Moment.OPEN);
                continue;
            }
            rank++;
            work.buckets.of(levels, table.saved(row), buckets);
            for (int k = 0; k < levels.length; k++) {
                fresh[k] = buckets[k] != seen[k];
                seen[k] = buckets[k];
            }
            if (holdOf.of(row) != NONE) {
                work.set(
                        row,
                        Reason.HELD,
                        holds.get(holdOf.of(row)).until().map(Moment::micros).orElse(Moment.OPEN));
            } else if (table.snapshot(row) >= 0) {
                work.set(row, Reason.SNAPSHOT, Moment.OPEN);
            } else if (there && row == newest) {
                work.set(row, Reason.NEWEST, Moment.OPEN);
            } else if (rule == null) {
                noRule(row, work);
            } else {
                byRule(row, work, rule, rank, there, removedEnd, at, levels, fresh);
            }
        }
    }

    private void noRule(int row, LineWork work) {
        if (table.is(row, VersionTable.BEYOND_PUBLISHED)) {
            work.set(row, Reason.PUBLISHED, Moment.OPEN);
        } else if (table.is(row, VersionTable.BEYOND_DRAFTS)) {
            work.set(row, Reason.DRAFT, Moment.OPEN);
        } else {
            work.set(row, Reason.NO_RULE, Moment.OPEN);
        }
    }

    private void byRule(
            int row,
            LineWork work,
            Rule rule,
            int rank,
            boolean there,
            long removedEnd,
            long at,
            Level[] levels,
            boolean[] fresh) {
        if (!there && removedEnd <= at) {
            work.set(row, Reason.REMOVED_LONG_AGO, removedEnd);
            return;
        }
        if (!there && rank == 1) {
            work.set(row, Reason.REMOVED_FILE, removedEnd);
            return;
        }
        if (rank <= rule.atLeast()) {
            work.set(row, Reason.AT_LEAST, removedEnd);
            return;
        }
        if (table.is(row, VersionTable.BEYOND_PUBLISHED)) {
            work.set(row, Reason.PUBLISHED, Moment.OPEN);
            return;
        }
        if (table.is(row, VersionTable.BEYOND_DRAFTS)) {
            work.set(row, Reason.DRAFT, Moment.OPEN);
            return;
        }
        if (rule.atMost() > 0 && rank > rule.atMost()) {
            work.set(row, Reason.TOO_MANY, Moment.OPEN);
            return;
        }
        long from = table.replaced(row);
        long drop = rule.dropAfter().isEmpty()
                ? Moment.OPEN
                : rule.dropAfter().get().after(from, calendar.zone());
        if (drop <= at) {
            work.set(row, Reason.TOO_OLD, drop);
            return;
        }
        long end = Math.min(drop, removedEnd);
        if (!rule.hasTimes()) {
            work.set(row, Reason.ALL, end);
            return;
        }
        Reason why = Reason.EVERYTHING;
        long until = rule.everything().isEmpty()
                ? Long.MIN_VALUE
                : rule.everything().get().after(from, calendar.zone());
        for (int k = 0; k < levels.length; k++) {
            if (fresh[k]) {
                Term term = rule.last().get(levels[k]);
                long kept = term == null ? Long.MIN_VALUE : term.after(from, calendar.zone());
                if (kept > until) {
                    until = kept;
                    why = Reason.of(levels[k]);
                }
            }
        }
        work.set(row, until > at ? why : Reason.THINNED, until > at ? Math.min(until, end) : until);
    }

    /** The moment for which they hold. */
    public Instant now() {
        return now;
    }

    /** The versions that were judged. */
    public VersionTable table() {
        return table;
    }

    /** The rules by which they were judged. */
    public RuleSet rules() {
        return rules;
    }

    /** The holds that counted. */
    public List<Hold> holds() {
        return holds;
    }

    /** Why a version is kept or may go. */
    public Reason reason(int row) {
        return REASONS[reasons[row]];
    }

    /** Whether a version may go. */
    public boolean goes(int row) {
        return !REASONS[reasons[row]].keeps();
    }

    /** Index of the rule that is for a version; -1 for none. */
    public int rule(int row) {
        return ruleOf[table.lineOf(row)];
    }

    /**
     * Whether nothing but a rule's times keeps a version: where space is needed, it may go before its time.
     */
    public boolean expendable(int row) {
        return switch (reason(row)) {
            case HELD, SNAPSHOT, NEWEST, AT_LEAST, REMOVED_FILE, NOT_HERE, WAITING, NO_RULE -> false;
            default -> true;
        };
    }

    /** When a verdict ends, microseconds; {@link Moment#OPEN} when that is not known, or never. */
    public long until(int row) {
        Reason reason = reason(row);
        if (reason == Reason.CAP || reason == Reason.ROOM) {
            return Moment.OPEN;
        }
        int line = table.lineOf(row);
        LineWork known = last.get();
        if (known == null || known.line != line) {
            known = new LineWork(buckets.fresh());
            judge(line, known);
            last.set(known);
        }
        return known.untils[row - known.first];
    }

    /** The hold of a version; empty when nobody holds it. */
    public Optional<Hold> hold(int row) {
        return holdOf.of(row) == NONE ? Optional.empty() : Optional.of(holds.get(holdOf.of(row)));
    }

    /** The verdict on one version, whole. */
    public Verdict at(int row) {
        Reason reason = reason(row);
        boolean ruled = switch (reason) {
            case HELD, SNAPSHOT, NEWEST, NO_RULE, NOT_HERE, WAITING -> false;
            default -> rule(row) != NONE;
        };
        long until = until(row);
        return new Verdict(
                reason,
                until == Moment.OPEN || until == Long.MIN_VALUE ? Optional.empty() : Optional.of(Moment.instant(until)),
                ruled ? rules.rules().get(rule(row)).name() : "",
                detail(row, reason));
    }

    private String detail(int row, Reason reason) {
        if (reason == Reason.HELD) {
            Hold h = holds.get(holdOf.of(row));
            return Words.of("verdict.holdDetail", h.who(), h.reason());
        }
        if (reason == Reason.CAP) {
            return Formats.size(rules.rules().get(rule(row)).capBytes());
        }
        if (reason == Reason.SNAPSHOT) {
            String label = table.snapshots().get(table.snapshot(row)).label();
            return label.isEmpty()
                    ? Formats.full(table.snapshots().get(table.snapshot(row)).at(), java.time.ZoneId.systemDefault())
                    : label;
        }
        return "";
    }
}
