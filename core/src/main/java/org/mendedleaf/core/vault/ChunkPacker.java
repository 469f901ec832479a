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

    /** So many stretches of a chunk are looked at, of so many bytes each. */
    private static final int LOOKS = 8;

    private static final int LOOK = 512;

    /**
     * The sum of squares of how often each byte comes up is n * n / 256 + n for random bytes. What is up to 8 of 100 above that can
     * hardly be compressed by 3 of 100; text, tables and mark-up are at many times as much.
     */
    private static final long RANDOM = (long) LOOKS * LOOK * LOOKS * LOOK / 256 * 108 / 100 + LOOKS * LOOK;

    /** The same of one stretch, which says less. */
    private static final long RANDOM_ONE = (long) LOOK * LOOK / 256 * 18 / 10 + LOOK;

    private final int[] counts = new int[256];
    private final int[] all = new int[256];
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
        if (looksRandom(bytes, from, length)) {
            return new Packed(PackFormat.RAW, bytes, from, length);
        }
        int n = zstd.compressByteArray(buffer, 0, buffer.length, bytes, from, length);
        return n < length * WORTH
                ? new Packed(PackFormat.ZSTD, buffer, 0, n)
                : new Packed(PackFormat.RAW, bytes, from, length);
    }

    /** Whether there is no use in trying, as with pictures and all that is compressed already. */
    private boolean looksRandom(byte[] bytes, int from, int length) {
        if (length < 2 * LOOKS * LOOK) {
            return false;
        }
        java.util.Arrays.fill(all, 0);
        int step = length / LOOKS;
        for (int i = 0; i < LOOKS; i++) {
            java.util.Arrays.fill(counts, 0);
            int begin = from + i * step;
            for (int k = begin; k < begin + LOOK; k++) {
                counts[bytes[k] & 0xff]++;
            }
            long squares = 0;
            for (int b = 0; b < 256; b++) {
                squares += (long) counts[b] * counts[b];
                all[b] += counts[b];
            }
            if (squares > RANDOM_ONE) {
                return false;
            }
        }
        long squares = 0;
        for (int b = 0; b < 256; b++) {
            squares += (long) all[b] * all[b];
        }
        return squares <= RANDOM;
    }

    @Override
    public void close() {
        zstd.close();
    }
}
