package org.mendedleaf.core.vault;

import java.util.Arrays;

/**
 * Where a chunk lies.
 *
 * @param id of the chunk, the same for ever even when packs are rewritten
 * @param pack number of the pack that holds it
 * @param offset of its record in the pack
 * @param storedBytes bytes of its content in the pack
 * @param length bytes of its content
 * @param digest SHA-256 of its content, 32 bytes
 */
public record ChunkPlace(long id, long pack, long offset, int storedBytes, int length, byte[] digest) {

    /** Whether it is the same chunk at the same place. */
    boolean isSame(ChunkPlace other) {
        return id == other.id
                && pack == other.pack
                && offset == other.offset
                && storedBytes == other.storedBytes
                && length == other.length
                && Arrays.equals(digest, other.digest);
    }
}
