package org.mendedleaf.core.line;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.Digest;

/**
 * What was somewhere at one of two moments and not, or not so, at the other.
 *
 * @param before what was there at the earlier one
 * @param after what was there at the later one
 */
public record Difference(List<At> before, List<At> after) {

    /** Copies the lists. */
    public Difference {
        before = List.copyOf(before);
        after = List.copyOf(after);
    }

    /**
     * A file, link or folder at a moment.
     *
     * @param path from the place's root
     * @param line the file's line; 0 for a folder
     * @param number of its version; 0 for a folder
     * @param digest of its content; null for a folder
     */
    public record At(
            String path,
            EntryKind kind,
            long line,
            int number,
            long size,
            long mtimeNanos,
            int mode,
            @Nullable Digest digest) {}
}
