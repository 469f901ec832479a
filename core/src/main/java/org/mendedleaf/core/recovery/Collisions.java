package org.mendedleaf.core.recovery;

import java.util.Map;

/**
 * What to do where something has the name already.
 *
 * @param all for all files but those that are named
 * @param byTarget for single files, by the path that they shall have
 */
public record Collisions(Collision all, Map<String, Collision> byTarget) {

    /** Copies the map. */
    public Collisions {
        byTarget = Map.copyOf(byTarget);
    }

    /** The same for all. */
    public static Collisions all(Collision collision) {
        return new Collisions(collision, Map.of());
    }

    Collision at(String target) {
        return byTarget.getOrDefault(target, all);
    }
}
