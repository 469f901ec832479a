package org.mendedleaf.core.findings;

import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.vault.Digest;

/**
 * A version, as detectors see it.
 *
 * @param line of the file
 * @param number of the version
 * @param before number of the version before it; 0 when it is the first
 * @param path of the file then
 * @param pathBefore of the file when the version before it was saved; the same when there is none
 * @param at when it was saved
 * @param who saved it
 * @param size bytes
 * @param sizeBefore bytes of the version before it; 0 when there is none
 * @param digest of the content
 * @param quiet whether time and size are those of the version before it, though the content is another
 * @param ours whether it was restored by this program
 * @param health of it, as far as it is known
 * @param likeness to the version before it, as far as it is known
 */
public record SavedVersion(
        long line,
        int number,
        int before,
        String path,
        String pathBefore,
        Instant at,
        String who,
        long size,
        long sizeBefore,
        Digest digest,
        boolean quiet,
        boolean ours,
        Optional<Health> health,
        Optional<Resemblance> likeness) {

    /** Whether it has a version before it. */
    public boolean hasBefore() {
        return before > 0;
    }

    /** Percent in common with the version before it; -1 when nobody can tell. */
    public int shared() {
        return likeness.map(Resemblance::shared).orElse(-1);
    }

    /** The ending of the name, small, without its dot; empty when there is none. */
    static String ending(String path) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        int dot = name.lastIndexOf('.');
        return dot <= 0 ? "" : name.substring(dot + 1).toLowerCase(java.util.Locale.ROOT);
    }
}
