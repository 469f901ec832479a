package org.mendedleaf.core.retention;

import java.util.Arrays;
import java.util.BitSet;

/** Versions by when they were replaced, without an object for each: they may be many millions. */
final class OldestFirst {

    private OldestFirst() {}

    /**
     * Rows, those first that were replaced first, and of the same moment the lower ones.
     *
     * @param rows which
     */
    static int[] of(VersionTable table, BitSet rows) {
        int[] order = rows.stream().toArray();
        long[] moments = new long[order.length];
        for (int i = 0; i < order.length; i++) {
            moments[i] = table.replaced(order[i]);
        }
        long[] distinct = moments.clone();
        Arrays.sort(distinct);
        // Where each moment begins in the order; those of one moment follow in the order of their rows.
        int[] taken = new int[order.length];
        int[] sorted = new int[order.length];
        for (int i = 0; i < order.length; i++) {
            int at = first(distinct, moments[i]);
            sorted[at + taken[at]++] = order[i];
        }
        return sorted;
    }

    /** The first place of a value that is there. */
    private static int first(long[] sorted, long value) {
        int low = 0;
        int high = sorted.length - 1;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (sorted[middle] < value) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }
}
