package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.words.Words;

/** Reads a pack and compares it with what the catalogue says of it. Changes nothing. */
public final class PackCheck {

    private final VaultFolder vault;
    private final PackReader reader;

    /** A check of packs of this vault, through this reader. */
    public PackCheck(VaultFolder vault, PackReader reader) {
        this.vault = vault;
        this.reader = reader;
    }

    /**
     * What the catalogue says of one pack.
     *
     * @param number of the pack
     * @param sealed whether it has its index and trailer
     * @param committed bytes of it that are committed; for a sealed pack its length
     * @param chunks the chunks it holds, by offset
     */
    public record Expected(long number, boolean sealed, long committed, NavigableMap<Long, ChunkPlace> chunks) {}

    /** The quick part: the pack is there, is ours, and is long enough. */
    public List<Damage> quick(Expected pack) throws IOException {
        List<Damage> found = new ArrayList<>();
        try {
            PackFormat.checkHeader(
                    reader.readHeader(pack.number()), vault.pack(pack.number()), vault.id(), pack.number());
            long size = reader.size(pack.number());
            if (size < pack.committed() || (pack.sealed() && size != pack.committed())) {
                Set<Long> lost = new HashSet<>();
                for (ChunkPlace c : pack.chunks().values()) {
                    if (c.offset() + PackFormat.recordLength(c.storedBytes()) > size) {
                        lost.add(c.id());
                    }
                }
                found.add(damage(pack, Words.of("check.length", name(pack), size, pack.committed()), lost));
            }
            if (pack.sealed() && size == pack.committed()) {
                checkTrailer(pack, found);
            }
        } catch (VaultException.Damaged e) {
            boolean missing = e.getCause() instanceof java.nio.file.NoSuchFileException;
            found.add(damage(pack, e.words(), missing ? allOf(pack) : Set.of()));
        }
        return found;
    }

    private static Set<Long> allOf(Expected pack) {
        Set<Long> all = new HashSet<>();
        pack.chunks().values().forEach(c -> all.add(c.id()));
        return all;
    }

    private Damage damage(Expected pack, String words, Set<Long> chunks) {
        return new Damage(pack.number(), words, chunks);
    }

    private String name(Expected pack) {
        return vault.pack(pack.number()).getFileName().toString();
    }

    private ByteBuffer trailer(Expected pack) throws IOException {
        ByteBuffer tail = ByteBuffer.allocate(PackFormat.TRAILER).order(ByteOrder.LITTLE_ENDIAN);
        reader.readFully(pack.number(), tail, pack.committed() - PackFormat.TRAILER);
        return tail;
    }

    private void checkTrailer(Expected pack, List<Damage> found) throws IOException {
        if (!PackFormat.isTrailer(trailer(pack))) {
            found.add(damage(pack, Words.of("check.trailer", name(pack)), Set.of()));
        }
    }

    /** Told after each record: its bytes in the pack. */
    @FunctionalInterface
    public interface Progress {
        void read(long bytes) throws IOException;
    }

    /** Every byte: all of {@link #quick}, and each record with its CRC, encoding and digest, and the index. */
    public List<Damage> full(Expected pack, Progress progress) throws IOException {
        List<Damage> found = quick(pack);
        long size;
        try {
            size = Math.min(reader.size(pack.number()), pack.committed());
        } catch (VaultException.Damaged e) {
            return found;
        }
        long end = pack.sealed() ? size - PackFormat.TRAILER : size;
        NavigableMap<Long, ChunkPlace> unseen = new TreeMap<>(pack.chunks());
        long at = PackFormat.HEADER;
        long records = 0;
        while (at < end) {
            try {
                PackReader.Whole whole = reader.readWhole(pack.number(), at, end, true);
                PackRecord head = whole.head();
                records++;
                if (head.type() == PackFormat.CHUNK) {
                    compare(pack, head, unseen.remove(at), found);
                } else if (head.type() == PackFormat.INDEX) {
                    checkIndex(pack, whole, at, records - 1, found);
                }
                progress.read(head.end() - at);
                at = head.end();
            } catch (VaultException.Damaged e) {
                Set<Long> lost = new HashSet<>();
                ChunkPlace here = unseen.remove(at);
                long next = here == null ? 0 : at + PackFormat.recordLength(here.storedBytes());
                if (here != null) {
                    lost.add(here.id());
                } else {
                    Long known = pack.chunks().higherKey(at);
                    next = known == null ? end : known;
                }
                found.add(damage(pack, e.words(), lost));
                progress.read(next - at);
                at = next;
            }
        }
        for (Map.Entry<Long, ChunkPlace> missed : unseen.entrySet()) {
            found.add(damage(
                    pack,
                    Words.of("vault.record.damaged", name(pack), String.valueOf(missed.getKey())),
                    Set.of(missed.getValue().id())));
        }
        return found;
    }

    private void compare(
            Expected pack, PackRecord head, @org.jspecify.annotations.Nullable ChunkPlace known, List<Damage> found) {
        if (known == null) {
            // A chunk that no commit took up: its file was never finished. It takes room and harms nobody.
            return;
        }
        boolean same = known.id() == head.id()
                && known.storedBytes() == head.storedBytes()
                && known.length() == head.length()
                && Arrays.equals(known.digest(), head.digest());
        if (!same) {
            found.add(damage(
                    pack, Words.of("check.differs", name(pack), String.valueOf(head.offset())), Set.of(known.id())));
        }
    }

    private void checkIndex(Expected pack, PackReader.Whole index, long offset, long records, List<Damage> found)
            throws IOException {
        ByteBuffer tail = trailer(pack);
        PackTail.Contents contents = new PackTail(vault).chunksOf(pack.number(), offset);
        ByteBuffer entries = ByteBuffer.wrap(index.content()).order(ByteOrder.LITTLE_ENDIAN);
        boolean same = tail.getLong(0) == offset
                && tail.getLong(8) == records
                && entries.remaining() == contents.chunks().size() * PackFormat.INDEX_ENTRY;
        byte[] digest = new byte[Digest.LENGTH];
        for (int i = 0; same && i < contents.chunks().size(); i++) {
            ChunkPlace c = contents.chunks().get(i);
            same = entries.getLong() == c.id()
                    && entries.getLong() == c.offset()
                    && entries.getInt() == c.storedBytes()
                    && entries.getInt() == c.length();
            entries.get(digest);
            same = same && Arrays.equals(digest, c.digest());
        }
        if (!same) {
            found.add(damage(pack, Words.of("check.index", name(pack)), Set.of()));
        }
    }
}
