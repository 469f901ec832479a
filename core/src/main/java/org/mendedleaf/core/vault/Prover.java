package org.mendedleaf.core.vault;

import com.github.luben.zstd.ZstdDecompressCtx;
import com.github.luben.zstd.ZstdException;
import java.security.MessageDigest;
import java.util.Arrays;

/**
 * Proves records one after another, as {@link PackReader.Checked#isProved} does one, with what that needs made once: a
 * decompressor, a digest, and a buffer, since nobody wants the content. For one thread at a time.
 */
final class Prover implements AutoCloseable {

    /** What is longer gets a buffer of its own; bytes. */
    private static final int MOST_KEPT = 8 << 20;

    private final ZstdDecompressCtx decompressor = new ZstdDecompressCtx();
    private final MessageDigest sha256 = Digest.sha256();
    private byte[] buffer = new byte[0];

    /** Whether the content can be decoded and is what its digest says. */
    boolean isProved(PackReader.Checked record) {
        PackRecord head = record.head();
        sha256.reset();
        if (head.encoding() == PackFormat.RAW) {
            if (head.storedBytes() != head.length()) {
                return false;
            }
            sha256.update(record.bytes(), PackFormat.RECORD_HEAD, head.length());
        } else {
            byte[] content = buffer(head.length());
            try {
                int n = decompressor.decompressByteArray(
                        content, 0, head.length(), record.bytes(), PackFormat.RECORD_HEAD, head.storedBytes());
                if (n != head.length()) {
                    return false;
                }
            } catch (ZstdException e) {
                return false;
            }
            sha256.update(content, 0, head.length());
        }
        return Arrays.equals(sha256.digest(), head.digest());
    }

    private byte[] buffer(int length) {
        if (length > MOST_KEPT) {
            return new byte[length];
        }
        if (buffer.length < length) {
            buffer = new byte[Math.min(MOST_KEPT, Math.max(length, 2 * buffer.length))];
        }
        return buffer;
    }

    @Override
    public void close() {
        decompressor.close();
    }
}
