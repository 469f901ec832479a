package org.mendedleaf.core.deflate;

import java.util.Arrays;

/**
 * Writes blocks of symbols as zlib does: stored, with the fixed codes or with codes of their own, whichever is shortest by
 * its reckoning. Source: RFC 1951, section 3.2; J. Gailly and M. Adler, zlib, trees.c.
 */
final class BlockWriter {

    private static final int STORED = 0;
    private static final int FIXED = 1;
    private static final int DYNAMIC = 2;

    private static final int[] FIXED_LENGTHS = new int[288];
    private static final int[] FIXED_CODES = new int[288];
    private static final int[] NONE = {};
    private static final int[] FIVE = new int[Symbols.DISTANCES];
    private static final int[] FIVE_CODES = new int[Symbols.DISTANCES];

    static {
        Arrays.fill(FIXED_LENGTHS, 0, 144, 8);
        Arrays.fill(FIXED_LENGTHS, 144, 256, 9);
        Arrays.fill(FIXED_LENGTHS, 256, 280, 7);
        Arrays.fill(FIXED_LENGTHS, 280, 288, 8);
        for (int n = 0; n < 288; n++) {
            int value;
            if (n < 144) {
                value = 0x30 + n;
            } else if (n < 256) {
                value = 0x190 + n - 144;
            } else {
                value = n < 280 ? n - 256 : 0xc0 + n - 280;
            }
            FIXED_CODES[n] = Symbols.reversed(value, FIXED_LENGTHS[n]);
        }
        Arrays.fill(FIVE, 5);
        for (int n = 0; n < FIVE_CODES.length; n++) {
            FIVE_CODES[n] = Symbols.reversed(n, 5);
        }
    }

    private final HuffmanTree literals =
            new HuffmanTree(Symbols.LITERALS, Symbols.LENGTH_EXTRA, Symbols.END + 1, 15, FIXED_LENGTHS);
    private final HuffmanTree distances = new HuffmanTree(Symbols.DISTANCES, Symbols.DISTANCE_EXTRA, 0, 15, FIVE);
    private final HuffmanTree lengths = new HuffmanTree(Symbols.LENGTHS, Symbols.REPEAT_EXTRA, 0, 7, NONE);

    /** Each symbol of the block: a literal, or a length less 3 with its distance from bit 8 on. */
    private final int[] symbols = new int[1 << 15];

    private int count;
    private int matches;
    private BitSink out = new BitSink(new byte[0], 0, 0, false);

    void begin(BitSink sink) {
        out = sink;
        clear();
    }

    private void clear() {
        literals.clear();
        distances.clear();
        lengths.clear();
        literals.frequency[Symbols.END] = 1;
        count = 0;
        matches = 0;
    }

    int count() {
        return count;
    }

    void literal(int value) {
        symbols[count++] = value;
        literals.frequency[value]++;
    }

    /** A match: its length less 3, and its distance. */
    void match(int length, int distance) {
        symbols[count++] = distance << 8 | length;
        matches++;
        literals.frequency[Symbols.END + 1 + Symbols.lengthCode(length)]++;
        distances.frequency[Symbols.distanceCode(distance - 1)]++;
    }

    /**
     * Whether Info-ZIP would end the block here, since it compresses well so far.
     *
     * @param bytes that the block stands for
     */
    boolean isGoodEnough(int bytes) {
        if ((count & 0xfff) != 0) {
            return false;
        }
        long length = count * 8L;
        for (int code = 0; code < Symbols.DISTANCES; code++) {
            length += (long) distances.frequency[code] * (5 + Symbols.DISTANCE_EXTRA[code]);
        }
        return matches < count / 2 && length >>> 3 < bytes / 2;
    }

