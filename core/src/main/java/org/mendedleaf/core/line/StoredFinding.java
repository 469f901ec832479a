package org.mendedleaf.core.line;

import java.time.Instant;
import org.mendedleaf.core.words.Words;

/**
 * Something that looks wrong and that somebody should see to.
 *
 * @param id in its vault; 0 before it is stored
 * @param place id of the place
 * @param line of the file
 * @param number of the version that it is about
 * @param kind what it is
 * @param at when it was found
 * @param who is involved
 * @param detail more of it, by kind
 * @param settled whether somebody saw to it
 */
public record StoredFinding(
        long id, long place, long line, int number, Kind kind, Instant at, String who, String detail, boolean settled) {

    /** What can look wrong. */
    public enum Kind {
        /** A file was changed in its folder while somebody else had it checked out; {@code detail} is who had it. */
        EDITED_WHILE_CHECKED_OUT
    }

    /** In words. */
    public String words(String path, String edition) {
        return Words.of("finding." + kind, path, who, detail, edition);
    }

    /** The same, seen to. */
    public StoredFinding settle() {
        return new StoredFinding(id, place, line, number, kind, at, who, detail, true);
    }
}
