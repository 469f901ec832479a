package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.ChannelOpener;
import org.mendedleaf.core.vault.ChunkIndexCache;
import org.mendedleaf.core.vault.ChunkWriter;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.vault.VaultLock;
import org.mendedleaf.core.words.Words;

/**
 * The right and the means to change a vault, for a while: its lock, a transaction on the catalogue, and the incoming
 * side of the packs.
 *
 * <p>What {@link #apply} was given counts once {@link #commit} has returned; before that a crash, or {@link #close},
 * leaves the vault as it was after the commit before. After a failed commit nothing more can be done in this session.
 *
 * <p>One thread at a time, but for {@link #chunks()}.
 *
 * <pre>{@code
 * try (WriteSession session = vault.write()) {
 *     SnapshotStore.put(session, snapshot);
 *     session.commit();
 * }
 * }</pre>
 */
public final class WriteSession implements AutoCloseable {

    /** Counts the commits in which something was let go, taken back, or went. */
    static final String LET_GO = "let-go";

    private static final long HOUR_MICROS = 3_600_000_000L;

    private final VaultFolder vault;
    private final VaultLock lock;
    private final Sql sql;
    private final IdleWriter writer;
    private final ChunkWriter chunks;
    private final ChangeLog log = new ChangeLog();
    private final ListingPacker packed;
    private final RecentChanges.Noting recent;
    private final JournalEnds.Keeper ends = new JournalEnds.Keeper();
    private final Map<Table, Long> next = new HashMap<>();
    private final Map<Long, Map<Long, Integer>> changes = new HashMap<>();
    private long highest;
    private boolean letsGo;
    private boolean broken;

    private WriteSession(VaultFolder vault, VaultLock lock, Sql sql, IdleWriter writer, ChunkWriter chunks) {
        this.vault = vault;
        this.lock = lock;
        this.sql = sql;
        this.writer = writer;
        this.chunks = chunks;
        this.packed = new ListingPacker(sql);
        this.recent = new RecentChanges.Noting(sql);
    }

    /**
     * Opens a session.
     *
     * @param holder who writes, as a message, for the message that others get meanwhile
     * @param patience how long to wait for another session to end
     * @param cache keeps the index of chunks for the next session
     * @param writer keeps the connection for the next session
     * @throws org.mendedleaf.core.vault.VaultException.Busy when it did not
     */
    static WriteSession open(
            VaultFolder vault,
            String holder,
            Duration patience,
            ChannelOpener opener,
            ChunkIndexCache cache,
            IdleWriter writer)
            throws IOException {
        if (vault.isCopy()) {
            throw new VaultException.Unavailable(Words.of("vault.isCopy", vault.root()));
        }
        VaultLock lock = VaultLock.take(vault, holder, patience);
        Sql sql = null;
        try {
            Sql taken = writer.take();
            sql = taken;
            Connection connection = taken.connection();
            ChunkWriter chunks =
                    new ChunkWriter(vault, opener, connection, () -> lookup(vault), cache, (commit, changeLog) -> {
                        ChangeLog.read(changeLog, (op, values) -> taken.run(op.sql(), values));
                        taken.run("INSERT INTO counter VALUES ('" + LET_GO
                                + "', 1) ON CONFLICT (name) DO UPDATE SET value = value + 1");
                    });
            connection.commit();
            WriteSession session = new WriteSession(vault, lock, taken, writer, chunks);
            HeldLines.catchUp(session);
            return session;
        } catch (SQLException e) {
            closeQuietly(sql, lock);
            throw Catalogue.translate(vault, e);
        } catch (IOException | RuntimeException e) {
            closeQuietly(sql, lock);
            throw e;
        }
    }

