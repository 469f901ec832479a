package org.mendedleaf.core.recovery;

import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Whether a plan can be carried out where it leads, found out before anything is done.
 *
 * @param neededBytes space that it takes
 * @param freeBytes space that is there; {@link Long#MAX_VALUE} when nobody knows
 * @param problems what is in the way, or should be known
 */
public record Preflight(long neededBytes, long freeBytes, List<Problem> problems) {

    /** Nothing is in the way. */
    public static final Preflight NOTHING = new Preflight(0, Long.MAX_VALUE, List.of());

    /** Copies the list. */
    public Preflight {
        problems = List.copyOf(problems);
    }

    /**
     * Something that is in the way, or should be known.
     *
     * @param words what it is
     * @param stops whether nothing can be done before it is out of the way
     */
    public record Problem(String words, boolean stops) {}

    /** Whether it can be carried out. */
    public boolean isGood() {
        return problems.stream().noneMatch(Problem::stops);
    }

    /** The same with one more problem that stops it. */
    Preflight stoppedBy(String words) {
        List<Problem> all = new ArrayList<>(problems);
        all.add(0, new Problem(words, true));
        return new Preflight(neededBytes, freeBytes, all);
    }

    /** What stops it, as a message; empty when nothing does. */
    public String stops() {
        return String.join(
                " ",
                problems.stream().filter(Problem::stops).map(Problem::words).toList());
    }

    /** What these items need of a target. Pure. */
    static Preflight of(List<RestorePlan.Item> items, TargetFacts facts) {
        long needed = items.stream()
                .filter(RestorePlan.Item::writes)
                .mapToLong(i -> i.version().size())
                .sum();
        List<Problem> problems = new ArrayList<>();
        boolean acts = items.stream().anyMatch(RestorePlan.Item::acts);
        if (acts && !facts.writable()) {
            problems.add(new Problem(Words.of("preflight.notWritable", facts.where()), true));
        }
        if (needed > facts.freeBytes()) {
            problems.add(new Problem(
                    Words.of("preflight.space", Formats.size(needed), Formats.size(facts.freeBytes()), facts.where()),
                    true));
        }
        long refused =
                items.stream().filter(i -> i.step() == RestorePlan.Step.REFUSE).count();
        if (refused > 0) {
            problems.add(new Problem(Words.of("preflight.refused", refused), false));
        }
        long tooLong = items.stream()
                .filter(RestorePlan.Item::writes)
                .filter(i -> facts.isTooLongForMany(i.target()))
                .count();
        if (tooLong > 0) {
            problems.add(new Problem(Words.of("preflight.longPaths", tooLong), false));
        }
        return new Preflight(needed, facts.freeBytes(), problems);
    }
}
