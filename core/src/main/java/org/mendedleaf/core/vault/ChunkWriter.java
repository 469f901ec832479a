package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.words.Words;

/**
 * The incoming side of the vault during one write session: finds or adds chunks, and brings what was added to disk in
 * the order that a crash cannot hurt: records, sync, then the rows.
 *
 * <p>{@link #find} and {@link #add} are safe for several threads; the others belong to the one that commits.
 */
public final class ChunkWriter implements AutoCloseable {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(ChunkWriter.class);

    private final VaultFolder vault;
    private final Supplier<Connection> reading;
    private final ChunkIndexCache cache;
    private final PackRows rows;
    private final PackWriter packs;
    private final Map<Long, ChunkPlace> pending = new HashMap<>();
    private final List<ChunkPlace> fresh = new ArrayList<>();
    private @Nullable ChunkIndex index;
    private long nextChunk;
    private long nextCommit;
    private long addedBytes;
    private final List<ChunkPlace> moved = new ArrayList<>();
    private final List<Long> emptied = new ArrayList<>();
    private boolean sealNow;

    /** Takes the change log of a commit that came into the packs and not into the catalogue. */
    @FunctionalInterface
    public interface Missed {
        /** Applies it. */
        void take(long commit, byte[] changeLog) throws IOException;
    }

    /**
     * Makes ready to write: at the end of the newest pack, or in a new one, see {@link PackOpening}. The caller holds the
     * lock of the vault.
     *
     * @param writing the connection on which the rows of a commit are written
     * @param reading gives a connection for looking up chunks, when one is first needed
     * @param cache keeps the index of chunks for the next session
     * @param missed takes what a crash between the pack and the catalogue left; the caller then commits the transaction
     * @throws VaultException.Damaged when the catalogue is older than the packs
     */
    public ChunkWriter(
            VaultFolder vault,
            ChannelOpener opener,
            Connection writing,
            Supplier<Connection> reading,
            ChunkIndexCache cache,
            Missed missed)
            throws IOException, SQLException {
        this(vault, opener, writing, reading, cache, missed, PackWriter.SEAL_AT);
    }

    ChunkWriter(
            VaultFolder vault,
            ChannelOpener opener,
            Connection writing,
            Supplier<Connection> reading,
            ChunkIndexCache cache,
            Missed missed,
            long sealAt)
            throws IOException, SQLException {
        this.vault = vault;
        this.reading = reading;
        this.cache = cache;
        this.rows = new PackRows(writing);
        rows.emptied().forEach(this::finishEmptying);
        PackOpening.Known known = rows.known();
        PackOpening.Decided decided = new PackOpening(vault, known).decide();
        nextCommit = known.commit() + 1;
        nextChunk = decided.chunk() + 1;
        rows.looked(decided.looked());
        if (decided.ahead().isPresent()) {
            PackOpening.Ahead ahead = decided.ahead().get();
            rows.chunks(ahead.chunks());
            rows.pack(ahead.pack(), ahead.end(), false);
            rows.counters(nextCommit, nextChunk - 1);
            missed.take(ahead.number(), ahead.changeLog());
            nextCommit++;
        }
        packs = new PackWriter(vault, opener, decided.pack(), decided.from(), sealAt);
    }

    /** A pack that was emptied before a crash. */
    private void finishEmptying(long pack) {
        try {
            if (PackFiles.look(vault, vault.pack(pack)).state() == PackFiles.State.SOUND) {
                PackWriter.discard(vault, pack);
            }
            rows.emptiedGone(pack);
        } catch (java.nio.file.NoSuchFileException e) {
            forgetEmptied(pack);
        } catch (IOException | SQLException e) {
            log.warn("pack {} was emptied and is still there", pack, e);
        }
    }

    private void forgetEmptied(long pack) {
        try {
            rows.emptiedGone(pack);
        } catch (SQLException e) {
            log.warn("pack {} was emptied", pack, e);
        }
    }

    /** The id of the chunk with this digest, or -1 when it is not in the vault. */
    synchronized long find(byte[] digest) throws IOException {
        try {
            if (index == null) {
                index = cache.take(reading.get(), vault);
            }
            return index.find(digest, pending::get);
        } catch (SQLException e) {
            throw VaultException.Damaged.ofCatalogue(vault.root(), e);
        }
    }

