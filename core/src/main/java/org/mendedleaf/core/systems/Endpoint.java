package org.mendedleaf.core.systems;

import java.util.HexFormat;
import java.util.Locale;
import java.util.stream.Collectors;
import org.mendedleaf.core.words.Words;

/**
 * Where a system is reached, and how both know each other.
 *
 * @param address its URL
 * @param token by which it knows us; empty for none
 * @param certificate by which we know it: the SHA-256 fingerprint of the one that was chosen, as {@link #fingerprint} writes it;
 *     empty where those count whom this computer trusts
 */
public record Endpoint(String address, String token, String certificate) {

    private static final int BYTES = 32;

    /** One whose certificate is signed by those whom this computer trusts. */
    public Endpoint(String address, String token) {
        this(address, token, "");
    }

    /** The same with a certificate that was chosen. */
    public Endpoint trusting(String fingerprint) {
        return new Endpoint(address, token, fingerprint);
    }

    /** The same with another token. */
    public Endpoint with(String other) {
        return new Endpoint(address, other, certificate);
    }

    /** A fingerprint as people compare it: pairs of hexadecimal digits between colons. */
    public static String fingerprint(byte[] sha256) {
        return HexFormat.ofDelimiter(":").withUpperCase().formatHex(sha256);
    }

    /**
     * A fingerprint that somebody typed, with or without colons, spaces and the name of the digest before it.
     *
     * @throws IllegalArgumentException with a message for the user when it is none
     */
    public static String parseFingerprint(String typed) {
        String digits = typed.toLowerCase(Locale.ROOT)
                .replaceFirst("^\\s*sha-?256[:=\\s]", "")
                .chars()
                .filter(c -> c != ':' && !Character.isWhitespace(c))
                .mapToObj(Character::toString)
                .collect(Collectors.joining());
        try {
            byte[] bytes = HexFormat.of().parseHex(digits);
            if (bytes.length == BYTES) {
                return fingerprint(bytes);
            }
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(Words.of("connect.badFingerprint", typed), e);
        }
        throw new IllegalArgumentException(Words.of("connect.badFingerprint", typed));
    }

    /** Without the token, which has no business in logs. */
    @Override
    public String toString() {
        return address;
    }
}
