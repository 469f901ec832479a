package org.mendedleaf.core.vault;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.security.MessageDigest;

/**
 * The digest of a whole content, taken over the digests of its chunks: SHA-256 of the concatenated SHA-256 digests of
 * the chunks, followed by the length of the content as 8 bytes, little-endian.
 *
 * <p>It costs nothing beside the chunk digests, and stands or falls with them; the plain SHA-256 of the bytes is
 * computed when somebody asks for it. Equal contents are cut into equal chunks, so that equal contents have equal
 * content digests within one vault.
 */
public final class ContentDigest {

    private final MessageDigest sha = Digest.sha256();
    private long length;

    /** Adds the next chunk: its digest and its length in bytes. */
    public void add(byte[] chunkDigest, int chunkLength) {
        sha.update(chunkDigest);
        length += chunkLength;
    }

    /** The digest of all that was added; afterwards this is empty again. */
    public Digest finish() {
        sha.update(ByteBuffer.allocate(8)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putLong(length)
                .flip());
        length = 0;
        return Digest.of(sha.digest());
    }
}
