package org.mendedleaf.core.catalogue;

/** How large a column becomes that is too small. */
final class Growth {

    private static final int LEAST = 1024;

    private Growth() {}

    /** A length in which this index has its place, a quarter more than is needed. */
    static int of(long index) {
        return (int) Math.min(Integer.MAX_VALUE - 8L, Math.max(LEAST, index + index / 4 + 1));
    }
}
