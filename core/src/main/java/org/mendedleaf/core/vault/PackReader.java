package org.mendedleaf.core.vault;

import com.github.luben.zstd.Zstd;
import com.github.luben.zstd.ZstdException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.ClosedChannelException;
import java.nio.channels.FileChannel;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/** Reads records from packs, checking each. Safe for several threads. */
public final class PackReader implements AutoCloseable {

    private static final int OPEN_PACKS = 48;

    /** No record of ours is larger; a damaged length must not ask for all memory. */
    static final int RECORD_MAX = 1 << 30;

    private final VaultFolder vault;
    private final Map<Long, FileChannel> open = new LinkedHashMap<>(16, 0.75f, true);

    /** A reader on the packs of this vault. */
    public PackReader(VaultFolder vault) {
        this.vault = vault;
    }

    /**
     * The content of a chunk.
     *
     * @throws VaultException.Damaged when its record is not what was stored
     * @throws VaultException.Unavailable when its pack is not there
     */
    public byte[] read(ChunkPlace place) throws IOException {
        long total = PackFormat.recordLength(place.storedBytes());
        byte[] bytes = new byte[(int) total];
        ByteBuffer record = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        readFully(place.pack(), record, place.offset());
        PackRecord head = verify(record, place.pack(), place.offset());
        if (head.type() != PackFormat.CHUNK || head.id() != place.id() || head.length() != place.length()) {
            throw damaged(place.pack(), place.offset());
        }
        return decode(bytes, head, place.pack());
    }

    /** Reads the head of a record, without its content and without checking its CRC. */
    PackRecord readHead(long pack, long offset) throws IOException {
        ByteBuffer head = ByteBuffer.allocate(PackFormat.RECORD_HEAD).order(ByteOrder.LITTLE_ENDIAN);
        readFully(pack, head, offset);
        return head(head, pack, offset);
    }

    /** The bytes of a whole record as they stand in the pack, head and CRC with them; checked. */
    byte[] readRecord(long pack, PackRecord head) throws IOException {
        byte[] bytes = new byte[(int) (head.end() - head.offset())];
        ByteBuffer record = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        readFully(pack, record, head.offset());
        verify(record, pack, head.offset());
        return bytes;
    }

    /** A checked record with its decoded content. */
    record Whole(PackRecord head, byte[] content) {}

    /** Reads and checks a whole record: CRC and encoding, and the SHA-256 of its content when asked. */
    Whole readWhole(long pack, long offset, long limit, boolean digestToo) throws IOException {
        PackRecord head = readHead(pack, offset);
        if (head.end() > limit) {
            throw damaged(pack, offset);
        }
        byte[] bytes = new byte[(int) (head.end() - offset)];
        ByteBuffer record = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        readFully(pack, record, offset);
        PackRecord checked = verify(record, pack, offset);
        byte[] content = decode(bytes, checked, pack);
        if (digestToo && !java.util.Arrays.equals(Digest.sha256().digest(content), checked.digest())) {
            throw damaged(pack, offset);
        }
        return new Whole(checked, content);
    }

    private PackRecord head(ByteBuffer in, long pack, long offset) throws VaultException.Damaged {
        byte[] digest = new byte[Digest.LENGTH];
        in.get(20, digest);
        PackRecord head =
                new PackRecord(offset, in.get(0), in.get(1), in.getInt(4), in.getInt(8), in.getLong(12), digest);
        boolean sane = head.type() >= PackFormat.CHUNK
                && head.type() <= PackFormat.INDEX
                && head.encoding() >= PackFormat.RAW
                && head.encoding() <= PackFormat.ZSTD
                && head.storedBytes() >= 0
                && head.storedBytes() <= RECORD_MAX
                && head.length() >= 0
                && head.length() <= RECORD_MAX;
        if (!sane) {
            throw damaged(pack, offset);
        }
        return head;
    }

    private PackRecord verify(ByteBuffer record, long pack, long offset) throws VaultException.Damaged {
        int covered = record.capacity() - PackFormat.RECORD_TAIL;
        if (PackFormat.crc(record.array(), 0, covered) != record.getInt(covered)) {
            throw damaged(pack, offset);
        }
        PackRecord head = head(record, pack, offset);
        if (PackFormat.recordLength(head.storedBytes()) != record.capacity()) {
            throw damaged(pack, offset);
        }
        return head;
    }

    private byte[] decode(byte[] record, PackRecord head, long pack) throws VaultException.Damaged {
        byte[] content = new byte[head.length()];
        if (head.encoding() == PackFormat.RAW) {
            if (head.storedBytes() != head.length()) {
                throw damaged(pack, head.offset());
            }
            System.arraycopy(record, PackFormat.RECORD_HEAD, content, 0, content.length);
            return content;
        }
        try {
            long n = Zstd.decompressByteArray(
                    content, 0, content.length, record, PackFormat.RECORD_HEAD, head.storedBytes());
            if (n != content.length) {
                throw damaged(pack, head.offset());
            }
            return content;
        } catch (ZstdException e) {
            throw damaged(pack, head.offset());
        }
    }

    private VaultException.Damaged damaged(long pack, long offset) {
        return new VaultException.Damaged(
                Words.of("vault.record.damaged", vault.pack(pack).getFileName(), String.valueOf(offset)));
    }

    /** The first bytes of a pack, enough for its header; fewer when it is shorter. */
    ByteBuffer readHeader(long pack) throws IOException {
        ByteBuffer head = ByteBuffer.allocate(PackFormat.HEADER).order(ByteOrder.LITTLE_ENDIAN);
        FileChannel channel = channel(pack);
        int at = 0;
        while (head.hasRemaining()) {
            int n = channel.read(head, at);
            if (n < 0) {
                break;
            }
            at += n;
        }
        return head.flip();
    }

    /** Size of a pack file in bytes. */
    long size(long pack) throws IOException {
        return channel(pack).size();
    }

    void readFully(long pack, ByteBuffer into, long offset) throws IOException {
        long at = offset;
        while (into.hasRemaining()) {
            int n;
            try {
                n = channel(pack).read(into, at);
            } catch (ClosedChannelException e) {
                // Closed by another thread's turn-over of open packs: open it again.
                continue;
            }
            if (n < 0) {
                throw damaged(pack, offset);
            }
            at += n;
        }
        into.flip();
    }

    private synchronized FileChannel channel(long pack) throws IOException {
        FileChannel channel = open.get(pack);
        if (channel != null && channel.isOpen()) {
            return channel;
        }
        Path file = vault.pack(pack);
        try {
            channel = FileChannel.open(file, StandardOpenOption.READ);
        } catch (NoSuchFileException e) {
            if (!VaultFolder.isVault(vault.root())) {
                throw new VaultException.Unavailable(Words.of("vault.none", vault.root()), e);
            }
            throw new VaultException.Damaged(Words.of("vault.pack.missing", file.getFileName()), e);
        }
        open.put(pack, channel);
        if (open.size() > OPEN_PACKS) {
            Map.Entry<Long, @Nullable FileChannel> eldest =
                    open.entrySet().iterator().next();
            FileChannel old = open.remove(eldest.getKey());
            if (old != null) {
                old.close();
            }
        }
        return channel;
    }

    @Override
    public synchronized void close() throws IOException {
        for (FileChannel channel : open.values()) {
            channel.close();
        }
        open.clear();
    }
}
