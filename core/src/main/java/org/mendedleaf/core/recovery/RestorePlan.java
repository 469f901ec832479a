package org.mendedleaf.core.recovery;

import java.util.List;
import org.mendedleaf.core.line.Version;

/**
 * What a restore will do, file by file, before it does anything.
 *
 * @param items one for each wish, in that order
 */
public record RestorePlan(List<Item> items) {

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
     * @param version that is wanted
     * @param wanted path that was wished for
     * @param target path that it will have
     * @param step what will happen
     * @param why the reason in words; empty where the step says all
     */
    public record Item(Version version, String wanted, String target, Step step, String why) {

        /** Whether something will be written. */
        public boolean writes() {
            return step == Step.CREATE || step == Step.REPLACE || step == Step.KEEP_BOTH;
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
}
