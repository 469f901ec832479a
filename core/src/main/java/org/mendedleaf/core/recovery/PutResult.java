package org.mendedleaf.core.recovery;

import java.util.List;
import java.util.Map;

/**
 * What became of putting files in.
 *
 * @param action in the journal; 0 when nothing changed
 * @param labels what the new versions are called, by path; of the current one where the content was there already
 * @param failed what did not go in, and why, by path
 * @param same paths whose content was there already
 * @param stayed files that should have been removed from where they were and are still there, and why
 * @param cancelled whether somebody cancelled before the end; what is in neither map was not begun
 */
public record PutResult(
        long action,
        Map<String, String> labels,
        Map<String, String> failed,
        List<String> same,
        List<String> stayed,
        boolean cancelled) {

    /** Copies. */
    public PutResult {
        labels = Map.copyOf(labels);
        failed = Map.copyOf(failed);
        same = List.copyOf(same);
        stayed = List.copyOf(stayed);
    }
}
