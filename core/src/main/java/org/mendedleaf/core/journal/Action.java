package org.mendedleaf.core.journal;

import java.time.Instant;
import java.util.List;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

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

    /** What was done, as a message: {@code 12 files restored}, or with the name of the only one. */
    public String words() {
        List<Item> files = items.stream().filter(i -> i.line() != 0).toList();
        long lines = files.stream().map(Item::line).distinct().count();
        return lines == 1
                ? Words.of("action.one." + kind, files.get(0).name())
                : Words.of("action." + kind, Formats.number(lines), lines);
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
