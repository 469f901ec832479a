package org.mendedleaf.core.journal;

import java.time.Instant;
import java.util.List;

/**
 * Something that somebody did, with what is needed to undo it.
 *
 * @param id in its vault
 * @param at when
 * @param who did it
 * @param kind what it was
 * @param place id of the place
 * @param undoes id of the action that it undid; 0 when it did not
 * @param undone whether it was undone since
 * @param items what it changed, in that order
 */
public record Action(
        long id, Instant at, String who, ActionKind kind, long place, long undoes, boolean undone, List<Item> items) {

    /** Copies the list. */
    public Action {
        items = List.copyOf(items);
    }

    /**
     * One change.
     *
     * @param line of the file; 0 for a folder that was made
     * @param folder the path of the folder, from the place's root
     * @param name in the folder
     * @param before number of the version that was there before; 0 when nothing was
     * @param after number of the version that was there afterwards; 0 when nothing was
     */
    public record Item(long line, String folder, String name, int before, int after) {}
}
