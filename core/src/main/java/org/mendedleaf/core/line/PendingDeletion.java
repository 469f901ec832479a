package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.Optional;

/**
 * A version that was let go.
 *
 * @param line of the file
 * @param number of the version
 * @param journal id of the action that let it go
 * @param at when that was
 * @param due from when on its content may be taken out of the vault; before, it can be taken back
 * @param who let it go, or whose rule
 * @param reason why, as a key of words
 * @param rule name of the rule; empty when somebody erased it
 * @param gone when its content went; empty while it waits
 */
public record PendingDeletion(
        long line,
        int number,
        long journal,
        Instant at,
        Instant due,
        String who,
        String reason,
        String rule,
        Optional<Instant> gone) {}
