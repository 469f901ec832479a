package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.jspecify.annotations.Nullable;

/**
 * Walks a pack record by record. Where a record is damaged, the walk goes on with the next one that is sound, wherever it
 * begins: at the end of what was there by its index or by somebody who knows, or else at the next place where magic and
 * CRC are right. Damage costs what is damaged and nothing behind it.
 */
final class PackWalk {

    private static final int BLOCK = 1 << 20;

    /** Windows that nobody needs just now: the system reads into them without a copy, and it takes long to make one. */
    private static final Queue<ByteBuffer> WINDOWS = new ConcurrentLinkedQueue<>();

    /** What is given out of a record. */
    private enum Gives {
        /** Its head, which is believed; nothing else is read. */
        HEADS,
        /** Its head, when its CRC is right. */
        CHECKED_HEADS,
        /** All of it, when its CRC is right. */
        RECORDS
    }

    private final PackReader reader;
    private final long pack;
    private final PackReader.End end;
    private PackChunks known;
    private boolean indexRead;
    private final Gives gives;
    private ByteBuffer window = ByteBuffer.allocate(0);
    private long windowAt;
    private int windowLength;
    private @Nullable List<RecordCrc> crcs;

    /**
     * A walk through one pack.
     *
     * @param known chunks of which somebody knows where they lie in it; where something is damaged, the index of the pack adds its own
     */
    PackWalk(PackReader reader, long pack, PackChunks known) throws IOException {
        this(reader, pack, known, Gives.RECORDS);
    }

    private PackWalk(PackReader reader, long pack, PackChunks known, Gives gives) throws IOException {
        this.reader = reader;
        this.pack = pack;
        this.gives = gives;
        this.end = reader.end(pack);
        this.known = known;
    }

    /** A walk that reads and believes the heads of records, and gives none of their bytes. */
    static PackWalk byHeads(PackReader reader, long pack) throws IOException {
        return new PackWalk(reader, pack, PackChunks.NONE, Gives.HEADS);
    }

    /** A walk that checks the CRC of each record, and gives none of their bytes. */
    static PackWalk byCrc(PackReader reader, long pack, PackChunks known) throws IOException {
        return new PackWalk(reader, pack, known, Gives.CHECKED_HEADS);
    }

    private Optional<PackReader.Checked> record(long at, long to) throws IOException {
        if (gives == Gives.HEADS) {
            return reader.readHead(pack, at, to).map(h -> new PackReader.Checked(h, new byte[0]));
        }
        if (at + PackFormat.RECORD_HEAD + PackFormat.RECORD_TAIL > to) {
            return Optional.empty();
        }
        if (!isInWindow(at, PackFormat.RECORD_HEAD)) {
            fillWindow(at);
        }
        for (RecordCrc crc : crcs()) {
            Optional<PackRecord> head = PackRecord.of(window, (int) (at - windowAt), at, crc.magic())
                    .filter(h -> h.end() <= to);
            if (head.isEmpty()) {
                continue;
            }
            int length = (int) Math.min(Integer.MAX_VALUE, head.get().end() - at);
            if (length > BLOCK) {
                return reader.readChecked(pack, at, to);
            }
            if (!isInWindow(at, length)) {
                fillWindow(at);
            }
            int from = (int) (at - windowAt);
            int covered = length - PackFormat.RECORD_TAIL;
            boolean right = isInWindow(at, length)
                    && crc.begin(at).add(window.slice(from, covered)).value() == window.getInt(from + covered);
            if (right) {
                byte[] bytes = new byte[gives == Gives.RECORDS ? length : 0];
                window.get(from, bytes);
                return Optional.of(new PackReader.Checked(head.get(), bytes));
            }
        }
        return Optional.empty();
    }

    private boolean isInWindow(long at, int length) {
        return at >= windowAt && at + length <= windowAt + windowLength;
    }

    private void fillWindow(long at) throws IOException {
        if (window.capacity() == 0) {
            ByteBuffer free = WINDOWS.poll();
            window = (free == null ? ByteBuffer.allocateDirect(BLOCK) : free).order(ByteOrder.LITTLE_ENDIAN);
        }
        int length = (int) Math.min(BLOCK, end.bytes() - at);
        windowLength = 0;
        reader.readFully(pack, window.slice(0, length), at);
        windowAt = at;
        windowLength = length;
    }

