package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Comparisons of moments in words. */
public final class CompareWords {

    private CompareWords() {}

    /** How many files became what, and by how much all are larger. */
    public static String sum(TwoMoments all) {
        if (all.changes().isEmpty()) {
            return Words.of("compare.nothing");
        }
        List<String> parts = new ArrayList<>();
        add(parts, "compare.sum.added", all.count(TwoMoments.Kind.ADDED));
        add(parts, "compare.sum.removed", all.count(TwoMoments.Kind.REMOVED));
        add(parts, "compare.sum.changed", all.count(TwoMoments.Kind.CHANGED));
        add(parts, "compare.sum.moved", all.count(TwoMoments.Kind.MOVED));
        add(parts, "compare.sum.movedAndChanged", all.count(TwoMoments.Kind.MOVED_AND_CHANGED));
        return Words.of("compare.sum", String.join(", ", parts), Formats.sizeChange(all.growth()));
    }

    /** What is none is not said. */
    private static void add(List<String> parts, String key, long count) {
        if (count > 0) {
            parts.add(Words.of(key, Formats.number(count)));
        }
    }
}
