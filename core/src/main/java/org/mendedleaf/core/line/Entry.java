package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.Optional;

/**
 * One row of a folder's listing at a moment.
 *
 * @param name in the folder
 * @param kind file, link or folder
 * @param node id of the name
 * @param line the file's line; 0 for a folder
 * @param folder id of the folder it names; 0 for a file
 * @param number of the version that was current then; 0 for a folder
 * @param versions of the line, all of them; 0 for a folder
 * @param size bytes
 * @param versionBytes of all versions of the line together, each counted whole
 * @param mtimeNanos modified time, nanoseconds since 1970
 * @param mode permission bits
 * @param since when this became so
 * @param removed when and by whom it was removed; empty for what was there at the moment
 */
public record Entry(
        String name,
        EntryKind kind,
        long node,
        long line,
        long folder,
        int number,
        int versions,
        long size,
        long versionBytes,
        long mtimeNanos,
        int mode,
        Instant since,
        Optional<Removal> removed) {

    /**
     * When it last changed. A first version may be much older than its place: it was saved at its modified time, not when it was
     * found.
     */
    public Instant changed() {
        Instant modified = Instant.ofEpochSecond(0, mtimeNanos);
        return number == 1 && modified.isBefore(since) ? modified : since;
    }

    /** When and by whom something was removed. */
    public record Removal(Instant at, String who) {}
}
