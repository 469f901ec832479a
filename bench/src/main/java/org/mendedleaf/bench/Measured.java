package org.mendedleaf.bench;

import java.util.Arrays;
import java.util.Locale;
import java.util.function.ToDoubleFunction;

/**
 * What a process took.
 *
 * @param wall seconds from its start to its end
 * @param processor seconds of all processors, its own children included
 * @param memory most that one of its processes held at a time, MB; 0 where the system does not tell
 */
record Measured(double wall, double processor, double memory) {

    /** The medians of several, each by itself. */
    static Measured median(Measured[] all) {
        return new Measured(of(all, Measured::wall), of(all, Measured::processor), of(all, Measured::memory));
    }

    private static double of(Measured[] all, ToDoubleFunction<Measured> what) {
        double[] sorted = Arrays.stream(all).mapToDouble(what).sorted().toArray();
        return sorted[sorted.length / 2];
    }

    String words() {
        String times = String.format(Locale.ROOT, "%.2f / %.2f s", wall, processor);
        return memory == 0 ? times : times + String.format(Locale.ROOT, ", %.0f MB", memory);
    }
}
