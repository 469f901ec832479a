package org.mendedleaf.core.deflate;

import java.util.Optional;

/**
 * What decides the bytes that an encoder makes of a content.
 *
 * @param level from 1, fast, to 9, thorough
 * @param encoder whose habits it follows
 */
public record DeflateSettings(int level, Encoder encoder) {

    /** Encoders that differ in where their blocks end and in their hash. The order stands in vaults: add at the end. */
    public enum Encoder {
        /** zlib as nearly everybody uses it: memory level 8, blocks of 16,383 symbols. */
        ZLIB(15, 5, 1 << 14, 0),
        /** zlib with memory level 9, as some programs that write pictures and archives set it: 32,767 symbols. */
        ZLIB_LARGE(16, 6, 1 << 15, 0),
        /** Info-ZIP: 32,767 symbols, and a block also ends early where the text seems to compress well so far. */
        INFO_ZIP(15, 5, 1 << 15, 0),
        /** zlib in pieces of 128 KiB, each with the 32 KiB before it as its dictionary and an empty block after it. */
        ZLIB_PIECES(15, 5, 1 << 14, 128 << 10);

        final int hashBits;
        final int hashShift;
        final int symbols;
        final int piece;

        Encoder(int hashBits, int hashShift, int symbols, int piece) {
            this.hashBits = hashBits;
            this.hashShift = hashShift;
            this.symbols = symbols;
            this.piece = piece;
        }
    }

    /** Checks the level. */
    public DeflateSettings {
        if (level < 1 || level > 9) {
            throw new IllegalArgumentException("level " + level);
        }
    }

    /** The number by which these settings stand in a recipe. */
    public int code() {
        return encoder.ordinal() << 4 | level;
    }

    /** The settings with this number; empty when there are none. */
    public static Optional<DeflateSettings> of(long code) {
        int level = (int) (code & 15);
        long encoder = code >>> 4;
        if (level < 1 || level > 9 || encoder >= Encoder.values().length) {
            return Optional.empty();
        }
        return Optional.of(new DeflateSettings(level, Encoder.values()[(int) encoder]));
    }
}
