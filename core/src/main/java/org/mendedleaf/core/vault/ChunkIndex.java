package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.LongBuffer;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Which chunks are there already, by digest: most of them of a large vault in a {@link ChunkIndexFile}, those that came since in
 * an open-addressed table of eight bytes each. Either knows a part of the digest; it is confirmed in the catalogue. So it may
 * know of chunks that are there no longer, and is kept from one session to the next, which adds what came since.
 *
 * <p>Not safe for several threads; {@link ChunkWriter} guards it.
 */
final class ChunkIndex implements AutoCloseable {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(ChunkIndex.class);

    private static final double FILL = 0.7;

    /** So many chunks are kept in memory before they go into the file, or a part of those that are there. */
    private static final int MEMORY_LEAST = 20_000;

    private static final int MEMORY_PART = 32;

    /** So many go into the file at a time. */
    private static final int BATCH = 1 << 22;

    private final Map<Digest, Long> damaged = new HashMap<>();
    private final Set<Long> damagedIds = new HashSet<>();
    private @Nullable Connection connection;
    private @Nullable PreparedStatement confirm;
    private @Nullable ChunkIndexFile file;
    private long[] keys = new long[1024];
    private int size;
    private long highest;
    private boolean fileTried;

    /**
     * Begins a session: reads the chunks of the catalogue that it does not know yet. A chunk that cannot be read is none that
     * others may refer to. The caller holds the lock of the vault.
     *
     * @param by for reading; it becomes this index's own until {@link #end}
     */
    void begin(Connection by, VaultFolder vault) throws SQLException, IOException {
        connection = by;
        confirm = by.prepareStatement("SELECT hash FROM chunk WHERE id = ?");
        openFile(by, vault);
        noteDamaged(by, vault);
        long more = number(by, "SELECT count(*) FROM chunk WHERE id > " + highest);
        long known = file == null ? 0 : file.count();
        if (size + more > Math.max(MEMORY_LEAST, known / MEMORY_PART) && moveIntoFile(by, vault)) {
            more = number(by, "SELECT count(*) FROM chunk WHERE id > " + highest);
        }
        while (size + more >= keys.length * FILL) {
            grow();
        }
        try (Statement ask = by.createStatement();
                ResultSet rows = newer(ask, highest)) {
            while (rows.next()) {
                highest = rows.getLong(1);
                add(rows.getBytes(2), highest);
            }
        }
    }

    private static ResultSet newer(Statement ask, long than) throws SQLException {
        return ask.executeQuery("SELECT id, hash FROM chunk WHERE id > " + than + " ORDER BY id");
    }

    private static long number(Connection by, String query) throws SQLException {
        try (Statement ask = by.createStatement();
                ResultSet row = ask.executeQuery(query)) {
            row.next();
            return row.getLong(1);
        }
    }

    /** A file that knows more than the catalogue is that of another one, in which ids may be given to others. */
    private void openFile(Connection by, VaultFolder vault) throws SQLException {
        if (fileTried) {
            return;
        }
        fileTried = true;
        try {
            ChunkIndexFile opened = ChunkIndexFile.open(vault).orElse(null);
            if (opened == null) {
                return;
            }
            if (opened.highest() > number(by, "SELECT coalesce(max(value), 0) FROM counter WHERE name = 'chunk'")) {
                opened.close();
                return;
            }
            file = opened;
            highest = opened.highest();
        } catch (IOException e) {
            log.info("the index of chunks is made anew", e);
        }
    }

    private void noteDamaged(Connection by, VaultFolder vault) throws SQLException, IOException {
        damaged.clear();
        damagedIds.clear();
        String gone = String.join(",", new LostPacks(by, vault).numbers());
        try (Statement ask = by.createStatement();
                ResultSet rows = ask.executeQuery("SELECT id, hash FROM chunk WHERE id IN (SELECT chunk FROM damaged)"
                        + (gone.isEmpty() ? "" : " OR pack IN (" + gone + ")"))) {
            while (rows.next()) {
                damaged.put(Digest.of(rows.getBytes(2)), rows.getLong(1));
                damagedIds.add(rows.getLong(1));
            }
        }
    }

