package org.mendedleaf.core.vault;

import com.github.luben.zstd.Zstd;
import com.github.luben.zstd.ZstdCompressCtx;

/** Compresses chunks, where that is worth it; one thread's compressor and its buffer. */
final class ChunkPacker implements AutoCloseable {

    /** For what comes in. */
    static final int LEVEL = 3;

    /** For what is inflated: small chunks that many versions will need. A tenth less space than level 3 gives. */
    static final int LEVEL_INFLATED = 9;

    /** Stored compressed only when that saves at least 3 of 100 bytes. */
    private static final double WORTH = 0.97;

    private final ZstdCompressCtx zstd;
    private final byte[] buffer = new byte[(int) Zstd.compressBound(Chunker.CONTENT.max())];

    ChunkPacker(int level) {
        zstd = new ZstdCompressCtx().setLevel(level);
    }

    /**
     * What is stored of a chunk, good until the next one is packed.
     *
     * @param encoding {@link PackFormat#ZSTD} or {@link PackFormat#RAW}
     */
    record Packed(byte encoding, byte[] bytes, int from, int storedBytes) {}

    Packed pack(byte[] bytes, int from, int length) {
        int n = zstd.compressByteArray(buffer, 0, buffer.length, bytes, from, length);
        return n < length * WORTH
                ? new Packed(PackFormat.ZSTD, buffer, 0, n)
                : new Packed(PackFormat.RAW, bytes, from, length);
    }

    @Override
    public void close() {
        zstd.close();
    }
}
