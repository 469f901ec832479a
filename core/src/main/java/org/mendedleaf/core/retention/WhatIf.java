package org.mendedleaf.core.retention;

import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.mendedleaf.core.time.Moment;

/**
 * Two sets of rules side by side on the real history: what each keeps, by age, and the files that differ. Pure and exact.
 *
 * @param now what the rules keep that count now
 * @param proposed what the others would keep
 * @param differing files of which they keep different versions, those that lose most first
 */
public record WhatIf(Side now, Side proposed, List<Differing> differing) {

    /** Copies. */
    public WhatIf {
        differing = List.copyOf(differing);
    }

    /**
     * What one set of rules keeps.
     *
     * @param ages versions and bytes by age
     * @param versions in all
     * @param bytes of them, each counted whole
     * @param takenBytes what they really take
     */
    public record Side(Map<SpaceAge, Kept> ages, long versions, long bytes, long takenBytes) {}

    /**
     * Kept versions of one age.
     *
     * @param versions how many
     * @param bytes of them, each counted whole
     */
    public record Kept(long versions, long bytes) {}

    /**
     * A file of which different versions are kept.
     *
     * @param line row of its line
     * @param now versions kept under the rules that count
     * @param proposed versions kept under the others
     * @param bytes more under the others, each version counted whole; less when negative
     */
    public record Differing(int line, int now, int proposed, long bytes) {}

    /** Compares; both are verdicts on one table. */
    public static WhatIf of(Verdicts now, Verdicts proposed, SpaceTable space, Instant moment) {
        CompletableFuture<Side> one = CompletableFuture.supplyAsync(() -> side(now, space, moment));
        Side other = side(proposed, space, moment);
        return new WhatIf(one.join(), other, differing(now, proposed));
    }

    /**
     * The same, when one side is known.
     *
     * @param known the side of {@code now}
     */
    public static WhatIf of(Verdicts now, Side known, Verdicts proposed, SpaceTable space, Instant moment) {
        CompletableFuture<Side> other = CompletableFuture.supplyAsync(() -> side(proposed, space, moment));
        List<Differing> files = differing(now, proposed);
        return new WhatIf(known, other.join(), files);
    }

    private static boolean keeps(Verdicts v, int row) {
        return v.table().stays(row) && !v.goes(row);
    }

    /** What one set of rules keeps. */
    public static Side side(Verdicts v, SpaceTable space, Instant moment) {
        long now = Moment.micros(moment);
        VersionTable t = v.table();
        BitSet kept = new BitSet(t.size());
        long[] versions = new long[SpaceAge.values().length];
        long[] bytes = new long[versions.length];
        long all = 0;
        long sum = 0;
        for (int row = 0; row < t.size(); row++) {
            if (keeps(v, row)) {
                kept.set(row);
                int age = SpaceAge.of(t.saved(row), now).ordinal();
                versions[age]++;
                bytes[age] += t.bytes(row);
                all++;
                sum += t.bytes(row);
            }
        }
        Map<SpaceAge, Kept> ages = new EnumMap<>(SpaceAge.class);
        for (SpaceAge a : SpaceAge.values()) {
            ages.put(a, new Kept(versions[a.ordinal()], bytes[a.ordinal()]));
        }
        return new Side(ages, all, sum, space.taken(kept));
    }

    private static List<Differing> differing(Verdicts now, Verdicts proposed) {
        VersionTable t = now.table();
        List<Differing> found = new ArrayList<>();
        for (int line = 0; line < t.lines(); line++) {
            int one = 0;
            int two = 0;
            long bytes = 0;
            boolean differs = false;
            for (int row = t.first(line); row < t.first(line + 1); row++) {
                boolean a = keeps(now, row);
                boolean b = keeps(proposed, row);
                one += a ? 1 : 0;
                two += b ? 1 : 0;
                bytes += (b ? t.bytes(row) : 0) - (a ? t.bytes(row) : 0);
                differs = differs || a != b;
            }
            if (differs) {
                found.add(new Differing(line, one, two, bytes));
            }
        }
        found.sort((a, b) -> Long.compare(a.bytes(), b.bytes()));
        return found;
    }
}
