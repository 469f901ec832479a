package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;

/**
 * The incoming side of the vault during one write session: finds or adds chunks, and brings what was added to disk in
 * the order that a crash cannot hurt: records, sync, then the rows.
 *
 * <p>{@link #find} and {@link #add} are safe for several threads; the others belong to the one that commits.
 */
public final class ChunkWriter implements AutoCloseable {

    /**
     * So much is inflated, and proved, in one session. Documents that come after are stored as they are, and unfolded when
     * they are saved the next time: taking in a great many at once would take several times as long. Bytes.
     */
    static final long UNFOLD_MOST = 64L << 20;

    private final VaultFolder vault;
    private final Connection writing;
    private final Supplier<Connection> reading;
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
    private final AtomicLong inflated = new AtomicLong();

    /**
     * Opens the newest pack for more. The caller holds the lock of the vault.
     *
     * @param writing the connection on which the rows of a commit are written
     * @param reading gives a connection for looking up chunks, when one is first needed
     */
    public ChunkWriter(VaultFolder vault, ChannelOpener opener, Connection writing, Supplier<Connection> reading)
            throws IOException, SQLException {
        this(vault, opener, writing, reading, PackWriter.SEAL_AT);
    }

    ChunkWriter(VaultFolder vault, ChannelOpener opener, Connection writing, Supplier<Connection> reading, long sealAt)
            throws IOException, SQLException {
        this.vault = vault;
        this.writing = writing;
        this.reading = reading;
        nextChunk = 1 + number("SELECT coalesce(max(id), 0) FROM chunk");
        nextCommit = 1 + number("SELECT value FROM counter WHERE name = 'commit'");
        long newest = number("SELECT coalesce(max(id), 0) FROM pack");
        long committed = 0;
        if (newest == 0) {
            newest = 1;
        } else {
            committed = number("SELECT committed FROM pack WHERE id = " + newest);
            if (number("SELECT sealed FROM pack WHERE id = " + newest) == 1) {
                newest++;
                committed = 0;
            }
        }
        new PackTail(vault).cutBack(newest, committed, nextCommit - 1, known());
        packs = new PackWriter(vault, opener, newest, committed, sealAt);
    }

    private long number(String sql) throws SQLException {
        try (ResultSet row = writing.createStatement().executeQuery(sql)) {
            return row.next() ? row.getLong(1) : 0;
        }
    }

    private Set<Long> known() throws SQLException {
        Set<Long> all = new HashSet<>();
        try (ResultSet rows = writing.createStatement().executeQuery("SELECT id FROM pack")) {
            while (rows.next()) {
                all.add(rows.getLong(1));
            }
        }
        return all;
    }

    /** The id of the chunk with this digest, or -1 when it is not in the vault. */
    synchronized long find(byte[] digest) throws IOException {
        try {
            if (index == null) {
                index = new ChunkIndex(reading.get());
            }
            return index.find(digest, pending::get);
        } catch (SQLException e) {
            throw new VaultException.Damaged(Words.of("catalogue.damaged", vault.root(), e.getMessage()), e);
        }
    }

    /** Whether another document may be unfolded in this session. */
    boolean mayUnfold() {
        return inflated.get() < UNFOLD_MOST;
    }

    /** Notes how much was inflated for a document. */
    void unfolded(long bytes) {
        inflated.addAndGet(bytes);
    }

