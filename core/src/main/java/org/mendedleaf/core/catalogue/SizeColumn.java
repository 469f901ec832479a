package org.mendedleaf.core.catalogue;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/** Sizes of contents, bytes: four bytes each, and those of 2 GB and more beside them. */
final class SizeColumn {

    private static final int LARGE = -1;

    private final Map<Integer, Long> large = new HashMap<>();
    private int[] sizes;

    SizeColumn(int expected) {
        sizes = new int[expected];
    }

    void set(int row, long size) {
        if (row >= sizes.length) {
            sizes = Arrays.copyOf(sizes, Growth.of(row));
        }
        if (size >= 0 && size <= Integer.MAX_VALUE) {
            sizes[row] = (int) size;
        } else {
            sizes[row] = LARGE;
            large.put(row, size);
        }
    }

    long get(int row) {
        return sizes[row] == LARGE ? large.getOrDefault(row, 0L) : sizes[row];
    }
}
