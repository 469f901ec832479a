package org.mendedleaf.core.vault;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.UUID;
import java.util.zip.CRC32C;
import org.mendedleaf.core.words.Words;

/**
 * A pack file, byte by byte. All numbers are little-endian; CRC is CRC-32C (RFC 3720, Castagnoli).
 *
 * <pre>
 * Pack     = Header, Record*, [ IndexRecord, Trailer ]     the last two once the pack is sealed
 *
 * Header   (64 bytes)
 *   0  8  magic      "MLFPACK" and a line feed
 *   8  4  version    2 (1: without what is marked *)
 *  12  4  length     64
 *  16 16  vault id   high and low half of a UUID, each 8 bytes
 *  32  8  number     of the pack, from 1
 *  40 20  zero
 *  60  4  CRC        of bytes 0 to 59
 *
 * Record   (56 bytes and the stored bytes)
 *   0  1  type       1 chunk, 2 commit, 3 index
 *   1  1  encoding   0 as it is, 1 Zstandard frame (RFC 8878)
 *   2  2  magic      "MR" *; in version 1 zero
 *   4  4  stored     number of stored bytes, s
 *   8  4  length     number of bytes when decoded
 *  12  8  id         of the chunk; of the commit; of an index: number of its entries
 *  20 32  digest     SHA-256 of the decoded bytes
 *  52  s  stored bytes
 *  52+s 4 CRC        of the vault id, the number of the pack and the offset of the record (32 bytes as in the header) *, and
 *                    of bytes 0 to 51+s
 *
 * Index    (decoded bytes of the index record), for each chunk of the pack, 56 bytes:
 *   0  8  id of the chunk
 *   8  8  offset of its record in the pack
 *  16  4  stored
 *  20  4  length
 *  24 32  digest
 *
 * Trailer  (32 bytes)
 *   0  8  offset of the index record
 *   8  8  number of records before it
 *  16  4  zero
 *  20  4  CRC of bytes 0 to 19
 *  24  8  magic     "MLFPEND" and a line feed
 * </pre>
 *
 * <p>The decoded bytes of a commit record are described in {@code ChangeLog} of the catalogue; to the vault they
 * are opaque.
 */
public final class PackFormat {

    /** The version that this program writes, and the newest that it reads. */
    public static final int VERSION = 2;

    static final int HEADER = 64;
    static final int RECORD_HEAD = 52;
    static final int RECORD_TAIL = 4;
    static final int TRAILER = 32;
    static final int INDEX_ENTRY = 56;

    static final byte CHUNK = 1;
    static final byte COMMIT = 2;
    static final byte INDEX = 3;

    static final byte RAW = 0;
    static final byte ZSTD = 1;

    /** "MR", little-endian. */
    static final short RECORD_MAGIC = 0x524d;

    private static final long MAGIC = magic("MLFPACK\n");
    private static final long END_MAGIC = magic("MLFPEND\n");

    private PackFormat() {}

    private static long magic(String text) {
        return ByteBuffer.wrap(text.getBytes(java.nio.charset.StandardCharsets.US_ASCII))
                .order(ByteOrder.LITTLE_ENDIAN)
                .getLong();
    }

    /** Bytes that a record takes in the pack when it stores this many. */
    public static long recordLength(int storedBytes) {
        return (long) RECORD_HEAD + storedBytes + RECORD_TAIL;
    }

    static ByteBuffer header(UUID vault, long number) {
        ByteBuffer head = ByteBuffer.allocate(HEADER).order(ByteOrder.LITTLE_ENDIAN);
        head.putLong(MAGIC).putInt(VERSION).putInt(HEADER);
        head.putLong(vault.getMostSignificantBits())
                .putLong(vault.getLeastSignificantBits())
                .putLong(number);
        head.putInt(HEADER - 4, crc(head.array(), 0, HEADER - 4));
        return head.clear();
    }

    /**
     * What the header of a pack says.
     *
     * @param version of the format
     * @param vault that the pack belongs to
     * @param number of the pack
     */
    record Header(int version, UUID vault, long number) {}

    /**
     * Reads a header; says "not a pack", "too new" or "damaged", each in its own words.
     *
     * @param head up to {@link #HEADER} bytes
     */
    static Header readHeader(ByteBuffer head, Path pack) throws VaultException {
        if (head.remaining() < HEADER || head.getLong(0) != MAGIC) {
            throw new VaultException.Damaged(Words.of("vault.pack.noPack", pack.getFileName()));
        }
        int version = head.getInt(8);
        if (crc(head.array(), head.arrayOffset(), HEADER - 4) != head.getInt(HEADER - 4) || version < 1) {
            throw new VaultException.Damaged(Words.of("vault.pack.header", pack.getFileName()));
        }
        if (version > VERSION) {
            throw new VaultException.TooNew(pack, version, VERSION);
        }
        return new Header(version, new UUID(head.getLong(16), head.getLong(24)), head.getLong(32));
    }

    /** As {@link #readHeader}; says also that the pack is not the one with this number of this vault. */
    static Header checkHeader(ByteBuffer head, Path pack, UUID vault, long number) throws VaultException {
        Header header = readHeader(head, pack);
        if (!header.vault().equals(vault) || header.number() != number) {
            throw new VaultException.Damaged(Words.of("vault.pack.foreign", pack.getFileName()));
        }
        return header;
    }

    static void putRecordHead(
            ByteBuffer out, short magic, byte type, byte encoding, int stored, int length, long id, byte[] digest) {
        out.put(type).put(encoding).putShort(magic).putInt(stored).putInt(length);
        out.putLong(id).put(digest);
    }

    static ByteBuffer trailer(long indexOffset, long records) {
        ByteBuffer tail = ByteBuffer.allocate(TRAILER).order(ByteOrder.LITTLE_ENDIAN);
        tail.putLong(indexOffset).putLong(records).putInt(0);
        tail.putInt(crc(tail.array(), 0, 20)).putLong(END_MAGIC);
        return tail.flip();
    }

    /** Whether these bytes are a sound trailer. */
    static boolean isTrailer(ByteBuffer tail) {
        return tail.remaining() == TRAILER
                && tail.getLong(24) == END_MAGIC
                && crc(tail.array(), tail.arrayOffset() + tail.position(), 20) == tail.getInt(20)
                && tail.getInt(16) == 0;
    }

    /** The entries of an index. */
    static PackChunks readIndex(byte[] bytes, long pack) {
        ByteBuffer entries = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        PackChunks.Builder found = new PackChunks.Builder(pack);
        byte[] digest = new byte[Digest.LENGTH];
        while (entries.remaining() >= INDEX_ENTRY) {
            long id = entries.getLong();
            long offset = entries.getLong();
            int stored = entries.getInt();
            int length = entries.getInt();
            entries.get(digest);
            found.add(id, offset, stored, length, digest);
        }
        return found.build();
    }

    static int crc(byte[] bytes, int from, int length) {
        CRC32C crc = new CRC32C();
        crc.update(bytes, from, length);
        return (int) crc.getValue();
    }
}
