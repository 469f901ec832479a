package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.NavigableMap;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.PackChunks;

/** What a catalogue says of packs and chunks, as it is made from the packs themselves. */
public final class PackTables {

    private final Sql sql;

    public PackTables(Sql sql) {
        this.sql = sql;
    }

    /** A chunk that is sound. */
    public void chunk(ChunkPlace place) throws IOException {
        put("INSERT OR REPLACE", place);
        sql.run("DELETE FROM damaged WHERE chunk = ?", place.id());
    }

    /** A chunk that is not sound where it is; one that was found before, or is found later, is. */
    public void lost(ChunkPlace place) throws IOException {
        put("INSERT OR IGNORE", place);
    }

    private void put(String how, ChunkPlace c) throws IOException {
        sql.run(
                how + " INTO chunk(id, hash, pack, off, clen, len) VALUES (?,?,?,?,?,?)",
                c.id(),
                c.digest(),
                c.pack(),
                c.offset(),
                c.storedBytes(),
                c.length());
    }

    public void pack(long number, long end, boolean sealed) throws IOException {
        sql.run("INSERT OR REPLACE INTO pack(id, sealed, committed) VALUES (?,?,?)", number, sealed ? 1 : 0, end);
    }

    /** Forgets a pack with all that is still said to be in it. */
    void forget(long number) throws IOException {
        sql.run("DELETE FROM damaged WHERE chunk IN (SELECT id FROM chunk WHERE pack = ?)", number);
        sql.run("DELETE FROM chunk WHERE pack = ?", number);
        sql.run("DELETE FROM pack WHERE id = ?", number);
    }

    /** The packs, by number. */
    public NavigableMap<Long, VaultCopy.Pack> packs() throws IOException {
        TreeMap<Long, VaultCopy.Pack> packs = new TreeMap<>();
        sql.list(
                "SELECT id, committed, sealed FROM pack",
                r -> packs.put(r.getLong(1), new VaultCopy.Pack(r.getLong(2), r.getInt(3) == 1)));
        return packs;
    }

    /** Numbers of the packs. */
    Set<Long> numbers() throws IOException {
        return new TreeSet<>(sql.list("SELECT id FROM pack", r -> r.getLong(1)));
    }

    long commit() throws IOException {
        return sql.number("SELECT value FROM counter WHERE name = 'commit'");
    }

    /** Notes what is kept beside the rows, once all of them are in. */
    public void end(long lastCommit) throws IOException {
        sql.run("INSERT OR REPLACE INTO counter(name, value) VALUES ('commit', ?)", lastCommit);
        sql.run("INSERT OR REPLACE INTO counter(name, value) SELECT 'chunk', coalesce(max(id), 0) FROM chunk");
        sql.run(
                "INSERT OR REPLACE INTO counter(name, value) SELECT ?, max(coalesce(max(valid_from), 0),"
                        + " coalesce(max(nullif(valid_to, ?)), 0)) FROM span",
                Present.HIGHEST,
                Moment.OPEN);
        UnfoldQueue.beginAnew(sql);
    }

    /** Where the chunks of one pack lie in it. */
    public static PackChunks places(Sql sql, long pack) throws IOException {
        PackChunks.Builder found = new PackChunks.Builder(pack);
        sql.each(
                "SELECT id, off, clen, len, hash FROM chunk WHERE pack = ?",
                r -> found.add(r.getLong(1), r.getLong(2), r.getInt(3), r.getInt(4), r.getBytes(5)),
                pack);
        return found.build();
    }

    /** A chunk by its row: id, hash, pack, offset, stored bytes, length. */
    public static ChunkPlace place(ResultSet r) throws SQLException {
        return new ChunkPlace(r.getLong(1), r.getLong(3), r.getLong(4), r.getInt(5), r.getInt(6), r.getBytes(2));
    }
}
