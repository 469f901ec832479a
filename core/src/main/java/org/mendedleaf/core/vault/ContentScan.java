package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.ReadableByteChannel;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.List;

/**
 * What a content would be in a vault, without storing it.
 *
 * @param length of the content, bytes
 * @param digest of the content, as {@link ContentDigest} takes it
 * @param chunks it is cut into, in order
 */
public record ContentScan(long length, Digest digest, List<Chunk> chunks) {

    /** Copies the list. */
    public ContentScan {
        chunks = List.copyOf(chunks);
    }

    /**
     * A chunk.
     *
     * @param digest of its bytes
     * @param length in bytes
     */
    public record Chunk(Digest digest, int length) {}

    /** Scans what a channel gives, up to its end. */
    public static ContentScan of(ReadableByteChannel in) throws IOException {
        MessageDigest sha = Digest.sha256();
        ContentDigest whole = new ContentDigest();
        List<Chunk> chunks = new ArrayList<>();
        long length = new ContentCutter().cut(in, n -> {}, (bytes, from, n) -> {
            sha.update(bytes, from, n);
            byte[] digest = sha.digest();
            whole.add(digest, n);
            chunks.add(new Chunk(Digest.of(digest), n));
        });
        return new ContentScan(length, whole.finish(), chunks);
    }
}
