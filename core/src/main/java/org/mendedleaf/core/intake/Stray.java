package org.mendedleaf.core.intake;

import java.nio.file.Path;
import java.time.Instant;

/**
 * A safety copy that some program left.
 *
 * @param file where it is
 * @param modified when it was last changed
 * @param size bytes
 * @param kind what it is by its content
 * @param belongsTo path in the place of the file it is a copy of; where that is gone, the path it had
 * @param present whether that file is there
 * @param shared how much it has in common with that file's newest version, percent; -1 where there is no way to tell
 * @param sameAs what the version of that file with the same content is called; empty when there is none
 */
public record Stray(
        Path file,
        Instant modified,
        long size,
        ContentKind kind,
        String belongsTo,
        boolean present,
        int shared,
        String sameAs) {

    /** Whether taking it in would add anything. */
    public boolean isNews() {
        return sameAs.isEmpty() || !present;
    }
}
