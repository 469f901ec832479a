package org.mendedleaf.core.vault;

import com.github.luben.zstd.Zstd;
import com.github.luben.zstd.ZstdException;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.ClosedByInterruptException;
import java.nio.channels.ClosedChannelException;
import java.nio.channels.FileChannel;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/** Reads records from packs, checking each. Safe for several threads. */
public final class PackReader implements AutoCloseable {

    private static final int OPEN_PACKS = 48;

    private final VaultFolder vault;
    private final Map<Long, Open> open = new LinkedHashMap<>(16, 0.75f, true);

    /**
     * A pack that is open.
     *
     * @param versions of the format in which its records may be: the one that its header says, or, when that cannot be
     *     read, all
     */
    private record Open(FileChannel channel, List<Integer> versions) {}

    /** A reader on the packs of this vault. */
    public PackReader(VaultFolder vault) {
        this.vault = vault;
    }

    /**
     * The content of a chunk. Where only what surrounds the content in its record is damaged, the digest proves that the
     * content is not.
     *
     * @throws VaultException.Damaged when the content is not what was stored, or its pack is not there
     * @throws VaultException.Unavailable when the vault is not there
     */
    public byte[] read(ChunkPlace place) throws IOException {
        byte[] bytes = new byte[(int) PackFormat.recordLength(place.storedBytes())];
        ByteBuffer record = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        readFully(place.pack(), record, place.offset());
        Optional<PackRecord> head = verify(record, place.pack(), place.offset());
        boolean same = head.isPresent()
                && head.get().type() == PackFormat.CHUNK
                && head.get().id() == place.id()
                && head.get().length() == place.length();
        Optional<byte[]> content =
                same ? decode(bytes, head.get().encoding(), place.storedBytes(), place.length()) : proved(bytes, place);
        return content.orElseThrow(() -> damaged(place.pack(), place.offset()));
    }

    private static Optional<byte[]> proved(byte[] record, ChunkPlace place) {
        for (byte encoding : new byte[] {PackFormat.ZSTD, PackFormat.RAW}) {
            Optional<byte[]> content = decode(record, encoding, place.storedBytes(), place.length())
                    .filter(c -> Arrays.equals(Digest.sha256().digest(c), place.digest()));
            if (content.isPresent()) {
                return content;
            }
        }
        return Optional.empty();
    }

    /**
     * A record whose CRC is right.
     *
     * @param bytes of all of it as they stand in the pack, head and CRC with them
     */
    record Checked(PackRecord head, byte[] bytes) {

        /** The decoded content; empty when it cannot be decoded. */
        Optional<byte[]> content() {
            return decode(bytes, head.encoding(), head.storedBytes(), head.length());
        }

        /** Whether the content can be decoded and is what its digest says. */
        boolean isProved() {
            return content()
                    .filter(c -> Arrays.equals(Digest.sha256().digest(c), head.digest()))
                    .isPresent();
        }
    }

    /** Reads the record at this offset; empty when there is no sound one that ends before {@code limit}. */
    Optional<Checked> readChecked(long pack, long offset, long limit) throws IOException {
        Optional<PackRecord> head = readHead(pack, offset, limit);
        if (head.isEmpty()) {
            return Optional.empty();
        }
        byte[] bytes = new byte[(int) (head.get().end() - offset)];
        ByteBuffer record = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        readFully(pack, record, offset);
        return verify(record, pack, offset).map(h -> new Checked(h, bytes));
    }

    /**
     * Reads a record that has to be sound.
     *
     * @throws VaultException.Damaged when it is not
     */
    Checked require(long pack, long offset, long limit) throws IOException {
        return readChecked(pack, offset, limit).orElseThrow(() -> damaged(pack, offset));
    }

    /** The head of a record that ends before {@code limit}, without its content and without checking its CRC. */
    Optional<PackRecord> readHead(long pack, long offset, long limit) throws IOException {
        if (offset + PackFormat.RECORD_HEAD + PackFormat.RECORD_TAIL > limit) {
            return Optional.empty();
        }
        ByteBuffer head = ByteBuffer.allocate(PackFormat.RECORD_HEAD).order(ByteOrder.LITTLE_ENDIAN);
        readFully(pack, head, offset);
        return pack(pack).versions().stream()
                .flatMap(v -> PackRecord.of(head, 0, offset, crc(pack, v).magic()).stream())
                .filter(h -> h.end() <= limit)
                .findFirst();
    }

    /** The head of the record that fills this buffer, when its CRC is right. */
    private Optional<PackRecord> verify(ByteBuffer record, long pack, long offset) throws IOException {
        int covered = record.capacity() - PackFormat.RECORD_TAIL;
        for (int version : pack(pack).versions()) {
            RecordCrc crc = crc(pack, version);
            if (crc.begin(offset).add(record.array(), 0, covered).value() == record.getInt(covered)) {
                return PackRecord.of(record, 0, offset, crc.magic())
                        .filter(h -> PackFormat.recordLength(h.storedBytes()) == record.capacity());
            }
        }
        return Optional.empty();
    }

