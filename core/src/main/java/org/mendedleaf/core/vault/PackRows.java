package org.mendedleaf.core.vault;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/** What the catalogue says of packs and chunks, on the connection of one write session. */
final class PackRows {

    private static final String LOOKED = "looked-pack-";

    private final Connection connection;

    PackRows(Connection connection) {
        this.connection = connection;
    }

    private interface Row {
        void take(ResultSet row) throws SQLException;
    }

    private void each(String sql, Row taker) throws SQLException {
        try (Statement ask = connection.createStatement();
                ResultSet rows = ask.executeQuery(sql)) {
            while (rows.next()) {
                taker.take(rows);
            }
        }
    }

    private long number(String sql) throws SQLException {
        long[] found = new long[1];
        each(sql, r -> found[0] = r.getLong(1));
        return found[0];
    }

    private void run(String sql, Object... values) throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                statement.setObject(i + 1, values[i]);
            }
            statement.executeUpdate();
        }
    }

    /** All that is needed to decide where to go on. */
    PackOpening.Known known() throws SQLException {
        TreeMap<Long, Long> packs = new TreeMap<>();
        Set<Long> sealed = new HashSet<>();
        each("SELECT id, committed, sealed FROM pack", r -> {
            packs.put(r.getLong(1), r.getLong(2));
            if (r.getInt(3) == 1) {
                sealed.add(r.getLong(1));
            }
        });
        Map<Long, Long> looked = new HashMap<>();
        each(
                "SELECT substr(name, " + (LOOKED.length() + 1) + "), value FROM counter WHERE name LIKE '" + LOOKED
                        + "%'",
                r -> looked.put(r.getLong(1), r.getLong(2)));
        long chunk = Math.max(
                number("SELECT coalesce(max(id), 0) FROM chunk"),
                number("SELECT value FROM counter WHERE name = 'chunk'"));
        return new PackOpening.Known(
                packs, sealed, number("SELECT value FROM counter WHERE name = 'commit'"), chunk, looked);
    }

    /** Notes packs that the catalogue does not know and that hold nothing new. */
    void looked(Map<Long, Long> packs) throws SQLException {
        if (packs.isEmpty()) {
            return;
        }
        run("DELETE FROM counter WHERE name LIKE '" + LOOKED + "%'");
        for (Map.Entry<Long, Long> pack : packs.entrySet()) {
            run("INSERT INTO counter(name, value) VALUES (?,?)", LOOKED + pack.getKey(), pack.getValue());
        }
    }

    /** Packs that were emptied and whose files may still be there. */
    List<Long> emptied() throws SQLException {
        java.util.ArrayList<Long> found = new java.util.ArrayList<>();
        each("SELECT pack FROM emptied", r -> found.add(r.getLong(1)));
        return found;
    }

    void emptiedGone(long pack) throws SQLException {
        run("DELETE FROM emptied WHERE pack = ?", pack);
    }

    /** Where the chunks of a pack lie in it. */
    PackChunks placesIn(long pack) throws VaultException.Damaged {
        PackChunks.Builder found = new PackChunks.Builder(pack);
        asking(() -> each(
                "SELECT id, off, clen, len, hash FROM chunk WHERE pack = " + pack,
                r -> found.add(r.getLong(1), r.getLong(2), r.getInt(3), r.getInt(4), r.getBytes(5))));
        return found.build();
    }

    /** Where a chunk lies; empty when the catalogue does not know it. */
    Optional<ChunkPlace> placeOf(long chunk) throws VaultException.Damaged {
        ChunkPlace[] found = new ChunkPlace[1];
        asking(() ->
                each("SELECT id, hash, pack, off, clen, len FROM chunk WHERE id = " + chunk, r -> found[0] = place(r)));
        return Optional.ofNullable(found[0]);
    }

    private static ChunkPlace place(ResultSet r) throws SQLException {
        return new ChunkPlace(r.getLong(1), r.getLong(3), r.getLong(4), r.getInt(5), r.getInt(6), r.getBytes(2));
    }

    /** Bytes of a pack that are committed; 0 for one that is not known. */
    long committed(long pack) throws VaultException.Damaged {
        long[] found = new long[1];
        asking(() -> found[0] = number("SELECT committed FROM pack WHERE id = " + pack));
        return found[0];
    }

    private interface Question {
        void ask() throws SQLException;
    }

    private static void asking(Question question) throws VaultException.Damaged {
        try {
            question.ask();
        } catch (SQLException e) {
            throw new VaultException.Damaged(VaultException.said(e), e);
        }
    }

    /** Puts chunks down, new ones and such as were stored anew. */
    void chunks(List<ChunkPlace> places) throws SQLException {
        try (PreparedStatement insert = connection.prepareStatement(
                        "INSERT OR REPLACE INTO chunk(id, hash, pack, off, clen, len) VALUES (?,?,?,?,?,?)");
                PreparedStatement whole = connection.prepareStatement("DELETE FROM damaged WHERE chunk = ?")) {
            for (ChunkPlace c : places) {
                insert.setLong(1, c.id());
                insert.setBytes(2, c.digest());
                insert.setLong(3, c.pack());
                insert.setLong(4, c.offset());
                insert.setInt(5, c.storedBytes());
                insert.setInt(6, c.length());
                insert.executeUpdate();
            }
            if (number("SELECT count(*) FROM damaged") > 0) {
                for (ChunkPlace c : places) {
                    whole.setLong(1, c.id());
                    whole.executeUpdate();
                }
            }
        }
    }

    /** Puts a pack down. */
    void pack(long pack, long end, boolean sealed) throws SQLException {
        run("INSERT OR REPLACE INTO pack(id, sealed, committed) VALUES (?,?,?)", pack, sealed ? 1 : 0, end);
    }

    /** Notes the last commit, and the highest id of a chunk that was ever given. */
    void counters(long commit, long chunk) throws SQLException {
        run("INSERT OR REPLACE INTO counter(name, value) VALUES ('commit', ?)", commit);
        run("INSERT OR REPLACE INTO counter(name, value) VALUES ('chunk', ?)", chunk);
    }

    /** Notes where chunks went, and forgets the packs in which they were, with the chunks that nothing needs. */
    void moved(List<ChunkPlace> places, List<Long> emptied) throws SQLException {
        for (ChunkPlace c : places) {
            run("UPDATE chunk SET pack = ?, off = ? WHERE id = ?", c.pack(), c.offset(), c.id());
        }
        for (long pack : emptied) {
            run("DELETE FROM damaged WHERE chunk IN (SELECT id FROM chunk WHERE pack = ?)", pack);
            run("DELETE FROM chunk WHERE pack = ?", pack);
            run("DELETE FROM pack WHERE id = ?", pack);
            run("INSERT OR REPLACE INTO emptied(pack) VALUES (?)", pack);
        }
    }
}
