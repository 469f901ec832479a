package org.mendedleaf.core.vault;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.UUID;
import java.util.zip.CRC32C;

/**
 * How the CRC of the records of one pack is computed. Since version 2 of the format it begins with the vault, the number
 * of the pack and the offset of the record, so that bytes that look like a record and are not this one never count as it:
 * a pack that somebody keeps as a file, for one, or a pack under another's name. Not safe for several threads.
 */
final class RecordCrc {

    private static final int BEFORE = 32;

    private final int version;
    private final CRC32C crc = new CRC32C();
    private final ByteBuffer before = ByteBuffer.allocate(BEFORE).order(ByteOrder.LITTLE_ENDIAN);

    RecordCrc(int version, UUID vault, long pack) {
        this.version = version;
        before.putLong(vault.getMostSignificantBits());
        before.putLong(vault.getLeastSignificantBits());
        before.putLong(pack);
    }

    /** The version of the pack's format. */
    int version() {
        return version;
    }

    /** What stands in bytes 2 and 3 of each record. */
    short magic() {
        return version == 1 ? 0 : PackFormat.RECORD_MAGIC;
    }

    /** Begins with the record at this offset. */
    RecordCrc begin(long offset) {
        crc.reset();
        if (version > 1) {
            before.putLong(BEFORE - 8, offset);
            crc.update(before.array(), 0, BEFORE);
        }
        return this;
    }

    /** Adds bytes of the record. */
    RecordCrc add(byte[] bytes, int from, int length) {
        crc.update(bytes, from, length);
        return this;
    }

    /** Adds bytes of the record, up to the limit of the buffer. */
    RecordCrc add(ByteBuffer bytes) {
        crc.update(bytes);
        return this;
    }

    int value() {
        return (int) crc.getValue();
    }
}
