package org.mendedleaf.core.deflate;

import java.util.Optional;

/**
 * The symbols of the first block of deflated bytes, decoded (RFC 1951). What an encoder chose to refer to, and where it
 * ended its block, tells encoders and levels apart long before their bytes differ.
 *
 * @param symbols each a literal, or a length less 3 with its distance from bit 8 on; the first {@code count} count
 * @param count number of symbols; of a last block, perhaps only the first ones
 * @param isLast whether there is no other block
 */
record FirstBlock(int[] symbols, int count, boolean isLast) {

    private static final int MOST = 1 << 16;

    /** Where the end of the block tells nothing, since it is the end of all, so many symbols are enough. */
    private static final int ENOUGH = 1024;

    /** Decodes; empty when the block is stored without symbols, is longer than any encoder here makes it, or is no Deflate. */
    static Optional<FirstBlock> of(byte[] bytes, int from, int to) {
        Decoder in = new Decoder(bytes, from, to);
        try {
            return in.block();
        } catch (ArrayIndexOutOfBoundsException e) {
            return Optional.empty();
        }
    }

    private static final class Decoder {
        private final byte[] bytes;
        private final int to;
        private int at;
        private long held;
        private int heldBits;

        Decoder(byte[] bytes, int from, int to) {
            this.bytes = bytes;
            this.at = from;
            this.to = to;
        }

        private int bits(int n) {
            while (heldBits < n) {
                if (at >= to) {
                    throw new ArrayIndexOutOfBoundsException(at);
                }
                held |= (bytes[at++] & 0xffL) << heldBits;
                heldBits += 8;
            }
            int value = (int) (held & ((1L << n) - 1));
            held >>>= n;
            heldBits -= n;
            return value;
        }

        Optional<FirstBlock> block() {
            boolean isLast = bits(1) == 1;
            int kind = bits(2);
            Code literals;
            Code distances;
            if (kind == 1) {
                int[] lengths = new int[288];
                java.util.Arrays.fill(lengths, 0, 144, 8);
                java.util.Arrays.fill(lengths, 144, 256, 9);
                java.util.Arrays.fill(lengths, 256, 280, 7);
                java.util.Arrays.fill(lengths, 280, 288, 8);
                literals = new Code(lengths, 0, 288);
                int[] fives = new int[30];
                java.util.Arrays.fill(fives, 5);
                distances = new Code(fives, 0, 30);
            } else if (kind == 2) {
                int literalCount = bits(5) + 257;
                int distanceCount = bits(5) + 1;
                int[] lengths = lengths(literalCount + distanceCount);
                literals = new Code(lengths, 0, literalCount);
                distances = new Code(lengths, literalCount, distanceCount);
            } else {
                return Optional.empty();
            }
            int[] symbols = new int[isLast ? ENOUGH + 1 : MOST];
            int n = 0;
            while (true) {
                int symbol = next(literals);
                if (symbol == Symbols.END || (isLast && n == ENOUGH)) {
                    return Optional.of(new FirstBlock(symbols, n, isLast));
                }
                if (symbol < Symbols.END) {
                    symbols[n++] = symbol;
                } else {
                    int code = symbol - Symbols.END - 1;
                    int length = Symbols.LENGTH_BASE[code] + bits(Symbols.LENGTH_EXTRA[code]);
                    code = next(distances);
                    int distance = Symbols.DISTANCE_BASE[code] + 1 + bits(Symbols.DISTANCE_EXTRA[code]);
                    symbols[n++] = distance << 8 | length;
                }
            }
        }

        private int[] lengths(int count) {
            int[] own = new int[Symbols.LENGTHS];
            int written = bits(4) + 4;
            for (int i = 0; i < written; i++) {
                own[Symbols.LENGTH_ORDER[i]] = bits(3);
            }
            Code code = new Code(own, 0, own.length);
            int[] lengths = new int[count];
            int n = 0;
            while (n < count) {
                int symbol = next(code);
                if (symbol < 16) {
                    lengths[n++] = symbol;
                    continue;
                }
                int value = symbol == 16 ? lengths[n - 1] : 0;
                int times = (symbol == 18 ? 11 : 3) + bits(Symbols.REPEAT_EXTRA[symbol]);
                for (int i = 0; i < times; i++) {
                    lengths[n++] = value;
                }
            }
            return lengths;
        }

        /** The next symbol: bit by bit, since codes of one length are numbers in a row. */
        private int next(Code code) {
            int value = 0;
            int first = 0;
            int index = 0;
            for (int length = 1; length <= 15; length++) {
                value |= bits(1);
                int count = code.count[length];
                if (value - count < first) {
                    return code.symbols[index + value - first];
                }
                index += count;
                first = (first + count) << 1;
                value <<= 1;
            }
            throw new ArrayIndexOutOfBoundsException("no such code");
        }
    }

    private static final class Code {
        private final int[] count = new int[16];
        private final int[] symbols;

        Code(int[] lengths, int from, int n) {
            symbols = new int[n];
            int[] offset = new int[16];
            for (int i = 0; i < n; i++) {
                count[lengths[from + i]]++;
            }
            for (int length = 1; length < 15; length++) {
                offset[length + 1] = offset[length] + count[length];
            }
            for (int i = 0; i < n; i++) {
                int length = lengths[from + i];
                if (length != 0) {
                    symbols[offset[length]++] = i;
                }
            }
            count[0] = 0;
        }
    }
}
