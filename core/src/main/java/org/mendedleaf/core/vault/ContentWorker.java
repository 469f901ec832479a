package org.mendedleaf.core.vault;

import com.github.luben.zstd.Zstd;
import com.github.luben.zstd.ZstdCompressCtx;
import java.io.IOException;
import java.nio.channels.ReadableByteChannel;
import java.security.MessageDigest;
import java.util.Optional;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.deflate.SettingsFinder;

/**
 * One thread's way of putting contents into the vault: its buffers, its digest, its compressor.
 *
 * <p>A content is cut, and the digest of each chunk goes into the digest of the content. Then either the chunks are
 * stored, or, where deflated members of an archive can be stored inflated, what {@link UnfoldedWriter} makes of them.
 */
public final class ContentWorker implements AutoCloseable {

    private static final int LEVEL = 3;

    /** Small chunks that many versions will need: a quarter more time of a first capture than level 3, a tenth less space. */
    private static final int LEVEL_INFLATED = 9;

    /** Stored compressed only when that saves at least 3 of 100 bytes. */
    private static final double WORTH = 0.97;

    private final ChunkWriter chunks;
    private final ContentCutter cutter = new ContentCutter();
    private final byte[] packed = new byte[(int) Zstd.compressBound(Chunker.CONTENT.max())];
    private final MessageDigest sha = Digest.sha256();
    private final ContentDigest contentDigest = new ContentDigest();
    private final ZstdCompressCtx zstd = new ZstdCompressCtx().setLevel(LEVEL);
    private final ZstdCompressCtx thorough = new ZstdCompressCtx().setLevel(LEVEL_INFLATED);
    private final SettingsFinder finder = new SettingsFinder();

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
        Pass pass = new Pass();
        long total = cutter.cut(in, read, pass);
        Digest plain = null;
        if (pass.count == 0) {
            plain = Digest.of(sha.digest());
        } else if (pass.count == 1 && pass.first != null) {
            plain = Digest.of(pass.first);
        }
        Digest digest = contentDigest.finish();
        return new StoredContent(pass.recipe(digest), total, digest, plain);
    }

    /** What becomes of the chunks of one content. */
    private final class Pass implements ContentCutter.Taker {
        private final Recipe.Builder recipe = new Recipe.Builder();
        private Optional<UnfoldedWriter> unfolded = Optional.empty();
        private byte @Nullable [] first;
        private int count;

        @Override
        public void zip(ZipDirectory directory, ByteSource content) throws IOException {
            if (chunks.mayUnfold()) {
                Optional<UnfoldPlan> plan = UnfoldPlan.of(directory, content, finder);
                plan.ifPresent(p -> chunks.unfolded(p.inflated()));
                unfolded = plan.map(p -> new UnfoldedWriter(p, new Store()));
            }
        }

        @Override
        public void chunk(byte[] bytes, int from, int length) throws IOException {
            sha.update(bytes, from, length);
            byte[] digest = sha.digest();
            contentDigest.add(digest, length);
            first = count++ == 0 ? digest : first;
            if (unfolded.isPresent()) {
                unfolded.get().take(digest, bytes, from, length);
            } else {
                recipe.add(put(zstd, digest, bytes, from, length));
            }
        }

        Recipe recipe(Digest content) throws IOException {
            return unfolded.isPresent() ? unfolded.get().finish(content) : recipe.build();
        }
    }

    /** Where the chunks of an unfolded content go. */
    private final class Store implements UnfoldedWriter.Store {
        @Override
        public long put(byte[] digest, byte[] bytes, int from, int length) throws IOException {
            return ContentWorker.this.put(zstd, digest, bytes, from, length);
        }

        @Override
        public UnfoldedWriter.Stored putInflated(byte[] bytes, int from, int length) throws IOException {
            sha.update(bytes, from, length);
            byte[] digest = sha.digest();
            return new UnfoldedWriter.Stored(ContentWorker.this.put(thorough, digest, bytes, from, length), digest);
        }
    }

    private long put(ZstdCompressCtx by, byte[] digest, byte[] bytes, int from, int length) throws IOException {
        long id = chunks.find(digest);
        if (id >= 0) {
            return id;
        }
        int n = by.compressByteArray(packed, 0, packed.length, bytes, from, length);
        return n < length * WORTH
                ? chunks.add(digest, PackFormat.ZSTD, packed, 0, n, length)
                : chunks.add(digest, PackFormat.RAW, bytes, from, length, length);
    }

    @Override
    public void close() {
        zstd.close();
        thorough.close();
    }
}
