package org.mendedleaf.core;

import java.util.stream.LongStream;

/** How often a property is tried: a few times in ./verify, many times with {@code mvn -P thorough}. */
public final class Tries {

    private static final int TIMES = Integer.getInteger("mendedleaf.tries", 1);

    private Tries() {}

    /** So many times more often than usual: 1 in ./verify. */
    static int times() {
        return TIMES;
    }

    /** A step over what is tried one by one: so many in ./verify, and 1, which leaves nothing out, with the profile. */
    public static int every(int step) {
        return TIMES > 1 ? 1 : step;
    }

    /** Seeds of the tries; the first ones are always the same. */
    public static LongStream seeds(int few) {
        return LongStream.range(0, (long) few * TIMES);
    }
}
