package org.mendedleaf.core.recovery;

import java.util.List;
import java.util.Map;

/**
 * What became of folding copies.
 *
 * @param action in the journal; 0 when nothing changed
 * @param versions that each kept file has got more, by its path
 * @param removed copies that are removed from their folders and can be brought back
 * @param failed what could not be done, and why, by path
 * @param cancelled whether somebody cancelled before the end
 */
public record FoldResult(
        long action,
        Map<String, Integer> versions,
        List<String> removed,
        Map<String, String> failed,
        boolean cancelled) {

    /** Copies. */
    public FoldResult {
        versions = Map.copyOf(versions);
        removed = List.copyOf(removed);
        failed = Map.copyOf(failed);
    }
}
