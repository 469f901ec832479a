package org.mendedleaf.core;

import java.util.stream.LongStream;

/** How often a property is tried: a few times in ./verify, many times with {@code mvn -P thorough}. */
public final class Tries {

    private static final int TIMES = Integer.getInteger("mendedleaf.tries", 1);

    private Tries() {}

    /** Seeds of the tries; the first ones are always the same. */
    public static LongStream seeds(int few) {
        return LongStream.range(0, (long) few * TIMES);
    }
}