    /** What the catalogue has beyond the file goes into it. Where that cannot be written, all stays in memory. */
    private boolean moveIntoFile(Connection by, VaultFolder vault) throws SQLException {
        long from = file == null ? 0 : file.highest();
        long[] batch = new long[(int) Math.min(BATCH, number(by, "SELECT count(*) FROM chunk WHERE id > " + from))];
        int n = 0;
        long last = from;
        try (Statement ask = by.createStatement();
                ResultSet rows = newer(ask, from)) {
            while (rows.next()) {
                last = rows.getLong(1);
                batch[n++] = ChunkIndexFile.key(rows.getBytes(2), last);
                if (n == batch.length) {
                    write(vault, batch, n, last);
                    n = 0;
                }
            }
            if (n > 0) {
                write(vault, batch, n, last);
            }
        } catch (IOException e) {
            log.info("the index of chunks stays in memory", e);
            file = null;
            highest = 0;
            return false;
        }
        keys = new long[1024];
        size = 0;
        highest = last;
        return true;
    }

    private void write(VaultFolder vault, long[] batch, int n, long last) throws IOException {
        Arrays.sort(batch, 0, n);
        file = ChunkIndexFile.merge(vault, file, LongBuffer.wrap(batch, 0, n), last);
    }

    /** Ends a session; what it knows it goes on knowing. */
    void end() throws SQLException {
        if (connection != null) {
            connection.close();
        }
        connection = null;
        confirm = null;
    }

    @Override
    public void close() throws IOException {
        if (file != null) {
            file.close();
        }
    }

    /** How many chunks it has in memory. */
    int size() {
        return size;
    }

    /** The id of a damaged chunk with this digest, which is to be stored anew; 0 when there is none. */
    long damagedWith(byte[] digest) {
        if (damaged.isEmpty()) {
            return 0;
        }
        Long id = damaged.remove(Digest.of(digest));
        if (id == null) {
            return 0;
        }
        damagedIds.remove(id);
        return id;
    }

    /** What is asked about chunks that the catalogue does not know yet. */
    interface Pending {
        /** The chunk with this id, when it waits for its commit. */
        @Nullable
        ChunkPlace get(long id);
    }

    /** The id of the chunk with this digest, or -1. */
    long find(byte[] digest, Pending pending) throws SQLException, IOException {
        long lowest = ChunkIndexFile.lowest(digest);
        int mask = keys.length - 1;
        for (int i = slot(lowest, mask); keys[i] != 0; i = (i + 1) & mask) {
            if (ChunkIndexFile.beginAlike(keys[i], lowest) && isSame(ChunkIndexFile.id(keys[i]), digest, pending)) {
                return ChunkIndexFile.id(keys[i]);
            }
        }
        return file == null ? -1 : findInFile(file, digest, pending);
    }

    private long findInFile(ChunkIndexFile in, byte[] digest, Pending pending) throws SQLException, IOException {
        SQLException[] failed = new SQLException[1];
        long found = in.find(digest, id -> {
            try {
                return isSame(id, digest, pending);
            } catch (SQLException e) {
                failed[0] = e;
                return true;
            }
        });
        if (failed[0] != null) {
            throw failed[0];
        }
        return found;
    }

    private boolean isSame(long id, byte[] digest, Pending pending) throws SQLException {
        ChunkPlace waiting = pending.get(id);
        if (waiting != null) {
            return Arrays.equals(waiting.digest(), digest);
        }
        if (damagedIds.contains(id)) {
            return false;
        }
        PreparedStatement ask = Objects.requireNonNull(confirm, "expected a session");
        ask.setLong(1, id);
        try (ResultSet row = ask.executeQuery()) {
            return row.next() && Arrays.equals(row.getBytes(1), digest);
        }
    }

    /** Notes a chunk. Ids are from 1 to 2^31-1. */
    void add(byte[] digest, long id) {
        if (size >= keys.length * FILL) {
            grow();
        }
        size += insert(ChunkIndexFile.key(digest, id)) ? 1 : 0;
    }

    /** Returns false when it is there already. */
    private boolean insert(long key) {
        int mask = keys.length - 1;
        int i = slot(key, mask);
        while (keys[i] != 0) {
            if (keys[i] == key) {
                return false;
            }
            i = (i + 1) & mask;
        }
        keys[i] = key;
        return true;
    }

    private void grow() {
        long[] old = keys;
        keys = new long[old.length * 2];
        for (long key : old) {
            if (key != 0) {
                insert(key);
            }
        }
    }

    /** By the part of the digest only, so that those that begin alike follow each other. */
    private static int slot(long key, int mask) {
        return (int) (key >>> 31) & mask;
    }
}
