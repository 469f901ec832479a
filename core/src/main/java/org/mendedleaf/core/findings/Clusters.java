package org.mendedleaf.core.findings;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.Function;

/** Puts together what happened within minutes of each other. Pure. */
final class Clusters {

    /** What comes later than this after the last one is another event. */
    static final Duration GAP = Duration.ofMinutes(10);

    private Clusters() {}

    /** Runs of things that follow each other closely, by time. */
    static <T> List<List<T>> of(List<T> things, Function<T, Instant> at) {
        List<T> sorted = new ArrayList<>(things);
        sorted.sort(Comparator.comparing(at));
        List<List<T>> all = new ArrayList<>();
        List<T> run = new ArrayList<>();
        for (T thing : sorted) {
            if (!run.isEmpty() && at.apply(run.get(run.size() - 1)).plus(GAP).isBefore(at.apply(thing))) {
                all.add(run);
                run = new ArrayList<>();
            }
            run.add(thing);
        }
        if (!run.isEmpty()) {
            all.add(run);
        }
        return all;
    }

    /** How large the runs are, in ascending order. */
    static <T> int[] sizes(List<List<T>> all) {
        return all.stream().mapToInt(List::size).sorted().toArray();
    }

    /**
     * What is usual: the size that nine in ten of the other runs do not exceed.
     *
     * @param sizes of all runs, as {@link #sizes} gives them
     * @param own size of the run that is looked at
     */
    static int usual(int[] sizes, int own) {
        int others = sizes.length - 1;
        if (others <= 0) {
            return 0;
        }
        int at = (int) Math.min(others - 1, Math.max(0, Math.ceil(others * 0.9) - 1));
        // The run itself is left out: from its place on, the others stand one further.
        int itself = Arrays.binarySearch(sizes, own);
        return sizes[itself >= 0 && itself <= at ? at + 1 : at];
    }
}
