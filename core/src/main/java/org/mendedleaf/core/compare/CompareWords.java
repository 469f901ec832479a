package org.mendedleaf.core.compare;

import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;

/** Comparisons of moments in words. */
public final class CompareWords {

    private CompareWords() {}

    /** How many files became what, and by how much all are larger. */
    public static String sum(TwoMoments all) {
        if (all.changes().isEmpty()) {
            return Words.of("compare.nothing");
        }
        long moved = all.count(TwoMoments.Kind.MOVED) + all.count(TwoMoments.Kind.MOVED_AND_CHANGED);
        return Words.of(
                "compare.sum",
                Say.number(all.count(TwoMoments.Kind.ADDED)),
                Say.number(all.count(TwoMoments.Kind.REMOVED)),
                Say.number(all.count(TwoMoments.Kind.CHANGED)),
                Say.number(moved),
                Say.sizeChange(all.growth()));
    }
}
