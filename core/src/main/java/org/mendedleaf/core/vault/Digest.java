package org.mendedleaf.core.vault;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;

/** A SHA-256 digest (FIPS 180-4): 32 bytes that stand for a content. */
public final class Digest {

    /** Length of a digest in bytes. */
    public static final int LENGTH = 32;

    private final byte[] bytes;

    private Digest(byte[] bytes) {
        this.bytes = bytes;
    }

    /**
     * Wraps the bytes of a digest.
     *
     * @throws IllegalArgumentException when there are not exactly 32 of them
     */
    public static Digest of(byte[] bytes) {
        if (bytes.length != LENGTH) {
            throw new IllegalArgumentException("expected a digest of 32 bytes, got " + bytes.length);
        }
        return new Digest(bytes.clone());
    }

    /**
     * The digest that is written so.
     *
     * @param hex 64 hexadecimal digits
     * @throws IllegalArgumentException when it is not
     */
    public static Digest ofHex(String hex) {
        return of(java.util.HexFormat.of().parseHex(hex));
    }

    /** A fresh SHA-256 computation. */
    public static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java runtime has SHA-256", e);
        }
    }

    /** The digest of what a stream gives, up to its end. */
    public static Digest of(InputStream in) throws IOException {
        MessageDigest sha = sha256();
        byte[] buffer = new byte[1 << 16];
        for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
            sha.update(buffer, 0, n);
        }
        return of(sha.digest());
    }

    /** A copy of the 32 bytes. */
    public byte[] bytes() {
        return bytes.clone();
    }

    /** The digest as 64 lower-case hexadecimal digits. */
    public String hex() {
        return HexFormat.of().formatHex(bytes);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Digest d && Arrays.equals(bytes, d.bytes);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(bytes);
    }

    @Override
    public String toString() {
        return hex();
    }
}
