package org.mendedleaf.core.deflate;

/** The alphabets of Deflate: RFC 1951, section 3.2.5 to 3.2.7. */
final class Symbols {

    static final int MIN_MATCH = 3;
    static final int MAX_MATCH = 258;
    static final int WINDOW = 32 * 1024;

    static final int END = 256;
    static final int LITERALS = 286;
    static final int DISTANCES = 30;
    static final int LENGTHS = 19;

    static final int[] LENGTH_EXTRA = {
        0, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 2, 2, 2, 2, 3, 3, 3, 3, 4, 4, 4, 4, 5, 5, 5, 5, 0
    };
    static final int[] DISTANCE_EXTRA = {
        0, 0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 5, 5, 6, 6, 7, 7, 8, 8, 9, 9, 10, 10, 11, 11, 12, 12, 13, 13
    };

    /** Extra bits of the code that code lengths are written in; the last three repeat. */
    static final int[] REPEAT_EXTRA = {0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 2, 3, 7};

    /** The order in which lengths of that code are written. */
    static final int[] LENGTH_ORDER = {16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15};

    /** Shortest length less 3, by length code; 258 has a code of its own. */
    static final int[] LENGTH_BASE = new int[29];

    /** Shortest distance less 1, by distance code. */
    static final int[] DISTANCE_BASE = new int[DISTANCES];

    private static final byte[] LENGTH_CODE = new byte[256];
    private static final byte[] NEAR = new byte[256];
    private static final byte[] FAR = new byte[256];

    static {
        int length = 0;
        for (int code = 0; code < 28; code++) {
            LENGTH_BASE[code] = length;
            for (int n = 0; n < 1 << LENGTH_EXTRA[code]; n++) {
                LENGTH_CODE[length++] = (byte) code;
            }
        }
        LENGTH_CODE[255] = 28;
        LENGTH_BASE[28] = 255;
        int distance = 0;
        for (int code = 0; code < DISTANCES; code++) {
            DISTANCE_BASE[code] = distance;
            for (int n = 0; n < 1 << DISTANCE_EXTRA[code]; n++) {
                if (distance < 256) {
                    NEAR[distance] = (byte) code;
                }
                FAR[distance >> 7] = (byte) code;
                distance++;
            }
        }
    }

    private Symbols() {}

    /** Code of a length, given less 3. */
    static int lengthCode(int length) {
        return LENGTH_CODE[length];
    }

    /** Code of a distance, given less 1. */
    static int distanceCode(int distance) {
        return distance < 256 ? NEAR[distance] : FAR[distance >> 7];
    }

    /** The lowest bits of a code in reverse order, as codes are written. */
    static int reversed(int code, int bits) {
        return Integer.reverse(code) >>> (32 - bits);
    }
}
