package org.mendedleaf.core.retention;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What goes when space is needed: the oldest points that nothing but a rule's times keeps, those that may go anyway before
 * the others; never one that is held, that a snapshot shows, that is the newest, or that belongs to the minimum. Pure.
 */
public final class Pressure {

    private Pressure() {}

    /**
     * What would go.
     *
     * @param rows versions that go
     * @param freedBytes by them
     * @param missingBytes that are still needed when all that may go has gone; 0 when it suffices
     */
    public record Choice(BitSet rows, long freedBytes, long missingBytes) {}

    /**
     * How a rule's limit of space stands.
     *
     * @param rule by name
     * @param takenBytes by all versions of its files
     * @param limitBytes that they may take
     */
    public record Cap(String rule, long takenBytes, long limitBytes) {

        /** That it is not kept although all that may go has gone, as a message. */
        public String unmetWords() {
            return Words.of("cap.unmet", Formats.size(limitBytes), rule, Formats.size(takenBytes));
        }
    }

    /**
     * How far the versions of one rule are over its limit.
     *
     * @param takenBytes by all of them
     * @param choice what goes so that they take no more than the limit
     */
    record Over(long takenBytes, Choice choice) {}

    /** What the versions of each rule with a limit take of it. */
    public static List<Cap> taken(Verdicts verdicts) {
        List<Cap> all = new ArrayList<>();
        for (int r = 0; r < verdicts.rules().rules().size(); r++) {
            Rule rule = verdicts.rules().rules().get(r);
            if (rule.capBytes() > 0) {
                all.add(new Cap(rule.name(), ofRule(verdicts, r).sums().inUse(), rule.capBytes()));
            }
        }
        return all;
    }

    private static SpaceTable ofRule(Verdicts verdicts, int rule) {
        VersionTable t = verdicts.table();
        return new SpaceTable(t, row -> verdicts.rule(row) == rule && t.stays(row));
    }

    /** What goes so that the versions of one rule take no more than its cap. */
    static Over cap(Verdicts verdicts, int rule) {
        SpaceTable own = ofRule(verdicts, rule);
        long taken = own.sums().inUse();
        long over = taken - verdicts.rules().rules().get(rule).capBytes();
        return new Over(taken, choose(verdicts, own, over, row -> verdicts.rule(row) == rule));
    }

    /**
     * What goes so that so much space is free.
     *
     * @param toFree bytes; what is not above 0 needs nothing
     */
    public static Choice space(Verdicts verdicts, SpaceTable space, long toFree) {
        List<Rule> rules = verdicts.rules().rules();
        return choose(
                verdicts,
                space,
                toFree,
                row -> verdicts.rule(row) >= 0 && (rules.get(verdicts.rule(row)).whenNeeded() || verdicts.goes(row)));
    }

    private interface Rows {
        boolean takes(int row);
    }

    private static Choice choose(Verdicts verdicts, SpaceTable space, long toFree, Rows allowed) {
        BitSet rows = new BitSet();
        if (toFree <= 0) {
            return new Choice(rows, 0, 0);
        }
        VersionTable t = verdicts.table();
        BitSet anyway = new BitSet(t.size());
        BitSet others = new BitSet(t.size());
        for (int row = 0; row < t.size(); row++) {
            if (t.stays(row) && verdicts.expendable(row) && allowed.takes(row)) {
                (verdicts.goes(row) ? anyway : others).set(row);
            }
        }
        SpaceTable.Freeing freeing = space.new Freeing();
        for (BitSet some : List.of(anyway, others)) {
            int[] order = OldestFirst.of(t, some);
            for (int i = 0; i < order.length && freeing.freedBytes() < toFree; i++) {
                freeing.drop(order[i]);
                rows.set(order[i]);
            }
        }
        return new Choice(rows, freeing.freedBytes(), Math.max(0, toFree - freeing.freedBytes()));
    }
}