    /** Adds a chunk, unless another thread just did. */
    synchronized long add(byte[] digest, byte encoding, byte[] stored, int from, int storedBytes, int length)
            throws IOException {
        long there = find(digest);
        if (there >= 0) {
            return there;
        }
        // One that is damaged is stored anew under its id: every version that needs it is whole again.
        long again = damagedWith(digest);
        long id = again > 0 ? again : nextChunk++;
        long offset =
                writing(() -> packs.append(PackFormat.CHUNK, encoding, stored, from, storedBytes, length, id, digest));
        ChunkPlace place = new ChunkPlace(id, packs.number(), offset, storedBytes, length, digest);
        pending.put(id, place);
        fresh.add(place);
        addedBytes += PackFormat.recordLength(storedBytes);
        if (index != null) {
            index.add(digest, id);
        }
        return id;
    }

    private long damagedWith(byte[] digest) {
        return index == null ? 0 : index.damagedWith(digest);
    }

    /** A chunk that is not yet in the catalogue, or null. */
    public synchronized @Nullable ChunkPlace pending(long id) {
        return pending.get(id);
    }

    /** Bytes added to packs in this session. */
    public synchronized long addedBytes() {
        return addedBytes;
    }

    /** Whether there is something to commit in the packs. */
    public synchronized boolean hasFresh() {
        return !fresh.isEmpty() || !emptied.isEmpty() || sealNow;
    }

    /** Ends the newest pack with the next commit, however small it is; then it can be emptied too. */
    public synchronized void sealNext() {
        sealNow = true;
    }

    /** Which chunks are still needed. */
    @FunctionalInterface
    public interface Needed {
        boolean is(long chunk);
    }

    /**
     * Copies what is still needed of a pack to the end of the newest one: chunks under their ids, and all commit records,
     * since {@link PackReplay} needs them. With the next commit the catalogue knows the new places, forgets the other chunks
     * of the pack, and its file is deleted. Where something is damaged that may be needed, it stays where it is, and so does
     * its pack.
     *
     * @throws VaultException.Damaged when a needed record cannot be read; nothing has changed then
     */
    public void empty(long pack, Needed needed) throws IOException {
        PackChunks known = rows.placesIn(pack);
        long end = rows.committed(pack);
        try (PackReader reader = new PackReader(vault)) {
            PackWalk walk = new PackWalk(reader, pack, known);
            long to = Math.min(end, walk.end().bytes());
            walk.run(PackFormat.HEADER, to, new Emptying(pack, known, needed, false));
            walk.run(PackFormat.HEADER, to, new Emptying(pack, known, needed, true));
        }
        synchronized (this) {
            emptied.add(pack);
        }
    }

    /** Looks first whether all that is needed can be read, and then copies it. */
    private final class Emptying implements PackWalk.Taker {
        private final long pack;
        private final PackChunks known;
        private final Needed needed;
        private final boolean copy;

        Emptying(long pack, PackChunks known, Needed needed, boolean copy) {
            this.pack = pack;
            this.known = known;
            this.needed = needed;
            this.copy = copy;
        }

        private boolean isNeeded(ChunkPlace place) {
            return needed.is(place.id()) && known.indexOf(place.offset()) >= 0;
        }

        @Override
        public void sound(PackRecord head, byte[] bytes) throws IOException {
            ChunkPlace place = head.place(pack);
            boolean chunk = head.type() == PackFormat.CHUNK && isNeeded(place);
            if (!copy || (!chunk && head.type() != PackFormat.COMMIT)) {
                return;
            }
            synchronized (ChunkWriter.this) {
                long offset = writing(() -> packs.append(
                        head.type(),
                        head.encoding(),
                        bytes,
                        PackFormat.RECORD_HEAD,
                        head.storedBytes(),
                        head.length(),
                        head.id(),
                        head.digest()));
                if (chunk) {
                    moved.add(new ChunkPlace(
                            head.id(), packs.number(), offset, head.storedBytes(), head.length(), head.digest()));
                }
            }
        }

        @Override
        public void damaged(long from, long to, Optional<ChunkPlace> chunk) throws IOException {
            boolean harmless = chunk.isPresent()
                    && to == from + PackFormat.recordLength(chunk.get().storedBytes())
                    && !isNeeded(chunk.get());
            if (!harmless) {
                throw new VaultException.Damaged(
                        Words.of("vault.record.damaged", vault.pack(pack).getFileName(), String.valueOf(from)));
            }
        }
    }

