package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.util.Arrays;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ContentParts;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/** Proves what was written: reads it back and compares it, part by part, with the digests taken at capture. */
final class Proof {

    private final MessageDigest sha = Digest.sha256();
    private final MessageDigest made = Digest.sha256();
    private final byte[] buffer = new byte[1 << 17];

    /** @throws IOException with a message for the user, when it is not the same to the last byte */
    void compare(InputStream in, Version version, ContentParts parts) throws IOException {
        long size = 0;
        for (ContentParts.Stretch stretch : parts.stretches()) {
            boolean isMade = stretch.digest() == null;
            size += read(in, stretch.length(), isMade ? made : sha);
            if (!isMade && !Arrays.equals(sha.digest(), stretch.digest())) {
                throw differs();
            }
        }
        byte[] digest = made.digest();
        boolean same = parts.made() == null || parts.made().equals(Digest.of(digest));
        if (!same || in.read() >= 0 || size != version.size()) {
            throw differs();
        }
    }

    private int read(InputStream in, int length, MessageDigest into) throws IOException {
        int left = length;
        while (left > 0) {
            int n = in.readNBytes(buffer, 0, Math.min(left, buffer.length));
            if (n == 0) {
                break;
            }
            into.update(buffer, 0, n);
            left -= n;
        }
        return length - left;
    }

    private IOException differs() {
        sha.reset();
        made.reset();
        return new IOException(Words.of("restore.differs"));
    }
}
