package org.mendedleaf.core.vault;

import java.io.IOException;
import java.util.Arrays;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;

/** The records of a pack that is not sealed yet: how many there are, and which chunks. */
final class PackRecords implements PackWalk.Taker {

    private final long pack;
    private final TreeMap<Long, ChunkPlace> chunks = new TreeMap<>();
    private long count;
    private boolean damaged;

    private PackRecords(long pack) {
        this.pack = pack;
    }

    /**
     * Looks for them: by the heads of the records, which takes no time, as long as these say what is known; where one does not,
     * each record is read, with its CRC.
     *
     * @param end of the last record
     * @param known chunks that lie in the pack, by offset
     */
    static PackRecords of(PackReader reader, long pack, long end, NavigableMap<Long, ChunkPlace> known)
            throws IOException {
        PackRecords heads = new PackRecords(pack);
        PackWalk.byHeads(reader, pack).run(PackFormat.HEADER, end, heads);
        if (heads.isWhole(known)) {
            return heads;
        }
        PackRecords read = new PackRecords(pack);
        new PackWalk(reader, pack, known).run(PackFormat.HEADER, end, read);
        return read;
    }

    /** How many records there are; a stretch in which none can be read counts as one. */
    long count() {
        return count;
    }

    /** The chunks, by offset. */
    NavigableMap<Long, ChunkPlace> chunks() {
        return chunks;
    }

    @Override
    public void sound(PackRecord head, byte[] bytes) {
        count++;
        if (head.type() == PackFormat.CHUNK) {
            chunks.put(head.offset(), head.place(pack));
        }
    }

    @Override
    public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
        count++;
        damaged = true;
    }

    private boolean isWhole(NavigableMap<Long, ChunkPlace> known) {
        return !damaged && known.values().stream().allMatch(this::isThere);
    }

    private boolean isThere(ChunkPlace known) {
        ChunkPlace there = chunks.get(known.offset());
        return there != null
                && there.id() == known.id()
                && there.storedBytes() == known.storedBytes()
                && there.length() == known.length()
                && Arrays.equals(there.digest(), known.digest());
    }
}
