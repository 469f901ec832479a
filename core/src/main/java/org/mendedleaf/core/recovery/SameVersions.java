package org.mendedleaf.core.recovery;

import java.util.Arrays;
import java.util.Comparator;
import java.util.function.UnaryOperator;
import org.mendedleaf.core.line.Version;

/**
 * Versions that are in memory already, so that the same ones are not there twice when they are read again: a million of them take half a
 * gigabyte.
 */
public final class SameVersions implements UnaryOperator<Version> {

    private static final Comparator<Version> BY_NUMBER =
            Comparator.comparingLong(Version::line).thenComparingInt(Version::number);

    private final Version[] known;

    /** Those of a plan. */
    public SameVersions(RestorePlan plan) {
        known = plan.items().stream().map(RestorePlan.Item::version).toArray(Version[]::new);
        Arrays.parallelSort(known, BY_NUMBER);
    }

    /** The one that is known when it is the same in everything, else the one that is given. */
    @Override
    public Version apply(Version fresh) {
        int at = Arrays.binarySearch(known, fresh, BY_NUMBER);
        return at >= 0 && known[at].equals(fresh) ? known[at] : fresh;
    }
}