    /**
     * Lets go of a pack that the catalogue does not know, when nothing in it is only there: it was emptied before a crash,
     * or is a copy.
     *
     * @return whether it is gone now
     */
    public boolean dropUnknown(long pack) throws IOException {
        try (PackReader reader = new PackReader(vault)) {
            if (!new StrayPack(reader, pack, rows::placeOf, vault.packNumbers()).isElsewhereToo()) {
                return false;
            }
        }
        PackWriter.discard(vault, pack);
        return true;
    }

    private interface Step {
        long run() throws IOException;
    }

    private long writing(Step step) throws IOException {
        try {
            return step.run();
        } catch (IOException e) {
            throw translate(e);
        }
    }

    private IOException translate(IOException e) {
        if (Durable.saysFull(e)) {
            return new VaultException.Full(vault.root(), e);
        }
        if (e instanceof VaultException) {
            return e;
        }
        return new VaultException.Unavailable(Words.of("vault.writeFailed", vault.root(), e.getMessage()), e);
    }

    /**
     * Brings all that was added to disk, with the change log of the catalogue as a commit record, and writes the rows of
     * chunks and packs on the writing connection. The caller then commits the transaction.
     *
     * @param changeLog what the catalogue changes in the same commit
     * @return what to hand to {@link #committed} once the transaction is through
     */
    public Flushed flush(byte[] changeLog) throws IOException, SQLException {
        List<ChunkPlace> chunks;
        List<ChunkPlace> movedRows;
        List<Long> gone;
        long pack;
        long end;
        FileChannel toSync;
        PackWriter.Left left = null;
        byte[] packed = com.github.luben.zstd.Zstd.compress(changeLog);
        byte[] digest = Digest.sha256().digest(changeLog);
        try {
            synchronized (this) {
                long commit = nextCommit++;
                packs.append(
                        PackFormat.COMMIT, PackFormat.ZSTD, packed, 0, packed.length, changeLog.length, commit, digest);
                chunks = List.copyOf(fresh);
                fresh.clear();
                movedRows = List.copyOf(moved);
                moved.clear();
                gone = List.copyOf(emptied);
                emptied.clear();
                pack = packs.number();
                toSync = packs.handOver();
                end = packs.end();
                if (packs.isLarge() || sealNow) {
                    left = packs.next();
                }
                sealNow = false;
            }
            if (left != null) {
                end = seal(left, chunks);
            } else {
                toSync.force(false);
            }
        } catch (IOException e) {
            throw translate(e);
        }
        rows.chunks(chunks);
        rows.pack(pack, end, left != null);
        if (left != null) {
            rows.pack(packs.number(), PackFormat.HEADER, false);
        }
        rows.counters(nextCommit - 1, nextChunk - 1);
        rows.moved(movedRows, gone);
        return new Flushed(chunks, gone);
    }

    /**
     * Ends a pack with its index, what can be read of it, and what the catalogue knows of the rest, and brings it to disk. The
     * next pack may be written to meanwhile.
     *
     * @return the length of the pack, bytes
     */
    private long seal(PackWriter.Left left, List<ChunkPlace> added) throws IOException, SQLException {
        try (FileChannel channel = left.channel();
                PackReader reader = new PackReader(vault)) {
            PackChunks known = PackChunks.of(left.number(), added).and(rows.placesIn(left.number()));
            PackRecords records = PackRecords.of(reader, left.number(), left.end(), known);
            long length = left.seal(records.chunks().and(known), records.count());
            channel.force(false);
            return length;
        }
    }

    /**
     * What one flush brought to disk.
     *
     * @param emptied packs whose files are not needed any longer once the rows are committed
     */
    public record Flushed(List<ChunkPlace> chunks, List<Long> emptied) {}

    /** Tells that the rows of a flush are committed. */
    public synchronized void committed(Flushed flushed) throws IOException {
        for (ChunkPlace c : flushed.chunks()) {
            pending.remove(c.id());
        }
        for (long pack : flushed.emptied()) {
            PackWriter.discard(vault, pack);
        }
        if (!flushed.emptied().isEmpty()) {
            Durable.forceFolder(vault.packs());
        }
    }

    /** Leaves what was appended and not committed where it is, as when somebody else may write here by now. */
    public synchronized void leave() {
        packs.leave();
    }

    @Override
    public void close() throws IOException {
        try {
            if (index != null) {
                cache.giveBack(index);
            }
        } catch (SQLException e) {
            throw new IOException(e);
        } finally {
            packs.close();
        }
    }
}
