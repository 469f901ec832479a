package org.mendedleaf.core.recovery;

import java.util.List;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/**
 * What a restore will do, file by file, before it does anything.
 *
 * @param items one for each that is requested, in that order; then one for each file that came later
 * @param preflight whether it can be done
 */
public record RestorePlan(List<Item> items, Preflight preflight) {

    /** Copies the list. */
    public RestorePlan {
        items = List.copyOf(items);
    }

    /** What will happen to one file. */
    public enum Step {
        /** Nothing has this name: it is written. */
        CREATE,
        /** It takes the place of what is there, which is kept as a version. */
        REPLACE,
        /** What is there stays; it is written under another name. */
        KEEP_BOTH,
        /** It is written, and what is there beside it under another name. */
        KEEP_BOTH_RENAME_OTHER,
        /** It goes back to where it was, and has the content that it had. */
        MOVE_BACK,
        /** It came later, and is removed such that it can be brought back. */
        REMOVE,
        /** It came later, and stays. */
        LEAVE,
        /** Something has this name, and stays. */
        SKIP,
        /** The same content is there already. */
        UNCHANGED,
        /** It cannot be done without losing something, or the name is taken by a folder. */
        REFUSE
    }

    /**
     * One file of a plan.
     *
     * @param version that is wanted; of a file that came later, the one that is there
     * @param wanted path that was wished for
     * @param target path that it will have
     * @param step what will happen
     * @param why the reason of a refusal, as a message; empty otherwise
     * @param other the other path that matters: where its file is now, or where what is there goes; empty when there is none
     */
    public record Item(Version version, String wanted, String target, Step step, String why, String other) {

        /** Whether something will be written. */
        public boolean writes() {
            return switch (step) {
                case CREATE, REPLACE, KEEP_BOTH, KEEP_BOTH_RENAME_OTHER, MOVE_BACK -> true;
                case REMOVE, LEAVE, SKIP, UNCHANGED, REFUSE -> false;
            };
        }

        /** Whether anything will happen to files. */
        public boolean acts() {
            return writes() || step == Step.REMOVE;
        }

        /** Whether it begins a file of its own, since the file that it is a version of has another name now. */
        public boolean isAnother() {
            return step == Step.CREATE && !other.isEmpty();
        }

        /** Why this happens, as a message. */
        public String reason() {
            return why.isEmpty() ? Words.of("plan.why." + (isAnother() ? "ANOTHER" : step), other) : why;
        }
    }

    /** Bytes that will be written. */
    public long bytes() {
        return items.stream()
                .filter(Item::writes)
                .mapToLong(i -> i.version().size())
                .sum();
    }

    /** Number of files for which this will happen. */
    public long count(Step step) {
        return items.stream().filter(i -> i.step() == step).count();
    }

    /** Number of files to which something will happen. */
    public long acting() {
        return items.stream().filter(Item::acts).count();
    }
}
