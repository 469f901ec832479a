package org.mendedleaf.core.vault;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.channels.Channels;
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
        return of(in, new ContentCutter());
    }

    /** Scans a content that is in memory. */
    public static ContentScan of(byte[] content) {
        try {
            return of(Channels.newChannel(new ByteArrayInputStream(content)), ContentCutter.of(content.length));
        } catch (IOException e) {
            throw new IllegalStateException("bytes in memory can be read", e);
        }
    }

    private static ContentScan of(ReadableByteChannel in, ContentCutter cutter) throws IOException {
        MessageDigest sha = Digest.sha256();
        ContentDigest whole = new ContentDigest();
        List<Chunk> chunks = new ArrayList<>();
        long length = cutter.cut(in, n -> {}, (bytes, from, n) -> {
            sha.update(bytes, from, n);
            byte[] digest = sha.digest();
            whole.add(digest, n);
            chunks.add(new Chunk(Digest.of(digest), n));
        });
        return new ContentScan(length, whole.finish(), chunks);
    }
}
