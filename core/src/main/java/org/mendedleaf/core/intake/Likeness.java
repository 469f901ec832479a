package org.mendedleaf.core.intake;

import java.util.List;
import java.util.OptionalDouble;

/**
 * How much a content has in common with a file's current version, 0 to 1. Pure.
 *
 * <p>What counts depends on what there is: words where both have some, else how pictures look, else bytes in chunks that
 * both have. Words that other files of the same kind have too, as in a form that is filled in again and again, say nothing
 * of which of these files a content belongs to; so where there are such neighbours, only what they do not have counts.
 */
final class Likeness {

    /** With fewer words than this, a text says too little. */
    private static final int WORDS_LEAST = 6;

    /** Fewer runs than this that neighbours do not have say nothing. */
    private static final int OWN_LEAST = 4;

    private Likeness() {}

    /** A share in percent. Only what is the same in every byte has all in common; anything else has 99 at most. */
    static int percent(double share, boolean same) {
        return same ? 100 : Math.min(99, (int) Math.round(share * 100));
    }

    /** How much they have in common; empty when there is no way to tell. */
    static OptionalDouble of(Features incoming, Features current, List<Features> neighbours) {
        boolean words = incoming.words() >= WORDS_LEAST && current.words() >= WORDS_LEAST;
        double bytes = incoming.sharedBytes(current);
        if (words) {
            double text = text(incoming, current, neighbours);
            // Slides are made of pictures as much as of words.
            return OptionalDouble.of(current.kind() == ContentKind.SLIDES ? Math.max(text, bytes) : text);
        }
        if (incoming.look().isPresent() && current.look().isPresent()) {
            return OptionalDouble.of(
                    Math.max(bytes, incoming.look().get().alike(current.look().get())));
        }
        // Contents of one chunk have all in common or nothing, which tells nothing of small ones.
        boolean cut =
                incoming.scan().chunks().size() > 2 && current.scan().chunks().size() > 2;
        return cut || bytes > 0 ? OptionalDouble.of(bytes) : OptionalDouble.empty();
    }

    private static double text(Features incoming, Features current, List<Features> neighbours) {
        double near = incoming.near().containment(current.near());
        double far = incoming.far().containment(current.far());
        // A change here and there leaves most short runs, a change in one place most long ones.
        double all = Math.max(near * near, far);
        Shingles mine = current.near();
        Shingles theirs = incoming.near();
        boolean any = false;
        for (Features n : neighbours) {
            if (n.words() >= WORDS_LEAST) {
                any = true;
                mine = mine.without(n.near());
                theirs = theirs.without(n.near());
            }
        }
        if (!any || mine.size() < OWN_LEAST || theirs.size() < OWN_LEAST) {
            return all;
        }
        return Math.min(all, mine.containment(theirs));
    }
}