    private void giveWindowBack() {
        if (window.capacity() > 0) {
            WINDOWS.add(window);
            window = ByteBuffer.allocate(0);
            windowLength = 0;
        }
    }

    private List<RecordCrc> crcs() throws IOException {
        List<RecordCrc> known = crcs;
        if (known == null) {
            known = reader.crcs(pack);
            crcs = known;
        }
        return known;
    }

    /** Takes what is found, front to back. */
    interface Taker {
        /**
         * A record whose CRC is right.
         *
         * @param bytes of all of it, as they stand in the pack; empty where only heads are given
         */
        void sound(PackRecord head, byte[] bytes) throws IOException;

        /**
         * Bytes in which no record is sound.
         *
         * @param chunk that lies just there as far as somebody knows
         */
        void damaged(long from, long to, Optional<ChunkPlace> chunk) throws IOException;
    }

    /** Where the records end, and whether there is an index and a trailer behind them. */
    PackReader.End end() {
        return end;
    }

    /** Walks from the first record to the end of the last. */
    void run(Taker taker) throws IOException {
        run(PackFormat.HEADER, end.bytes(), taker);
    }

    /** Walks through a stretch; the first record begins at {@code from}. */
    void run(long from, long to, Taker taker) throws IOException {
        try {
            walk(from, to, taker);
        } finally {
            giveWindowBack();
        }
    }

    private void walk(long from, long to, Taker taker) throws IOException {
        long at = from;
        while (at < to) {
            Optional<PackReader.Checked> record = record(at, to);
            if (record.isPresent()) {
                taker.sound(record.get().head(), record.get().bytes());
                at = record.get().head().end();
            } else {
                Optional<ChunkPlace> here = known().at(at);
                long next = here.isPresent() && isFirstVersion() ? Math.min(to, endOf(here.get())) : next(at + 1, to);
                taker.damaged(at, next, here);
                at = next;
            }
        }
    }

    /** What anybody knows: the index is read only where something is damaged. */
    private PackChunks known() throws IOException {
        if (end.sealed() && !indexRead) {
            indexRead = true;
            known = known.and(index(reader, pack, end));
        }
        return known;
    }

    /** Records of the first version are not tied to their place: what is inside of a content may look like one. */
    private boolean isFirstVersion() throws IOException {
        return reader.crcs(pack).stream().anyMatch(c -> c.version() == 1);
    }

    private static long endOf(ChunkPlace place) {
        return place.offset() + PackFormat.recordLength(place.storedBytes());
    }

    /** The next place at which a record is sound, or at which one is known to begin. */
    private long next(long from, long to) throws IOException {
        long limit = isFirstVersion() ? Math.min(to, known().next(from)) : to;
        List<RecordCrc> crcs = reader.crcs(pack);
        long block = from;
        while (block + PackFormat.RECORD_HEAD <= limit) {
            int length = (int) Math.min(BLOCK + PackFormat.RECORD_HEAD, end.bytes() - block);
            ByteBuffer bytes = ByteBuffer.allocate(length).order(ByteOrder.LITTLE_ENDIAN);
            reader.readFully(pack, bytes, block);
            for (int i = 0; i + PackFormat.RECORD_HEAD <= length && block + i < limit; i++) {
                for (RecordCrc crc : crcs) {
                    if (bytes.getShort(i + 2) == crc.magic()
                            && PackRecord.of(bytes, i, block + i, crc.magic()).isPresent()
                            && reader.readChecked(pack, block + i, to).isPresent()) {
                        return block + i;
                    }
                }
            }
            block += BLOCK;
        }
        return limit;
    }

    /** What the index of a sealed pack says; empty when it cannot be read. */
    private static PackChunks index(PackReader reader, long pack, PackReader.End end) throws IOException {
        ByteBuffer trailer = ByteBuffer.allocate(PackFormat.TRAILER).order(ByteOrder.LITTLE_ENDIAN);
        reader.readFully(pack, trailer, end.bytes());
        return reader.readChecked(pack, trailer.getLong(0), end.bytes())
                .filter(r -> r.head().type() == PackFormat.INDEX && r.isProved())
                .flatMap(PackReader.Checked::content)
                .map(c -> PackFormat.readIndex(c, pack))
                .orElse(PackChunks.NONE);
    }
}
