package org.mendedleaf.core.findings;

import java.time.Instant;
import org.mendedleaf.core.catalogue.HistoryQuery;

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

    static NameChange of(HistoryQuery.Turn t) {
        return new NameChange(t.line(), t.at(), t.who(), t.from(), t.to(), t.number());
    }

    /** Whether it was removed. */
    public boolean isRemoval() {
        return to.isEmpty();
    }
}