    /** Versions of the format in which the records of a pack may be. */
    List<RecordCrc> crcs(long pack) throws IOException {
        return pack(pack).versions().stream().map(v -> crc(pack, v)).toList();
    }

    private RecordCrc crc(long pack, int version) {
        return new RecordCrc(version, vault.id(), pack);
    }

    private static Optional<byte[]> decode(byte[] record, byte encoding, int stored, int length) {
        byte[] content = new byte[length];
        if (encoding == PackFormat.RAW) {
            if (stored != length) {
                return Optional.empty();
            }
            System.arraycopy(record, PackFormat.RECORD_HEAD, content, 0, content.length);
            return Optional.of(content);
        }
        try {
            long n = Zstd.decompressByteArray(content, 0, length, record, PackFormat.RECORD_HEAD, stored);
            return n == length ? Optional.of(content) : Optional.empty();
        } catch (ZstdException e) {
            return Optional.empty();
        }
    }

    private VaultException.Damaged damaged(long pack, long offset) {
        return new VaultException.Damaged(
                Words.of("vault.record.damaged", vault.pack(pack).getFileName(), String.valueOf(offset)));
    }

    /** Size of a pack file in bytes. */
    long size(long pack) throws IOException {
        return pack(pack).channel().size();
    }

    /** Where the records of a pack end, and whether it is sealed. */
    record End(long bytes, boolean sealed) {}

    /** Looks for the trailer of a pack. */
    End end(long pack) throws IOException {
        long size = size(pack);
        if (size < PackFormat.HEADER + PackFormat.TRAILER) {
            return new End(size, false);
        }
        ByteBuffer tail = ByteBuffer.allocate(PackFormat.TRAILER).order(ByteOrder.LITTLE_ENDIAN);
        readFully(pack, tail, size - PackFormat.TRAILER);
        return PackFormat.isTrailer(tail) ? new End(size - PackFormat.TRAILER, true) : new End(size, false);
    }

    /**
     * Fills a buffer from a pack.
     *
     * @throws InterruptedIOException when this thread was interrupted
     */
    void readFully(long pack, ByteBuffer into, long offset) throws IOException {
        long at = offset;
        while (into.hasRemaining()) {
            int n;
            try {
                n = pack(pack).channel().read(into, at);
            } catch (ClosedByInterruptException e) {
                // The flag is still set: opening the pack again would close it again.
                InterruptedIOException interrupted = new InterruptedIOException();
                interrupted.initCause(e);
                throw interrupted;
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

    private synchronized Open pack(long number) throws IOException {
        Open there = open.get(number);
        if (there != null && there.channel().isOpen()) {
            return there;
        }
        Open opened = openPack(number);
        open.put(number, opened);
        if (open.size() > OPEN_PACKS) {
            Map.Entry<Long, @Nullable Open> eldest = open.entrySet().iterator().next();
            Open old = open.remove(eldest.getKey());
            if (old != null) {
                old.channel().close();
            }
        }
        return opened;
    }

    private Open openPack(long number) throws IOException {
        Path file = vault.pack(number);
        FileChannel channel;
        try {
            channel = FileChannel.open(file, StandardOpenOption.READ);
        } catch (NoSuchFileException e) {
            Optional<Path> elsewhere = PackFiles.holding(vault, number);
            if (elsewhere.isPresent()) {
                return new Open(
                        FileChannel.open(elsewhere.get(), StandardOpenOption.READ), versions(PackFormat.VERSION));
            }
            if (!VaultFolder.isVault(vault.root())) {
                throw new VaultException.Unavailable(Words.of("vault.none", vault.root()), e);
            }
            throw new VaultException.Damaged(Words.of("vault.pack.missing", file.getFileName()), e);
        }
        try {
            PackFormat.Header header = PackFormat.readHeader(PackFiles.start(channel), file);
            if (header.vault().equals(vault.id()) && header.number() == number) {
                return new Open(channel, List.of(header.version()));
            }
            // Another pack stands under this name.
            channel.close();
            Path right = PackFiles.holding(vault, number)
                    .orElseThrow(() -> new VaultException.Damaged(Words.of("vault.pack.foreign", file.getFileName())));
            return new Open(FileChannel.open(right, StandardOpenOption.READ), versions(PackFormat.VERSION));
        } catch (VaultException.Damaged e) {
            if (!channel.isOpen()) {
                throw e;
            }
            return new Open(channel, versions(PackFormat.VERSION));
        } catch (IOException e) {
            channel.close();
            throw e;
        }
    }

    /** All versions, the newest first. */
    private static List<Integer> versions(int newest) {
        return IntStream.rangeClosed(1, newest).mapToObj(i -> newest + 1 - i).toList();
    }

    @Override
    public synchronized void close() throws IOException {
        for (Open pack : open.values()) {
            pack.channel().close();
        }
        open.clear();
    }
}
