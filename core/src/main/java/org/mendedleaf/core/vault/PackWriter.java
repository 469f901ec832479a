package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.StandardOpenOption;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Appends records to the newest pack and seals it when it is large. Not safe for several threads by itself: {@link
 * ChunkWriter} guards it.
 */
final class PackWriter implements AutoCloseable {

    /** A pack is sealed at the first commit beyond this size. Bytes. */
    static final long SEAL_AT = 128L << 20;

    private static final int BUFFER = 1 << 20;

    private final VaultFolder vault;
    private final ChannelOpener opener;
    private final long sealAt;
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(BUFFER).order(ByteOrder.LITTLE_ENDIAN);
    private final byte[] head = new byte[PackFormat.RECORD_HEAD];
    private final java.util.zip.CRC32C crc = new java.util.zip.CRC32C();
    private FileChannel channel;
    private long number;
    private long written;
    private @Nullable IOException failure;

    /** Goes on at the end of what was committed of this pack; whatever lies behind is cut away. */
    PackWriter(VaultFolder vault, ChannelOpener opener, long number, long committed, long sealAt) throws IOException {
        this.vault = vault;
        this.opener = opener;
        this.sealAt = sealAt;
        this.number = number;
        if (committed == 0) {
            this.channel = create(number);
        } else {
            this.channel = opener.open(vault.pack(number), StandardOpenOption.WRITE);
            if (channel.size() > committed) {
                channel.truncate(committed);
                channel.force(true);
            }
            this.written = committed;
            channel.position(committed);
        }
    }

    private FileChannel create(long newNumber) throws IOException {
        FileChannel created = opener.open(
                vault.pack(newNumber),
                StandardOpenOption.CREATE,
                StandardOpenOption.TRUNCATE_EXISTING,
                StandardOpenOption.WRITE);
        Durable.write(created, PackFormat.header(vault.id(), newNumber));
        created.force(true);
        Durable.forceFolder(vault.packs());
        written = PackFormat.HEADER;
        return created;
    }

    /** Number of the pack that is being written. */
    long number() {
        return number;
    }

    /** Where the next record will begin. */
    long end() {
        return written + buffer.position();
    }

    /** Whether this pack has grown large enough to be sealed. */
    boolean isLarge() {
        return end() >= sealAt;
    }

    /** Appends a record and gives its offset. */
    long append(byte type, byte encoding, byte[] stored, int from, int storedBytes, int length, long id, byte[] digest)
            throws IOException {
        requireSound();
        long offset = end();
        PackFormat.putRecordHead(
                ByteBuffer.wrap(head).order(ByteOrder.LITTLE_ENDIAN), type, encoding, storedBytes, length, id, digest);
        crc.reset();
        crc.update(head);
        crc.update(stored, from, storedBytes);
        if (buffer.remaining() < PackFormat.recordLength(storedBytes)) {
            flush();
        }
        buffer.put(head);
        if (storedBytes + PackFormat.RECORD_TAIL > buffer.remaining()) {
            flush();
            ByteBuffer large = ByteBuffer.wrap(stored, from, storedBytes);
            written += storedBytes;
            write(large);
        } else {
            buffer.put(stored, from, storedBytes);
        }
        buffer.putInt((int) crc.getValue());
        return offset;
    }

    private void flush() throws IOException {
        buffer.flip();
        int n = buffer.remaining();
        write(buffer);
        written += n;
        buffer.clear();
    }

    /** After a write that failed nobody knows what stands at the end of the file: nothing more is written to it. */
    private void write(ByteBuffer bytes) throws IOException {
        requireSound();
        try {
            Durable.write(channel, bytes);
        } catch (IOException e) {
            failure = e;
            throw e;
        }
    }

    private void requireSound() throws IOException {
        IOException earlier = failure;
        if (earlier != null) {
            throw new IOException(earlier.getMessage(), earlier);
        }
    }

    /** What has to be synced before the catalogue may know of it. Call {@link #handOver} under the guard, sync outside. */
    FileChannel handOver() throws IOException {
        flush();
        return channel;
    }

    /**
     * Ends the pack with its index and trailer and opens the next one. The old channel is returned, to be synced and
     * closed.
     */
    FileChannel seal(List<ChunkPlace> chunks, long records) throws IOException {
        ByteBuffer index =
                ByteBuffer.allocate(chunks.size() * PackFormat.INDEX_ENTRY).order(ByteOrder.LITTLE_ENDIAN);
        for (ChunkPlace c : chunks) {
            index.putLong(c.id()).putLong(c.offset()).putInt(c.storedBytes()).putInt(c.length());
            index.put(c.digest());
        }
        byte[] bytes = index.array();
        long offset = append(
                PackFormat.INDEX,
                PackFormat.RAW,
                bytes,
                0,
                bytes.length,
                bytes.length,
                chunks.size(),
                Digest.sha256().digest(bytes));
        flush();
        ByteBuffer trailer = PackFormat.trailer(offset, records);
        written += trailer.remaining();
        write(trailer);
        return channel;
    }

    /** Begins the next pack, after {@link #seal}. */
    void next() throws IOException {
        number++;
        channel = create(number);
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }

    /** Removes a pack file that was begun and never became part of the vault. */
    static void discard(VaultFolder vault, long number) throws IOException {
        Files.deleteIfExists(vault.pack(number));
    }
}
