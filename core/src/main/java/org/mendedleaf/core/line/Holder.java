package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.Optional;

/**
 * Somebody who holds the content of a version.
 *
 * @param kind how
 * @param place whose line it is on; for {@link Kind#VAULT} the line's own place
 * @param point what the system calls it: a version id, or the key of a cut; empty for the vault
 * @param label what people call it there, such as a version number or the name of a snapshot
 * @param expires when the holder will forget it by its own rules, as far as known
 */
public record Holder(Kind kind, Place place, String point, String label, Optional<Instant> expires) {

    /** How a content is held. */
    public enum Kind {
        /** In the vault, until its retention lets it go. */
        VAULT,
        /** As a version that a system keeps of this file. */
        POINT,
        /** In a snapshot or a backup run. */
        CUT,
        /** As the live file on a system; the next save replaces it. */
        LIVE
    }
}
