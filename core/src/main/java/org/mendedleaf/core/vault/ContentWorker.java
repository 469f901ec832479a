package org.mendedleaf.core.vault;

import com.github.luben.zstd.ZstdCompressCtx;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.ReadableByteChannel;
import java.nio.channels.SeekableByteChannel;
import java.security.MessageDigest;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;

/** One thread's way of putting contents into the vault: its buffers, its digest, its compressor. */
public final class ContentWorker implements AutoCloseable {

    private static final int WINDOW = 2 << 20;
    private static final int LEVEL = 3;

    /** Stored compressed only when that saves at least 3 of 100 bytes. */
    private static final double WORTH = 0.97;

    private final ChunkWriter chunks;
    private final byte[] window = new byte[WINDOW];
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
        long total = 0;
        int have = fill(in, 0, read);
        boolean ended = have < window.length;
        long[] seams = seams(in, have, ended);
        int seam = 0;
        int from = 0;
        byte @Nullable [] only = null;
        int count = 0;
        while (from < have) {
            while (seam < seams.length && seams[seam] <= total) {
                seam++;
            }
            int to = have;
            if (seam < seams.length) {
                to = (int) Math.min(to, from + (seams[seam] - total));
            }
            int end = Chunker.cut(window, from, to);
            only = put(from, end - from, recipe);
            count++;
            total += end - from;
            from = end;
            if (!ended && have - from < Chunker.MAX) {
                System.arraycopy(window, from, window, 0, have - from);
                have = fill(in, have - from, read);
                ended = have < window.length;
                from = 0;
            }
        }
        Digest plain = count == 1 && only != null ? Digest.of(only) : null;
        if (count == 0) {
            plain = Digest.of(sha.digest());
        }
        return new StoredContent(recipe.build(), total, contentDigest.finish(), plain);
    }

    private int fill(ReadableByteChannel in, int from, LongConsumer read) throws IOException {
        ByteBuffer buffer = ByteBuffer.wrap(window, from, window.length - from);
        while (buffer.hasRemaining()) {
            int n = in.read(buffer);
            if (n < 0) {
                break;
            }
            read.accept(n);
        }
        return buffer.position();
    }

    private long[] seams(ReadableByteChannel in, int have, boolean ended) throws IOException {
        if (!ZipSeams.startsLikeZip(window, have)) {
            return new long[0];
        }
        if (ended) {
            return ZipSeams.of(window, have);
        }
        return in instanceof SeekableByteChannel file ? ZipSeams.of(file, file.size()) : new long[0];
    }

    private byte[] put(int from, int length, Recipe.Builder recipe) throws IOException {
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
