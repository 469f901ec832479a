package org.mendedleaf.core.intake;

import java.util.List;
import java.util.Optional;

/**
 * One file of many that come in, and what shall become of it.
 *
 * @param incoming the file
 * @param fate what shall become of it
 * @param target path in the place that it goes to; where it is unsure, the likeliest
 * @param how the target was found
 * @param candidates other paths that it could be meant for, likeliest first
 * @param judgement what the guard thinks of it as the next version of the target, where it was asked
 * @param note of its own; empty to have the one for all
 * @param chosen whether somebody chose its fate
 */
public record IntakeRow(
        Matcher.Incoming incoming,
        Fate fate,
        String target,
        Matcher.How how,
        List<String> candidates,
        Optional<Judgement> judgement,
        String note,
        boolean chosen) {

    /** Copies the list. */
    public IntakeRow {
        candidates = List.copyOf(candidates);
    }

    /** What becomes of a file. */
    public enum Fate {
        /** It becomes the next version of the target. */
        NEW_VERSION,
        /** It becomes a new file at the target. */
        NEW_FILE,
        /** Nothing: its content is there already. */
        IDENTICAL,
        /** Nothing, until somebody says what. */
        UNSURE,
        /** Nothing: somebody, or the rule of the place, left it out. */
        SKIPPED
    }

    /** Whether it goes in. */
    public boolean acts() {
        return fate == Fate.NEW_VERSION || fate == Fate.NEW_FILE;
    }

    /** The same with another fate, as somebody chose it. */
    public IntakeRow choose(Fate other, String path) {
        boolean same = path.equals(target);
        return new IntakeRow(incoming, other, path, how, candidates, same ? judgement : Optional.empty(), note, true);
    }

    /** The same with a note of its own. */
    public IntakeRow noted(String words) {
        return new IntakeRow(incoming, fate, target, how, candidates, judgement, words, chosen);
    }

    /** The same as the guard sees it: what is doubtful waits for somebody. */
    IntakeRow judged(Judgement j) {
        Fate after = chosen || fate != Fate.NEW_VERSION
                ? fate
                : j.isSame() ? Fate.IDENTICAL : j.outcome() == Judgement.Outcome.SURE ? fate : Fate.UNSURE;
        return new IntakeRow(incoming, after, target, how, candidates, Optional.of(j), note, chosen);
    }
}
