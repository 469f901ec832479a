package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.words.Words;

/**
 * Appends records to the newest pack and seals it when it is large. Not safe for several threads by itself: {@link
 * ChunkWriter} guards it.
 */
final class PackWriter implements AutoCloseable {

    /** A pack is sealed at the first commit beyond this size. Bytes. */
    static final long SEAL_AT = 128L << 20;

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(PackWriter.class);
    private static final int BUFFER = 1 << 20;

    private final VaultFolder vault;
    private final ChannelOpener opener;
    private final long sealAt;
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(BUFFER).order(ByteOrder.LITTLE_ENDIAN);
    private final byte[] head = new byte[PackFormat.RECORD_HEAD];
    private RecordCrc crc;
    private FileChannel channel;
    private long number;
    private long written;
    private long kept;
    private @Nullable IOException failure;

    /**
     * Goes on at the end of a pack, or begins one.
     *
     * @param from where the pack ends, see {@link PackOpening}; 0 to begin it
     */
    PackWriter(VaultFolder vault, ChannelOpener opener, long number, long from, long sealAt) throws IOException {
        this.vault = vault;
        this.opener = opener;
        this.sealAt = sealAt;
        this.number = number;
        if (from == 0) {
            this.crc = new RecordCrc(PackFormat.VERSION, vault.id(), number);
            this.channel = create(number);
        } else {
            this.channel = opener.open(vault.pack(number), StandardOpenOption.READ, StandardOpenOption.WRITE);
            PackFormat.Header header =
                    PackFormat.checkHeader(PackFiles.start(channel), vault.pack(number), vault.id(), number);
            this.crc = new RecordCrc(header.version(), vault.id(), number);
            this.written = from;
            channel.position(from);
        }
        this.kept = written;
    }

    private FileChannel create(long newNumber) throws IOException {
        vault.access().createFile(vault.pack(newNumber));
        FileChannel created = opener.open(vault.pack(newNumber), StandardOpenOption.READ, StandardOpenOption.WRITE);
        if (created.size() > PackFormat.HEADER) {
            created.close();
            throw new VaultException.Damaged(
                    Words.of("vault.pack.there", vault.pack(newNumber).getFileName()));
        }
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
                ByteBuffer.wrap(head).order(ByteOrder.LITTLE_ENDIAN),
                crc.magic(),
                type,
                encoding,
                storedBytes,
                length,
                id,
                digest);
        crc.begin(offset).add(head, 0, head.length).add(stored, from, storedBytes);
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
        buffer.putInt(crc.value());
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
        kept = written;
        return channel;
    }

    /**
     * A pack that nothing is appended to any longer, and that is not sealed yet.
     *
     * @param end of its last record
     */
    record Left(long number, FileChannel channel, RecordCrc crc, long end) {

        /**
         * Ends it with its index and trailer; its channel is to be synced then. Nobody else is kept waiting: the next pack is
         * written meanwhile.
         *
         * @return the length of the pack, bytes
         */
        long seal(PackChunks chunks, long records) throws IOException {
            byte[] index = index(chunks);
            ByteBuffer out = ByteBuffer.allocate((int) PackFormat.recordLength(index.length))
                    .order(ByteOrder.LITTLE_ENDIAN);
            PackFormat.putRecordHead(
                    out,
                    crc.magic(),
                    PackFormat.INDEX,
                    PackFormat.RAW,
                    index.length,
                    index.length,
                    chunks.size(),
                    Digest.sha256().digest(index));
            out.put(index);
            crc.begin(end).add(out.array(), 0, out.position());
            out.putInt(crc.value()).flip();
            Durable.write(channel, out);
            ByteBuffer trailer = PackFormat.trailer(end, records);
            long length = end + out.limit() + trailer.remaining();
            Durable.write(channel, trailer);
            return length;
        }

        private static byte[] index(PackChunks chunks) {
            ByteBuffer index =
                    ByteBuffer.allocate(chunks.size() * PackFormat.INDEX_ENTRY).order(ByteOrder.LITTLE_ENDIAN);
            for (ChunkPlace c : chunks) {
                index.putLong(c.id())
                        .putLong(c.offset())
                        .putInt(c.storedBytes())
                        .putInt(c.length());
                index.put(c.digest());
            }
            return index.array();
        }
    }

    /** Begins the next pack; the one before is to be sealed, synced and closed by whoever asked for that. */
    Left next() throws IOException {
        flush();
        Left left = new Left(number, channel, crc, written);
        long next = number;
        do {
            next++;
        } while (Files.exists(vault.pack(next)) && Files.size(vault.pack(next)) > PackFormat.HEADER);
        channel = create(next);
        number = next;
        crc = new RecordCrc(PackFormat.VERSION, vault.id(), next);
        kept = written;
        return left;
    }

    /** Leaves what was appended where it is, as when somebody else may write here by now. */
    void leave() {
        kept = Long.MAX_VALUE;
    }

    /**
     * Takes back what this writer appended and never handed over: nobody else knows of it. What was handed over stays, even
     * where its commit failed, since that may have come to its end all the same.
     */
    private void takeBack() {
        try {
            boolean mine = failure != null || channel.size() == written;
            if (mine && channel.size() > kept) {
                channel.truncate(kept);
            }
        } catch (IOException e) {
            log.debug("what was not committed stays in {}", vault.pack(number), e);
        }
    }

    @Override
    public void close() throws IOException {
        takeBack();
        channel.close();
    }

    /** Removes a pack that was emptied. */
    static void discard(VaultFolder vault, long number) throws IOException {
        Files.deleteIfExists(vault.pack(number));
    }
}
