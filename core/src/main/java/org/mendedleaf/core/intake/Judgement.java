package org.mendedleaf.core.intake;

import java.util.List;
import java.util.Optional;

/**
 * What the guard thinks of a content that shall become the next version of a file.
 *
 * @param outcome whether it may go through at once
 * @param shared how much it has in common with the current version, percent; -1 when there is no way to tell
 * @param reasons what speaks for and against it, the weightiest first
 * @param identicalTo number of the version of this file with the same content; 0 when there is none
 * @param identicalLabel what that is called; empty when there is none
 * @param belongsTo path of another file that it rather belongs to
 */
public record Judgement(
        Outcome outcome,
        int shared,
        List<Reason> reasons,
        int identicalTo,
        String identicalLabel,
        Optional<String> belongsTo) {

    /** One for a content that is none of the versions. */
    Judgement(Outcome outcome, int shared, List<Reason> reasons, Optional<String> belongsTo) {
        this(outcome, shared, reasons, 0, "", belongsTo);
    }

    /** Copies the list. */
    public Judgement {
        reasons = List.copyOf(reasons);
    }

    /** Whether a content may go through. */
    public enum Outcome {
        /** It goes through at once. */
        SURE,
        /** Somebody should look first. */
        LOOK,
        /** It is most likely the wrong file. */
        UNLIKELY
    }

    /** What was looked at. */
    public enum Aspect {
        /** Nothing is in it. */
        EMPTY,
        /** It is the current version already. */
        SAME,
        /** It is an earlier version of this file. */
        EARLIER,
        /** It is the newest version of another file. */
        OTHERS,
        /** What kind of file it is. */
        KIND,
        /** What its name says and what it is. */
        NAME,
        /** How much it has in common with the current version. */
        COMMON,
        /** Another file has more in common with it. */
        NEARER,
        /** How large it is. */
        SIZE,
        /** How old it is. */
        AGE,
        /** There is nothing to compare it with. */
        NEW
    }

    /**
     * A reason.
     *
     * @param aspect what was looked at
     * @param against whether it speaks against the content
     * @param words for people, with numbers
     */
    public record Reason(Aspect aspect, boolean against, String words) {}

    /** Whether there is nothing to do, since the content is the current version. */
    public boolean isSame() {
        return reasons.stream().anyMatch(r -> r.aspect() == Aspect.SAME);
    }

    /** Whether this was looked at and spoke against it. */
    public boolean isAgainst(Aspect aspect) {
        return reasons.stream().anyMatch(r -> r.against() && r.aspect() == aspect);
    }

    /** The weightiest reason in words. */
    public String why() {
        return reasons.isEmpty() ? "" : reasons.get(0).words();
    }
}