    private static Connection lookup(VaultFolder vault) {
        try {
            return Catalogue.openForReading(vault);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void closeQuietly(@Nullable Sql sql, VaultLock lock) throws IOException {
        try {
            if (sql != null) {
                sql.close();
            }
        } finally {
            lock.close();
        }
    }

    /** Tables whose rows are numbered. */
    enum Table {
        PLACE,
        FOLDER,
        NODE,
        LINE,
        EVENT,
        CAPTURE,
        JOURNAL,
        CUT,
        SNAPSHOT,
        SCHEDULE,
        COMMENT,
        FINDING,
        RULESET,
        HOLD,
        FINE,
        VAULT_COPY,
        SETTING_CHANGE;

        private String sql() {
            return "SELECT coalesce(max(id), 0) FROM " + name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    /** The vault that is written. */
    public VaultFolder vault() {
        return vault;
    }

    /** The number of the last commit, of whichever session. */
    public long lastCommit() throws IOException {
        return new PackTables(sql).commit();
    }

    /** All places of the vault. */
    public List<Place> places() throws IOException {
        return new PlaceQuery(sql).all();
    }

    /** A number that is kept beside the rows, for speed only; 0 before it was set. */
    public long note(String name) throws IOException {
        return sql.number("SELECT value FROM counter WHERE name = ?", name);
    }

    /** Sets what {@link #note(String)} gives. Not logged: lost with the catalogue. */
    public void note(String name, long value) throws IOException {
        sql.run("INSERT OR REPLACE INTO counter(name, value) VALUES (?,?)", name, value);
    }

    /** Queries that see what was applied. */
    public Sql sql() {
        return sql;
    }

    /** How the actions end that this session notes. */
    JournalEnds.Keeper ends() {
        return ends;
    }

    /** Where contents go in. */
    public ChunkWriter chunks() {
        return chunks;
    }

    /**
     * A content as it is stored now. Between the moment at which somebody looked how it is stored and the one at which a version
     * with it is written, it may have been unfolded, and its chunks given up.
     *
     * @throws VaultException.Damaged when its chunks are not in the vault any more
     */
    StoredContent standing(StoredContent content) throws IOException {
        if (isThere(content.recipe())) {
            return content;
        }
        List<Recipe> others = sql.list(
                "SELECT recipe FROM version WHERE " + ContentQuery.DIGEST,
                r -> Recipe.decode(r.getBytes(1)),
                content.digest().bytes());
        for (Recipe other : others) {
            if (!other.isElsewhere() && isThere(other)) {
                return new StoredContent(other, content.length(), content.digest(), content.sha256());
            }
        }
        throw new VaultException.Damaged(Words.of("vault.content.gone"));
    }

    private boolean isThere(Recipe recipe) throws IOException {
        if (recipe.isElsewhere()) {
            return true;
        }
        for (Recipe.Run run : recipe.runs()) {
            long end = run.first() + run.count();
            for (long id = run.first(); id < end; id++) {
                if (chunks.pending(id) != null) {
                    continue;
                }
                long from = id;
                while (id + 1 < end && chunks.pending(id + 1) == null) {
                    id++;
                }
                if (sql.number("SELECT count(*) FROM chunk WHERE id BETWEEN ? AND ?", from, id) < id + 1 - from) {
                    return false;
                }
            }
        }
        return true;
    }

    /** The next free id. */
    long nextId(Table table) throws IOException {
        Long known = next.get(table);
        long id = 1 + (known == null ? sql.number(table.sql()) : known);
        next.put(table, id);
        return id;
    }

    /** Changes the catalogue, and remembers the change for the commit record. */
    public void apply(Op op, @Nullable Object... values) throws IOException {
        packed.before(op, values);
        ends.before(op, values);
        recent.before(op, values);
        switch (op) {
            case SPAN -> seen(values[3]);
            case SPAN_ENDS -> seen(values[0]);
            case LET_GO, LET_GO_BACK, LET_GO_ONE_BACK, LET_GO_DUE, LET_GO_OF_DUE, LET_GO_GONE -> letsGo = true;
            default -> {
                // Nothing begins or ends by it.
            }
        }
        sql.run(op.sql(), values);
        log.add(op, values);
    }

    private void seen(@Nullable Object moment) {
        highest = moment instanceof Number n ? Math.max(highest, n.longValue()) : highest;
    }

    /** Changes a table that is not logged: it is kept for speed and can be made again. */
    public void applyUnlogged(String statement, @Nullable Object... values) throws IOException {
        sql.run(statement, values);
    }

    /** Counts a change for the time ruler. */
    void countChange(long place, Instant at) {
        changes.computeIfAbsent(place, p -> new HashMap<>())
                .merge(Math.floorDiv(Moment.micros(at), HOUR_MICROS), 1, Integer::sum);
    }

    /** Brings everything so far to disk; when this returns, it is acknowledged. */
    public void commit() throws IOException {
        if (broken) {
            throw new IllegalStateException("expected a session whose commits went well");
        }
        broken = true;
        for (Map.Entry<Long, Map<Long, Integer>> place : changes.entrySet()) {
            for (Map.Entry<Long, Integer> hour : place.getValue().entrySet()) {
                apply(Op.DENSITY, place.getKey(), hour.getKey(), hour.getValue());
            }
        }
        changes.clear();
        ends.note(this);
        if (letsGo) {
            note(LET_GO, note(LET_GO) + 1);
            letsGo = false;
        }
        if (highest > note(Present.HIGHEST)) {
            note(Present.HIGHEST, highest);
        }
        packed.pack();
        lock.require(vault);
        try {
            ChunkWriter.@Nullable Flushed flushed = null;
            if (!log.isEmpty() || chunks.hasFresh()) {
                flushed = chunks.flush(log.drain());
                recent.write(lastCommit());
                lock.require(vault);
            }
            sql.connection().commit();
            if (flushed != null) {
                chunks.committed(flushed);
            }
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
        broken = false;
    }

    @Override
    public void close() throws IOException {
        boolean isSound = !broken;
        try {
            if (!sql.connection().getAutoCommit()) {
                sql.connection().rollback();
            }
        } catch (SQLException e) {
            isSound = false;
            org.slf4j.LoggerFactory.getLogger(WriteSession.class).debug("rolling back", e);
        }
        try {
            lock.require(vault);
        } catch (IOException e) {
            isSound = false;
            chunks.leave();
        }
        try {
            chunks.close();
        } catch (IOException | RuntimeException e) {
            isSound = false;
            throw e;
        } finally {
            if (isSound) {
                writer.giveBack(sql);
                lock.close();
            } else {
                closeQuietly(sql, lock);
            }
        }
    }
}
