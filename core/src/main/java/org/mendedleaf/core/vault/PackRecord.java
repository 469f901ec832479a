package org.mendedleaf.core.vault;

import java.nio.ByteBuffer;
import java.util.Optional;

/**
 * The head of one record in a pack.
 *
 * @param offset of the record in the pack
 * @param type {@link PackFormat#CHUNK}, {@link PackFormat#COMMIT} or {@link PackFormat#INDEX}
 * @param encoding {@link PackFormat#RAW} or {@link PackFormat#ZSTD}
 * @param storedBytes number of stored bytes
 * @param length number of decoded bytes
 * @param id of the chunk or commit
 * @param digest SHA-256 of the decoded bytes
 */
record PackRecord(long offset, byte type, byte encoding, int storedBytes, int length, long id, byte[] digest) {

    /** No record of ours is larger; a damaged length must not ask for all memory. */
    private static final int MOST = 1 << 30;

    /** Reads a head; empty when no head of ours says what stands there. */
    static Optional<PackRecord> of(ByteBuffer in, int at, long offset, short magic) {
        byte type = in.get(at);
        byte encoding = in.get(at + 1);
        int stored = in.getInt(at + 4);
        int length = in.getInt(at + 8);
        boolean sane = type >= PackFormat.CHUNK
                && type <= PackFormat.INDEX
                && encoding >= PackFormat.RAW
                && encoding <= PackFormat.ZSTD
                && in.getShort(at + 2) == magic
                && stored >= 0
                && stored <= MOST
                && length >= 0
                && length <= MOST;
        if (!sane) {
            return Optional.empty();
        }
        byte[] digest = new byte[Digest.LENGTH];
        in.get(at + 20, digest);
        return Optional.of(new PackRecord(offset, type, encoding, stored, length, in.getLong(at + 12), digest));
    }

    /** Where the next record begins. */
    long end() {
        return offset + PackFormat.recordLength(storedBytes);
    }

    ChunkPlace place(long pack) {
        return new ChunkPlace(id, pack, offset, storedBytes, length, digest);
    }
}
