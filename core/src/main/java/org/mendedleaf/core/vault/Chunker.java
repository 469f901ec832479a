package org.mendedleaf.core.vault;

/**
 * Cuts a content into chunks at places that the content itself decides, so that an insertion moves the cuts around it
 * and no others.
 *
 * <p>A gear hash runs over the bytes and a cut falls where its masked bits are zero. Masks are harder before the normal
 * size and easier after it (normalised chunking), which keeps sizes close to the average. Source: W. Xia et al.,
 * "FastCDC: a Fast and Efficient Content-Defined Chunking Approach for Data Deduplication", USENIX ATC 2016.
 *
 * @param min no chunk is smaller, but for the last one and those before a seam; bytes
 * @param normal where the easier mask begins; bytes
 * @param max no chunk is larger; bytes
 * @param hardBits of the mask up to the normal size
 * @param easyBits of the mask beyond it
 */
record Chunker(int min, int normal, int max, int hardBits, int easyBits) {

    /** For contents as they are: 8 to 128 KiB, about 32 KiB on average. */
    static final Chunker CONTENT = new Chunker(8 * 1024, 28 * 1024, 128 * 1024, 17, 13);

    /** For the frame of an unfolded content: 1 to 32 KiB, about 8 KiB on average. */
    static final Chunker FRAME = average(13);

    /**
     * Bytes that each chunk of a member costs beyond its content, over the chunks that ten edits store anew: about 440 over
     * 20, since an edit falls into a large chunk more often than into a small one. Measured, see docs/performance-history.md.
     */
    private static final double COST = 22;

    private static final int SMALLEST = 12;
    private static final int LARGEST = 15;

    /** Chunks of about 2^bits bytes, at most four times as many. */
    private static Chunker average(int bits) {
        int size = 1 << bits;
        return new Chunker(size / 8, size * 7 / 8, size * 4, bits + 2, bits - 2);
    }

    /**
     * For a member that was inflated to be stored. Small chunks make edits cheap and the first copy dear: with n stored
     * bytes and chunks of c the two are n / c times what a chunk costs, and 20 times c for ten edits, least for c = sqrt(22
     * n). What is repetitive is cut into larger chunks, so that each takes so much when it is stored. Sizes go by powers of
     * two, so that a document that grows is seldom cut anew.
     *
     * @param length inflated, bytes
     * @param deflated bytes
     */
    static Chunker inflated(long length, long deflated) {
        double size = Math.sqrt(COST * deflated) * length / Math.max(1, deflated);
        int bits = (int) Math.round(Math.log(Math.max(1, size)) / Math.log(2));
        return average(Math.max(SMALLEST, Math.min(bits, LARGEST)));
    }

    private static final long[] GEAR = gear();

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
     * @param to end of what is known of the content; unless that is its real end, at least {@link #max} bytes beyond
     *     {@code from}
     * @return the end of the chunk, exclusive, at most {@code to}
     */
    int cut(byte[] bytes, int from, int to) {
        int length = to - from;
        if (length <= min) {
            return to;
        }
        int end = from + Math.min(length, max);
        int turn = from + Math.min(length, this.normal);
        long hash = 0;
        int i = from + min;
        // The hash is shifted left, so the high bits have seen the most bytes.
        long hard = -1L << (64 - hardBits);
        long easy = -1L << (64 - easyBits);
        long[] table = GEAR;
        while (i < turn) {
            hash = (hash << 1) + table[bytes[i] & 0xff];
            i++;
            if ((hash & hard) == 0) {
                return i;
            }
        }
        while (i < end) {
            hash = (hash << 1) + table[bytes[i] & 0xff];
            i++;
            if ((hash & easy) == 0) {
                return i;
            }
        }
        return end;
    }
}
