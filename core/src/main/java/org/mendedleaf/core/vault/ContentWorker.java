package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.ReadableByteChannel;
import java.security.MessageDigest;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;

/**
 * One thread's way of putting contents into the vault: its buffers, its digest, its compressor.
 *
 * <p>A content is cut, its chunks are stored as they are, and the digest of each goes into the digest of the content. What can
 * be unfolded is noted, and unfolded later, see {@link Unfolder}: who saves a document does not wait for that.
 */
public final class ContentWorker implements AutoCloseable {

    private final ChunkWriter chunks;
    private final ContentCutter cutter = new ContentCutter();
    private final MessageDigest sha = Digest.sha256();
    private final ContentDigest contentDigest = new ContentDigest();
    private final ChunkPacker packer = new ChunkPacker(ChunkPacker.LEVEL);

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
        return new StoredContent(pass.recipe.build(), total, digest, plain, pass.isArchive);
    }

    /** What becomes of the chunks of one content. */
    private final class Pass implements ContentCutter.Taker {
        private final Recipe.Builder recipe = new Recipe.Builder();
        private byte @Nullable [] first;
        private int count;
        private boolean isArchive;

        @Override
        public void zip(ZipDirectory directory, ByteSource content) {
            isArchive = true;
        }

        @Override
        public void chunk(byte[] bytes, int from, int length) throws IOException {
            sha.update(bytes, from, length);
            byte[] digest = sha.digest();
            contentDigest.add(digest, length);
            first = count++ == 0 ? digest : first;
            recipe.add(put(digest, bytes, from, length));
        }
    }

    private long put(byte[] digest, byte[] bytes, int from, int length) throws IOException {
        long id = chunks.find(digest);
        if (id >= 0) {
            return id;
        }
        ChunkPacker.Packed packed = packer.pack(bytes, from, length);
        return chunks.add(digest, packed.encoding(), packed.bytes(), packed.from(), packed.storedBytes(), length);
    }

    @Override
    public void close() {
        packer.close();
    }
}
