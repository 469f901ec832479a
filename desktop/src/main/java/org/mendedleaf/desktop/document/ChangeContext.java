package org.mendedleaf.desktop.document;

import java.util.ArrayList;
import java.util.List;
import java.util.function.IntFunction;
import java.util.function.Predicate;

/** What changed, with a little of what stands around it. */
final class ChangeContext {

    /** Equal lines, rows or paragraphs on each side of a change. */
    private static final int AROUND = 3;

    private ChangeContext() {}

    /** Leaves out runs of what is equal; {@code left} makes what stands for so many. */
    static <T> List<T> fold(List<T> all, Predicate<T> changed, IntFunction<T> left) {
        boolean[] keep = new boolean[all.size()];
        for (int i = 0; i < all.size(); i++) {
            if (changed.test(all.get(i))) {
                for (int k = Math.max(0, i - AROUND); k <= Math.min(all.size() - 1, i + AROUND); k++) {
                    keep[k] = true;
                }
            }
        }
        List<T> shown = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            if (keep[i]) {
                shown.add(all.get(i));
            } else {
                int from = i;
                while (i + 1 < all.size() && !keep[i + 1]) {
                    i++;
                }
                shown.add(left.apply(i - from + 1));
            }
        }
        return shown;
    }
}
