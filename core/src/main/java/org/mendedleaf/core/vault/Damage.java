package org.mendedleaf.core.vault;

import java.util.Set;

/**
 * Something in a pack that is not as it was stored.
 *
 * @param pack number of the pack
 * @param words what is wrong, naming the pack and the place in it
 * @param chunks ids of the chunks that cannot be read because of it; empty when no content is touched
 */
public record Damage(long pack, String words, Set<Long> chunks) {

    /** Copies the set. */
    public Damage {
        chunks = Set.copyOf(chunks);
    }
}
