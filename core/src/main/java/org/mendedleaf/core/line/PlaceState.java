package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * How a place stands.
 *
 * @param lastLook when it was last looked at
 * @param lastGood when it was last looked at to the end
 * @param trouble what went wrong in the last look; empty when nothing did
 * @param skipped what is not kept, and why
 * @param files that are there, links among them
 */
public record PlaceState(
        Optional<Instant> lastLook, Optional<Instant> lastGood, String trouble, List<Skipped> skipped, long files) {

    /** Copies the list. */
    public PlaceState {
        skipped = List.copyOf(skipped);
    }
}
