package org.mendedleaf.core.line;

import java.time.Instant;

/**
 * What somebody decided about a finding.
 *
 * @param place id of its place
 * @param finding its id
 * @param what was decided
 * @param at when
 * @param who decided it
 * @param reason why, as somebody wrote it; may be empty
 * @param journal id of the action that mended it; 0 when none did
 */
public record Decision(long place, String finding, What what, Instant at, String who, String reason, long journal) {

    /** What can be decided. */
    public enum What {
        /** Nothing has to be done about it. */
        DISMISSED,
        /** It was mended. */
        MENDED
    }

    /**
     * From now on a kind of finding is fine.
     *
     * @param id in its vault; 0 before it is stored
     * @param place where
     * @param kind name of the kind of finding
     * @param line of the file; 0 for the whole place
     * @param at when that was said
     * @param who said it
     * @param reason why
     */
    public record Fine(long id, long place, String kind, long line, Instant at, String who, String reason) {}
}
