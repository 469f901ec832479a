package org.mendedleaf.core.catalogue;

/** Goes through the runs of a recipe as {@link org.mendedleaf.core.vault.Recipe#listed} gives it: chunks with ids in a row. */
final class RecipeRuns {

    private final byte[] bytes;
    private final int end;
    private int at;
    private long first;
    private int count;

    RecipeRuns(byte[] bytes, int from, int end) {
        this.bytes = bytes;
        this.at = from;
        this.end = end;
    }

    /** Of a recipe that stands behind its length. */
    static RecipeRuns at(byte[] bytes, int from) {
        RecipeRuns runs = new RecipeRuns(bytes, from, bytes.length);
        int length = (int) runs.number();
        return new RecipeRuns(bytes, runs.at, runs.at + length);
    }

    /** Goes to the next run; false when there is none. */
    boolean next() {
        if (at >= end) {
            return false;
        }
        long expected = first + count;
        long tag = number();
        long zigzag = number();
        first = expected + ((zigzag >>> 1) ^ -(zigzag & 1));
        count = (int) (tag >>> 2);
        return true;
    }

    /** Unsigned LEB128. */
    private long number() {
        long value = 0;
        int shift = 0;
        byte b;
        do {
            b = bytes[at++];
            value |= (b & 0x7fL) << shift;
            shift += 7;
        } while (b < 0);
        return value;
    }

    /** The first chunk of the run. */
    int first() {
        return (int) first;
    }

    /** How many chunks are in it. */
    int count() {
        return count;
    }
}
