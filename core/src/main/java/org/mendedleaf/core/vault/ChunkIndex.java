package org.mendedleaf.core.vault;

import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Which chunks are there already, by digest: an open-addressed table of 8 digest bytes and an id each, about 17 bytes a
 * chunk of memory at the usual filling, confirmed on the full digest in the catalogue.
 *
 * <p>Not safe for several threads; {@link ChunkWriter} guards it.
 */
final class ChunkIndex implements AutoCloseable {

    private static final double FILL = 0.7;

    private final Connection connection;
    private final PreparedStatement confirm;
    private final Map<Digest, Long> damaged = new HashMap<>();
    private long[] prefixes;
    private int[] ids;
    private int size;

    /**
     * Reads all chunks of the catalogue; {@code connection} is for reading, and becomes this index's own. A chunk that
     * cannot be read is none that others may refer to.
     */
    ChunkIndex(Connection connection, VaultFolder vault) throws SQLException, IOException {
        this.connection = connection;
        try (ResultSet count = connection.createStatement().executeQuery("SELECT count(*) FROM chunk")) {
            count.next();
            int capacity = Integer.highestOneBit((int) Math.max(1024, count.getLong(1) / FILL)) * 2;
            prefixes = new long[capacity];
            ids = new int[capacity];
        }
        String gone = String.join(",", new LostPacks(connection, vault).numbers());
        try (ResultSet rows = connection
                .createStatement()
                .executeQuery("SELECT id, hash FROM chunk WHERE id IN (SELECT chunk FROM damaged)"
                        + (gone.isEmpty() ? "" : " OR pack IN (" + gone + ")"))) {
            while (rows.next()) {
                damaged.put(Digest.of(rows.getBytes(2)), rows.getLong(1));
            }
        }
        try (ResultSet rows = connection.createStatement().executeQuery("SELECT id, hash FROM chunk ORDER BY id")) {
            while (rows.next()) {
                byte[] digest = rows.getBytes(2);
                if (damaged.isEmpty() || !Long.valueOf(rows.getLong(1)).equals(damaged.get(Digest.of(digest)))) {
                    add(digest, rows.getLong(1));
                }
            }
        }
        confirm = connection.prepareStatement("SELECT hash, pack, off, clen, len FROM chunk WHERE id = ?");
    }

    /** The id of a damaged chunk with this digest, which is to be stored anew; 0 when there is none. */
    long damagedWith(byte[] digest) {
        if (damaged.isEmpty()) {
            return 0;
        }
        Long id = damaged.remove(Digest.of(digest));
        return id == null ? 0 : id;
    }

    /** What is asked about chunks that the catalogue does not know yet. */
    interface Pending {
        /** The chunk with this id, when it waits for its commit. */
        @Nullable
        ChunkPlace get(long id);
    }

    /** The id of the chunk with this digest, or -1. */
    long find(byte[] digest, Pending pending) throws SQLException {
        long prefix = prefix(digest);
        int mask = prefixes.length - 1;
        for (int i = slot(prefix, mask); ids[i] != 0; i = (i + 1) & mask) {
            if (prefixes[i] == prefix && isSame(ids[i], digest, pending)) {
                return ids[i];
            }
        }
        return -1;
    }

    private boolean isSame(long id, byte[] digest, Pending pending) throws SQLException {
        ChunkPlace waiting = pending.get(id);
        if (waiting != null) {
            return Arrays.equals(waiting.digest(), digest);
        }
        confirm.setLong(1, id);
        try (ResultSet row = confirm.executeQuery()) {
            return row.next() && Arrays.equals(row.getBytes(1), digest);
        }
    }

    /** Notes a chunk. Ids are from 1 to 2^31-1. */
    void add(byte[] digest, long id) {
        if (size >= prefixes.length * FILL) {
            grow();
        }
        insert(prefix(digest), Math.toIntExact(id));
        size++;
    }

    private void insert(long prefix, int id) {
        int mask = prefixes.length - 1;
        int i = slot(prefix, mask);
        while (ids[i] != 0) {
            i = (i + 1) & mask;
        }
        prefixes[i] = prefix;
        ids[i] = id;
    }

    private void grow() {
        long[] oldPrefixes = prefixes;
        int[] oldIds = ids;
        prefixes = new long[oldPrefixes.length * 2];
        ids = new int[prefixes.length];
        for (int i = 0; i < oldIds.length; i++) {
            if (oldIds[i] != 0) {
                insert(oldPrefixes[i], oldIds[i]);
            }
        }
    }

    private static int slot(long prefix, int mask) {
        return (int) (prefix ^ (prefix >>> 32)) & mask;
    }

    private static long prefix(byte[] digest) {
        long value = 0;
        for (int i = 0; i < 8; i++) {
            value = (value << 8) | (digest[i] & 0xff);
        }
        return value;
    }

    @Override
    public void close() throws SQLException {
        connection.close();
    }
}