    /** Ends the block. The bytes are those it stands for. */
    void end(byte[] bytes, int from, int to, boolean isLast) {
        literals.build();
        distances.build();
        scan(literals);
        scan(distances);
        lengths.build();
        int written = Symbols.LENGTHS - 1;
        while (written >= 3 && lengths.length[Symbols.LENGTH_ORDER[written]] == 0) {
            written--;
        }
        long own = literals.bits + distances.bits + lengths.bits + 3L * (written + 1) + 14;
        long ownBytes = (own + 3 + 7) >>> 3;
        long fixedBytes = (literals.fixedBits + distances.fixedBits + 3 + 7) >>> 3;
        boolean isFixed = fixedBytes <= ownBytes;
        int last = isLast ? 1 : 0;
        if (to - from + 4 <= Math.min(fixedBytes, ownBytes)) {
            stored(bytes, from, to, last);
        } else if (isFixed) {
            out.put(FIXED << 1 | last, 3);
            write(FIXED_LENGTHS, FIXED_CODES, FIVE, FIVE_CODES);
        } else {
            out.put(DYNAMIC << 1 | last, 3);
            out.put(literals.last + 1 - 257, 5);
            out.put(distances.last, 5);
            out.put(written + 1 - 4, 4);
            for (int n = 0; n <= written; n++) {
                out.put(lengths.length[Symbols.LENGTH_ORDER[n]], 3);
            }
            send(literals);
            send(distances);
            write(literals.length, literals.code, distances.length, distances.code);
        }
        if (isLast) {
            out.align();
        }
        clear();
    }

    /** An empty stored block, which brings the output to a whole byte. */
    void align() {
        stored(new byte[0], 0, 0, 0);
    }

    private void stored(byte[] bytes, int from, int to, int last) {
        int n = to - from;
        out.put(STORED << 1 | last, 3);
        out.align();
        out.put(n & 0xffff, 16);
        out.put(~n & 0xffff, 16);
        for (int i = from; i < to; i++) {
            out.put(bytes[i] & 0xff, 8);
        }
    }

    private void write(int[] lengthOf, int[] codeOf, int[] distanceLength, int[] distanceCode) {
        for (int i = 0; i < count && !out.hasFailed(); i++) {
            int symbol = symbols[i];
            int distance = symbol >>> 8;
            int value = symbol & 0xff;
            if (distance == 0) {
                out.put(codeOf[value], lengthOf[value]);
                continue;
            }
            int code = Symbols.lengthCode(value);
            out.put(codeOf[code + Symbols.END + 1], lengthOf[code + Symbols.END + 1]);
            out.put(value - Symbols.LENGTH_BASE[code], Symbols.LENGTH_EXTRA[code]);
            code = Symbols.distanceCode(distance - 1);
            out.put(distanceCode[code], distanceLength[code]);
            out.put(distance - 1 - Symbols.DISTANCE_BASE[code], Symbols.DISTANCE_EXTRA[code]);
        }
        out.put(codeOf[Symbols.END], lengthOf[Symbols.END]);
    }

    /** Counts the symbols in which the lengths of a code will be written. */
    private void scan(HuffmanTree tree) {
        LengthRuns.of(tree, (length, run, times, repeat) -> {
            if (repeat < 0) {
                lengths.frequency[length] += times;
            } else {
                if (times > 0) {
                    lengths.frequency[length]++;
                }
                lengths.frequency[repeat]++;
            }
        });
    }

    private void send(HuffmanTree tree) {
        LengthRuns.of(tree, (length, run, times, repeat) -> {
            if (repeat < 0) {
                for (int i = 0; i < times; i++) {
                    out.put(lengths.code[length], lengths.length[length]);
                }
                return;
            }
            if (times > 0) {
                out.put(lengths.code[length], lengths.length[length]);
            }
            out.put(lengths.code[repeat], lengths.length[repeat]);
            int base = repeat == LengthRuns.ZEROS_MANY ? 11 : 3;
            out.put(run - times - base, Symbols.REPEAT_EXTRA[repeat]);
        });
    }
}
