package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.List;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/** Proves what was written: reads it back and compares it, chunk by chunk, with the digests taken at capture. */
final class Proof {

    private final MessageDigest sha = Digest.sha256();
    private byte[] buffer = new byte[1 << 17];

    /** @throws IOException in words, when it is not the same to the last byte */
    void compare(InputStream in, Version version, List<ChunkPlace> places) throws IOException {
        long size = 0;
        for (ChunkPlace place : places) {
            if (buffer.length < place.length()) {
                buffer = new byte[place.length()];
            }
            int read = in.readNBytes(buffer, 0, place.length());
            sha.update(buffer, 0, read);
            size += read;
            if (read != place.length() || !Arrays.equals(sha.digest(), place.digest())) {
                throw new IOException(Words.of("restore.differs"));
            }
        }
        if (in.read() >= 0 || size != version.size()) {
            throw new IOException(Words.of("restore.differs"));
        }
    }
}
