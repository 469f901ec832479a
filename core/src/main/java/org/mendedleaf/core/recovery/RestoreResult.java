package org.mendedleaf.core.recovery;

import java.util.List;

/**
 * What a restore did, file by file.
 *
 * @param action id of the action in the journal, for undoing it; 0 when nothing changed
 * @param items one for each item of the plan, as far as it came
 * @param cancelled whether somebody stopped it; what was done stays done
 */
public record RestoreResult(long action, List<Item> items, boolean cancelled) {

    /** Somebody cancelled before anything was done. */
    public static final RestoreResult CANCELLED = new RestoreResult(0, List.of(), true);

    /** Copies the list. */
    public RestoreResult {
        items = List.copyOf(items);
    }

    /** What became of one file. */
    public enum Outcome {
        /** It is there, and was read back and compared. */
        DONE,
        /** The plan said to leave it. */
        LEFT,
        /** It could not be done; what was there is untouched. */
        FAILED
    }

    /**
     * What became of one file.
     *
     * @param plan what was planned
     * @param outcome what happened
     * @param number of the new version; 0 when there is none
     * @param label what that version is called; empty when there is none
     * @param why what went wrong, as a message; empty when nothing did
     */
    public record Item(RestorePlan.Item plan, Outcome outcome, int number, String label, String why) {

        /** One that is done, where it is no version of anything. */
        static Item done(RestorePlan.Item plan) {
            return new Item(plan, Outcome.DONE, 0, "", "");
        }

        /** One that could not be done. */
        static Item failed(RestorePlan.Item plan, String why) {
            return new Item(plan, Outcome.FAILED, 0, "", why);
        }

        /** A file to which nothing was to happen; one that was refused counts as failed. */
        static Item untouched(RestorePlan.Item item) {
            boolean refused = item.step() == RestorePlan.Step.REFUSE;
            return new Item(item, refused ? Outcome.FAILED : Outcome.LEFT, 0, "", item.why());
        }
    }

    /** What was not done, to be tried again: what failed, and what somebody's cancelling kept from being done. */
    public List<String> toRetry(RestorePlan whole) {
        java.util.Set<String> good = new java.util.HashSet<>();
        items.stream()
                .filter(i -> i.outcome() != Outcome.FAILED)
                .forEach(i -> good.add(i.plan().wanted()));
        return whole.items().stream()
                .map(RestorePlan.Item::wanted)
                .filter(w -> !good.contains(w))
                .toList();
    }

    /** Number of files with this outcome. */
    public long count(Outcome outcome) {
        return items.stream().filter(i -> i.outcome() == outcome).count();
    }
}
