package org.mendedleaf.core.vault;

import java.io.IOException;
import java.util.Optional;

/** The records of a pack that is not sealed yet: how many there are, and which chunks. */
final class PackRecords implements PackWalk.Taker {

    private final PackChunks.Builder found;
    private PackChunks chunks = PackChunks.NONE;
    private long count;
    private boolean damaged;

    private PackRecords(long pack) {
        found = new PackChunks.Builder(pack);
    }

    /**
     * Looks for them: by the heads of the records, which takes no time, as long as these say what is known; where one does not,
     * each record is read, with its CRC.
     *
     * @param end of the last record
     * @param known chunks that lie in the pack
     */
    static PackRecords of(PackReader reader, long pack, long end, PackChunks known) throws IOException {
        PackRecords heads = new PackRecords(pack);
        heads.take(PackWalk.byHeads(reader, pack), end);
        if (heads.isWhole(known)) {
            return heads;
        }
        PackRecords read = new PackRecords(pack);
        read.take(new PackWalk(reader, pack, known), end);
        return read;
    }

    private void take(PackWalk walk, long end) throws IOException {
        walk.run(PackFormat.HEADER, end, this);
        chunks = found.build();
    }

    /** How many records there are; a stretch in which none can be read counts as one. */
    long count() {
        return count;
    }

    /** The chunks. */
    PackChunks chunks() {
        return chunks;
    }

    @Override
    public void sound(PackRecord head, byte[] bytes) {
        count++;
        if (head.type() == PackFormat.CHUNK) {
            found.add(head.id(), head.offset(), head.storedBytes(), head.length(), head.digest());
        }
    }

    @Override
    public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
        count++;
        damaged = true;
    }

    private boolean isWhole(PackChunks known) {
        if (damaged) {
            return false;
        }
        for (ChunkPlace k : known) {
            if (chunks.at(k.offset()).filter(c -> c.isSame(k)).isEmpty()) {
                return false;
            }
        }
        return true;
    }
}