    /** Adds a chunk, unless another thread just did. */
    synchronized long add(byte[] digest, byte encoding, byte[] stored, int from, int storedBytes, int length)
            throws IOException {
        long there = find(digest);
        if (there >= 0) {
            return there;
        }
        long id = nextChunk++;
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
     * Copies what is still needed of a sealed pack to the end of the newest one: chunks under their ids, and all commit
     * records, since {@link PackReplay} needs them. With the next commit the catalogue knows the new places, forgets the
     * other chunks of the pack, and its file is deleted. A chunk whose record is damaged stays where it is, and so does
     * its pack.
     *
     * @throws VaultException.Damaged when a needed record cannot be read; nothing has changed then
     */
    public void empty(long pack, Needed needed) throws IOException {
        try (PackReader reader = new PackReader(vault)) {
            long end = reader.size(pack) - PackFormat.TRAILER;
            long at = PackFormat.HEADER;
            while (at < end) {
                PackRecord head = reader.readHead(pack, at);
                boolean chunk = head.type() == PackFormat.CHUNK && needed.is(head.id());
                if (chunk || head.type() == PackFormat.COMMIT) {
                    byte[] record = reader.readRecord(pack, head);
                    long from = at;
                    synchronized (this) {
                        long offset = writing(() -> packs.append(
                                head.type(),
                                record[1],
                                record,
                                PackFormat.RECORD_HEAD,
                                head.storedBytes(),
                                head.length(),
                                head.id(),
                                head.digest()));
                        if (chunk && from == placeOf(pack, head.id())) {
                            moved.add(new ChunkPlace(
                                    head.id(),
                                    packs.number(),
                                    offset,
                                    head.storedBytes(),
                                    head.length(),
                                    head.digest()));
                        }
                    }
                }
                at = head.end();
            }
        }
        synchronized (this) {
            emptied.add(pack);
        }
    }

    /** Where the catalogue has a chunk in this pack; -1 when it has it elsewhere, or nowhere. */
    private long placeOf(long pack, long chunk) throws IOException {
        try (PreparedStatement ask = writing.prepareStatement("SELECT off FROM chunk WHERE id = ? AND pack = ?")) {
            ask.setLong(1, chunk);
            ask.setLong(2, pack);
            try (ResultSet row = ask.executeQuery()) {
                return row.next() ? row.getLong(1) : -1;
            }
        } catch (SQLException e) {
            throw new VaultException.Damaged(Words.of("catalogue.damaged", vault.root(), e.getMessage()), e);
        }
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
        List<ChunkPlace> rows;
        List<ChunkPlace> movedRows;
        List<Long> gone;
        long pack;
        long end;
        boolean sealed;
        FileChannel toSync;
        byte[] packed = com.github.luben.zstd.Zstd.compress(changeLog);
        byte[] digest = Digest.sha256().digest(changeLog);
        try {
            synchronized (this) {
                long commit = nextCommit++;
                packs.append(
                        PackFormat.COMMIT, PackFormat.ZSTD, packed, 0, packed.length, changeLog.length, commit, digest);
                rows = List.copyOf(fresh);
                fresh.clear();
                movedRows = List.copyOf(moved);
                moved.clear();
                gone = List.copyOf(emptied);
                emptied.clear();
                pack = packs.number();
                sealed = packs.isLarge() || sealNow;
                sealNow = false;
                toSync = packs.handOver();
                if (sealed) {
                    PackTail.Contents contents = new PackTail(vault).chunksOf(pack, packs.end());
                    toSync = packs.seal(contents.chunks(), contents.records());
                }
                end = packs.end();
                if (sealed) {
                    packs.next();
                }
            }
            toSync.force(false);
            if (sealed) {
                toSync.close();
            }
        } catch (IOException e) {
            throw translate(e);
        }
        writeRows(rows, pack, end, sealed);
        moveRows(movedRows, gone);
        return new Flushed(rows, gone);
    }

    /**
     * What one flush brought to disk.
     *
     * @param emptied packs whose files are not needed any longer once the rows are committed
     */
    public record Flushed(List<ChunkPlace> chunks, List<Long> emptied) {}

    private void moveRows(List<ChunkPlace> movedRows, List<Long> gone) throws SQLException {
        if (gone.isEmpty()) {
            return;
        }
        try (PreparedStatement move = writing.prepareStatement("UPDATE chunk SET pack = ?, off = ? WHERE id = ?");
                PreparedStatement chunks = writing.prepareStatement("DELETE FROM chunk WHERE pack = ?");
                PreparedStatement packRow = writing.prepareStatement("DELETE FROM pack WHERE id = ?")) {
            for (ChunkPlace c : movedRows) {
                move.setLong(1, c.pack());
                move.setLong(2, c.offset());
                move.setLong(3, c.id());
                move.executeUpdate();
            }
            for (long pack : gone) {
                chunks.setLong(1, pack);
                chunks.executeUpdate();
                packRow.setLong(1, pack);
                packRow.executeUpdate();
            }
        }
    }

    private void writeRows(List<ChunkPlace> rows, long pack, long end, boolean sealed) throws SQLException {
        try (PreparedStatement insert =
                writing.prepareStatement("INSERT INTO chunk(id, hash, pack, off, clen, len) VALUES (?,?,?,?,?,?)")) {
            for (ChunkPlace c : rows) {
                insert.setLong(1, c.id());
                insert.setBytes(2, c.digest());
                insert.setLong(3, c.pack());
                insert.setLong(4, c.offset());
                insert.setInt(5, c.storedBytes());
                insert.setInt(6, c.length());
                insert.executeUpdate();
            }
        }
        putPack(pack, end, sealed);
        if (sealed) {
            putPack(packs.number(), PackFormat.HEADER, false);
        }
        try (PreparedStatement count = writing.prepareStatement("UPDATE counter SET value = ? WHERE name = 'commit'")) {
            count.setLong(1, nextCommit - 1);
            count.executeUpdate();
        }
    }

    private void putPack(long pack, long end, boolean sealed) throws SQLException {
        try (PreparedStatement put =
                writing.prepareStatement("INSERT OR REPLACE INTO pack(id, sealed, committed) VALUES (?,?,?)")) {
            put.setLong(1, pack);
            put.setInt(2, sealed ? 1 : 0);
            put.setLong(3, end);
            put.executeUpdate();
        }
    }

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

    @Override
    public void close() throws IOException {
        try {
            if (index != null) {
                index.close();
            }
        } catch (SQLException e) {
            throw new IOException(e);
        } finally {
            packs.close();
        }
    }
}
