package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.PackChunks;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;

/**
 * The catalogue of a copy, kept in step by replaying the change logs of the commits that the copy has got since: only what is
 * new is written. All of a run is one transaction, so that a kill leaves the copy as it was in step before.
 */
public final class CopyCatalogue implements AutoCloseable {

    private final VaultFolder copy;
    private final Sql sql;
    private final PackTables tables;
    private boolean closed;

    private CopyCatalogue(VaultFolder copy, Sql sql) {
        this.copy = copy;
        this.sql = sql;
        this.tables = new PackTables(sql);
    }

    /**
     * Opens the catalogue of a copy, made empty where there is none. Nobody else may write to the copy meanwhile.
     *
     * @throws VaultException.Damaged when it cannot be read
     */
    public static CopyCatalogue open(VaultFolder copy) throws IOException {
        if (!Files.exists(copy.catalogue())) {
            begin(copy);
        }
        var connection = Catalogue.openForWriting(copy);
        try {
            connection.setAutoCommit(false);
        } catch (SQLException e) {
            throw Catalogue.translate(copy, e);
        }
        return new CopyCatalogue(copy, new Sql(copy, connection));
    }

    /** Makes an empty catalogue; one that is there is taken away: with the next run the packs give all of it again. */
    public static void begin(VaultFolder copy) throws IOException {
        Catalogue.make(copy, fresh(copy));
        putInPlace(copy);
    }

    private static Path fresh(VaultFolder copy) {
        return copy.root().resolve("catalogue.new");
    }

    /**
     * Writes the catalogue of a vault as it is now beside that of a copy, until {@link #putInPlace}.
     *
     * @return what it knows
     */
    public static VaultCopy.Extent takeFrom(Reading vault, VaultFolder copy) throws IOException {
        Path fresh = fresh(copy);
        for (String ending : new String[] {"", "-wal", "-shm", "-journal"}) {
            Files.deleteIfExists(Path.of(fresh + ending));
        }
        vault.sql().whole(fresh);
        copy.access().tighten(fresh);
        try (Connection connection = SqliteDriver.connect("jdbc:sqlite:" + fresh.toUri());
                Sql sql = new Sql(copy, connection)) {
            PackTables tables = new PackTables(sql);
            return new VaultCopy.Extent(tables.packs(), tables.commit());
        } catch (SQLException e) {
            throw Catalogue.translate(copy, e);
        }
    }

    /** Has what was written beside it take the place of the catalogue of a copy. */
    public static void putInPlace(VaultFolder copy) throws IOException {
        for (String ending : new String[] {"-wal", "-shm"}) {
            Files.deleteIfExists(Path.of(copy.catalogue() + ending));
        }
        Files.move(
                fresh(copy),
                copy.catalogue(),
                java.nio.file.StandardCopyOption.ATOMIC_MOVE,
                java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    }

    /** What the copy has. */
    public VaultCopy.Extent extent() throws IOException {
        return new VaultCopy.Extent(tables.packs(), tables.commit());
    }

    /** A chunk that is sound in the copy. */
    public void chunk(ChunkPlace place) throws IOException {
        tables.chunk(place);
    }

    /** A chunk that is not sound where it is. */
    public void lost(ChunkPlace place) throws IOException {
        tables.lost(place);
    }

    /** Replays a commit. */
    public void replay(byte[] changeLog) throws IOException {
        ChangeLog.read(changeLog, (op, values) -> sql.run(op.tolerantSql(), values));
    }

    /** Has it all count: these are its packs now, and this is its last commit. */
    public void commit(VaultCopy.Extent now) throws IOException {
        for (long gone : tables.packs().keySet()) {
            if (!now.packs().containsKey(gone)) {
                tables.forget(gone);
            }
        }
        for (var pack : now.packs().entrySet()) {
            tables.pack(
                    pack.getKey(), pack.getValue().committed(), pack.getValue().sealed());
        }
        tables.end(now.commit());
        try {
            sql.connection().commit();
        } catch (SQLException e) {
            throw Catalogue.translate(copy, e);
        }
    }

    /** Where the chunks of a pack of a vault lie in it, as its catalogue says. */
    public static PackChunks places(Reading vault, long pack) throws IOException {
        return PackTables.places(vault.sql(), pack);
    }

    @Override
    public void close() throws IOException {
        if (closed) {
            return;
        }
        closed = true;
        try {
            if (!sql.connection().getAutoCommit()) {
                sql.connection().rollback();
                sql.connection().setAutoCommit(true);
            }
            try (Statement settle = sql.connection().createStatement()) {
                // The copy stands whole in its files, also for who can only read them.
                settle.execute("PRAGMA wal_checkpoint(TRUNCATE)");
            }
        } catch (SQLException e) {
            org.slf4j.LoggerFactory.getLogger(CopyCatalogue.class).debug("settling the catalogue of a copy", e);
        } finally {
            sql.close();
        }
    }
}
