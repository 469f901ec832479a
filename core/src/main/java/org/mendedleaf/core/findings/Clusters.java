package org.mendedleaf.core.findings;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
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

    /**
     * What is usual: the size that nine in ten of the other runs do not exceed.
     *
     * @param without the run that is looked at
     */
    static <T> int usual(List<List<T>> all, List<T> without) {
        int[] sizes = all.stream()
                .filter(r -> r != without)
                .mapToInt(List::size)
                .sorted()
                .toArray();
        return sizes.length == 0 ? 0 : sizes[(int) Math.min(sizes.length - 1, Math.ceil(sizes.length * 0.9) - 1)];
    }
}
