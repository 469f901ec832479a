package org.mendedleaf.core.vault;

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

    /** Where the next record begins. */
    long end() {
        return offset + PackFormat.recordLength(storedBytes);
    }

    ChunkPlace place(long pack) {
        return new ChunkPlace(id, pack, offset, storedBytes, length, digest);
    }
}
