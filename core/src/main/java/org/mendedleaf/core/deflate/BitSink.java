package org.mendedleaf.core.deflate;

/**
 * Takes bits, the lowest first, into bytes of a known length; either writes them, or compares them with what is there and
 * fails at the first difference.
 */
final class BitSink {

    private final byte[] bytes;
    private final int end;
    private final boolean compares;
    private int at;
    private long held;
    private int heldBits;
    private boolean failed;

    BitSink(byte[] bytes, int from, int end, boolean compares) {
        this.bytes = bytes;
        this.at = from;
        this.end = end;
        this.compares = compares;
    }

    /** Puts up to 16 bits. */
    void put(int value, int bits) {
        held |= (long) value << heldBits;
        heldBits += bits;
        while (heldBits >= 8) {
            one((byte) held);
            held >>>= 8;
            heldBits -= 8;
        }
    }

    /** Fills the byte that is begun with zeros. */
    void align() {
        if (heldBits > 0) {
            one((byte) held);
        }
        held = 0;
        heldBits = 0;
    }

    private void one(byte value) {
        if (at >= end || (compares && bytes[at] != value)) {
            failed = true;
            return;
        }
        if (!compares) {
            bytes[at] = value;
        }
        at++;
    }

    /** Whether something was different, or did not fit. */
    boolean hasFailed() {
        return failed;
    }

    /** Whether nothing failed and nothing is missing. */
    boolean isComplete() {
        return !failed && at == end;
    }
}
