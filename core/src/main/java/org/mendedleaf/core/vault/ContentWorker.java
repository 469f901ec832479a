package org.mendedleaf.core.vault;

import com.github.luben.zstd.ZstdCompressCtx;
import java.io.IOException;
import java.nio.channels.ReadableByteChannel;
import java.security.MessageDigest;
import java.util.function.LongConsumer;

/** One thread's way of putting contents into the vault: its buffers, its digest, its compressor. */
public final class ContentWorker implements AutoCloseable {

    private static final int LEVEL = 3;

    /** Stored compressed only when that saves at least 3 of 100 bytes. */
    private static final double WORTH = 0.97;

    private final ChunkWriter chunks;
    private final ContentCutter cutter = new ContentCutter();
    private final byte[] packed = new byte[(int) com.github.luben.zstd.Zstd.compressBound(Chunker.MAX)];
    private final MessageDigest sha = Digest.sha256();
    private final ContentDigest contentDigest = new ContentDigest();
    private final ZstdCompressCtx zstd = new ZstdCompressCtx().setLevel(LEVEL);

    /** A worker that hands its chunks to this writer. */
    public ContentWorker(ChunkWriter chunks) {
        this.chunks = chunks;
    }

    /**
     * Stores what a channel gives, up to its end. A caller that sees afterwards that the source changed meanwhile
     * throws the result away: chunks without a recipe harm nobody.
     *
     * @param read told the number of bytes after each part that was read
     */
    public StoredContent store(ReadableByteChannel in, LongConsumer read) throws IOException {
        Recipe.Builder recipe = new Recipe.Builder();
        byte[][] only = new byte[1][];
        int[] count = new int[1];
        long total = cutter.cut(in, read, (bytes, from, length) -> {
            only[0] = put(bytes, from, length, recipe);
            count[0]++;
        });
        Digest plain = count[0] == 1 ? Digest.of(only[0]) : null;
        if (count[0] == 0) {
            plain = Digest.of(sha.digest());
        }
        return new StoredContent(recipe.build(), total, contentDigest.finish(), plain);
    }

    private byte[] put(byte[] window, int from, int length, Recipe.Builder recipe) throws IOException {
        sha.update(window, from, length);
        byte[] digest = sha.digest();
        contentDigest.add(digest, length);
        long id = chunks.find(digest);
        if (id < 0) {
            int n = zstd.compressByteArray(packed, 0, packed.length, window, from, length);
            id = n < length * WORTH
                    ? chunks.add(digest, PackFormat.ZSTD, packed, 0, n, length)
                    : chunks.add(digest, PackFormat.RAW, window, from, length, length);
        }
        recipe.add(id);
        return digest;
    }

    @Override
    public void close() {
        zstd.close();
    }
}
