package org.mendedleaf.core.findings;

import java.time.Instant;

/**
 * A file got another name, or was removed.
 *
 * @param line of the file
 * @param at when
 * @param who did it, as far as known
 * @param from path before
 * @param to path after; empty when it was removed
 * @param number of the version that was current
 */
public record NameChange(long line, Instant at, String who, String from, String to, int number) {

    /** Whether it was removed. */
    public boolean isRemoval() {
        return to.isEmpty();
    }
}
