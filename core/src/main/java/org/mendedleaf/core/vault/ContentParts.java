package org.mendedleaf.core.vault;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * By which digests the bytes of a content can be compared with what was stored, when they are read from somewhere else.
 *
 * @param stretches the content, in order
 * @param made SHA-256 of all stretches without a digest of their own, in order; null when there are none
 */
public record ContentParts(
        List<Stretch> stretches, @Nullable Digest made) {

    /** Copies the list. */
    public ContentParts {
        stretches = List.copyOf(stretches);
    }

    /**
     * A stretch of bytes.
     *
     * @param length in bytes
     * @param digest of them; null when they belong to what was made
     */
    public record Stretch(int length, byte @Nullable [] digest) {}
}
