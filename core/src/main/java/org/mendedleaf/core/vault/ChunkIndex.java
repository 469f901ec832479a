package org.mendedleaf.core.vault;

import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Which chunks are there already, by digest: an open-addressed table of 8 digest bytes and an id each, about 17 bytes a
 * chunk of memory at the usual filling, confirmed on the full digest in the catalogue. So it may know of chunks that are there
 * no longer, and is kept from one session to the next, which adds what came since.
 *
 * <p>Not safe for several threads; {@link ChunkWriter} guards it.
 */
final class ChunkIndex {

    private static final double FILL = 0.7;

    private final Map<Digest, Long> damaged = new HashMap<>();
    private final Set<Long> damagedIds = new HashSet<>();
    private @Nullable Connection connection;
    private @Nullable PreparedStatement confirm;
    private long[] prefixes = new long[1024];
    private int[] ids = new int[1024];
    private int size;
    private long highest;

    /**
     * Begins a session: reads the chunks of the catalogue that it does not know yet. A chunk that cannot be read is none that
     * others may refer to.
     *
     * @param by for reading; it becomes this index's own until {@link #end}
     */
    void begin(Connection by, VaultFolder vault) throws SQLException, IOException {
        connection = by;
        try (ResultSet count = by.createStatement().executeQuery("SELECT count(*) FROM chunk WHERE id > " + highest)) {
            count.next();
            while (size + count.getLong(1) >= prefixes.length * FILL) {
                grow();
            }
        }
        damaged.clear();
        damagedIds.clear();
        String gone = String.join(",", new LostPacks(by, vault).numbers());
        try (ResultSet rows = by.createStatement()
                .executeQuery("SELECT id, hash FROM chunk WHERE id IN (SELECT chunk FROM damaged)"
                        + (gone.isEmpty() ? "" : " OR pack IN (" + gone + ")"))) {
            while (rows.next()) {
                damaged.put(Digest.of(rows.getBytes(2)), rows.getLong(1));
                damagedIds.add(rows.getLong(1));
            }
        }
        try (ResultSet rows = by.createStatement()
                .executeQuery("SELECT id, hash FROM chunk WHERE id > " + highest + " ORDER BY id")) {
            while (rows.next()) {
                highest = rows.getLong(1);
                add(rows.getBytes(2), highest);
            }
        }
        confirm = by.prepareStatement("SELECT hash FROM chunk WHERE id = ?");
    }

    /** Ends a session; what it knows it goes on knowing. */
    void end() throws SQLException {
        if (connection != null) {
            connection.close();
        }
        connection = null;
        confirm = null;
    }

    /** How many chunks it knows. */
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
        if (size >= prefixes.length * FILL) {
            grow();
        }
        size += insert(prefix(digest), Math.toIntExact(id)) ? 1 : 0;
    }

    /** Returns false when it is there already. */
    private boolean insert(long prefix, int id) {
        int mask = prefixes.length - 1;
        int i = slot(prefix, mask);
        while (ids[i] != 0) {
            if (ids[i] == id && prefixes[i] == prefix) {
                return false;
            }
            i = (i + 1) & mask;
        }
        prefixes[i] = prefix;
        ids[i] = id;
        return true;
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
}
