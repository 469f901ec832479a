package org.mendedleaf.core.vault;

/**
 * Cuts a content into chunks at places that the content itself decides, so that an insertion moves the cuts around it
 * and no others.
 *
 * <p>A gear hash runs over the bytes and a cut falls where its masked bits are zero. Masks are harder before the normal
 * size and easier after it (normalised chunking), which keeps sizes close to the average. Source: W. Xia et al.,
 * "FastCDC: a Fast and Efficient Content-Defined Chunking Approach for Data Deduplication", USENIX ATC 2016.
 */
final class Chunker {

    /** No chunk is smaller, but for the last one and those before a seam. Bytes. */
    static final int MIN = 8 * 1024;

    /** Where the easier mask begins. Bytes. */
    static final int NORMAL = 28 * 1024;

    /** No chunk is larger. Bytes. */
    static final int MAX = 128 * 1024;

    /** 17 and 13 bits around 2^15; the hash is shifted left, so the high bits have seen the most bytes. */
    private static final long HARD = -1L << (64 - 17);

    private static final long EASY = -1L << (64 - 13);

    private static final long[] GEAR = gear();

    private Chunker() {}

    /** 256 random numbers, the same for ever: SplitMix64 (Steele, Lea and Flood, OOPSLA 2014) from a fixed seed. */
    private static long[] gear() {
        long[] table = new long[256];
        long state = 0x4D656E6465644C66L;
        for (int i = 0; i < table.length; i++) {
            state += 0x9E3779B97F4A7C15L;
            long z = state;
            z = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
            z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
            table[i] = z ^ (z >>> 31);
        }
        return table;
    }

    /**
     * Where the chunk that starts at {@code from} ends.
     *
     * @param bytes the content
     * @param from start of the chunk
     * @param to end of what is known of the content; unless that is its real end, at least {@link #MAX} bytes beyond
     *     {@code from}
     * @return the end of the chunk, exclusive, at most {@code to}
     */
    static int cut(byte[] bytes, int from, int to) {
        int length = to - from;
        if (length <= MIN) {
            return to;
        }
        int end = from + Math.min(length, MAX);
        int normal = from + Math.min(length, NORMAL);
        long hash = 0;
        int i = from + MIN;
        long[] table = GEAR;
        while (i < normal) {
            hash = (hash << 1) + table[bytes[i] & 0xff];
            i++;
            if ((hash & HARD) == 0) {
                return i;
            }
        }
        while (i < end) {
            hash = (hash << 1) + table[bytes[i] & 0xff];
            i++;
            if ((hash & EASY) == 0) {
                return i;
            }
        }
        return end;
    }
}
