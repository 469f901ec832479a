package org.mendedleaf.core.vault;

import java.nio.ByteBuffer;

/** Variable-length numbers: LEB128, seven bits a byte, low bits first; signed ones zigzag-coded before. */
public final class Varint {

    private Varint() {}

    /** Writes an unsigned number of up to 64 bits: 1 to 10 bytes. */
    public static void put(ByteBuffer out, long value) {
        long rest = value;
        while ((rest & ~0x7fL) != 0) {
            out.put((byte) (rest | 0x80));
            rest >>>= 7;
        }
        out.put((byte) rest);
    }

    /** Writes a signed number, small magnitudes in few bytes. */
    public static void putSigned(ByteBuffer out, long value) {
        put(out, (value << 1) ^ (value >> 63));
    }

    /**
     * Reads an unsigned number.
     *
     * @throws java.nio.BufferUnderflowException when the bytes end within it
     * @throws ArithmeticException when it is longer than ten bytes
     */
    public static long get(ByteBuffer in) {
        long value = 0;
        for (int shift = 0; shift < 70; shift += 7) {
            byte b = in.get();
            value |= (b & 0x7fL) << shift;
            if (b >= 0) {
                return value;
            }
        }
        throw new ArithmeticException("a number of more than ten bytes");
    }

    /** Reads a signed number; errors as {@link #get}. */
    public static long getSigned(ByteBuffer in) {
        long coded = get(in);
        return (coded >>> 1) ^ -(coded & 1);
    }
}
