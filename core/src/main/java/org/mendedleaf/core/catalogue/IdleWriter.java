package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.attribute.BasicFileAttributes;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.VaultFolder;

/**
 * Keeps the connection of one session for the next: to open it, and to prepare what every save asks, takes nearly half of the processor
 * time of a save. It is given out only to who holds the lock of the vault, and only while the catalogue is the very file that it was
 * opened on; where the system does not tell files apart, none is kept.
 */
final class IdleWriter implements AutoCloseable {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(IdleWriter.class);

    /** One on which more than so many different statements were prepared is not kept: they take memory. */
    private static final int MOST_PREPARED = 300;

    private final VaultFolder vault;
    private @Nullable Sql resting;
    private @Nullable Object of;
    private boolean closed;

    IdleWriter(VaultFolder vault) {
        this.vault = vault;
    }

    /** A connection for writing, within a transaction that has nothing in it. The caller holds the lock of the vault. */
    Sql take() throws IOException {
        Sql rested;
        Object opened;
        synchronized (this) {
            rested = resting;
            opened = of;
            resting = null;
        }
        if (rested != null) {
            if (Objects.equals(opened, catalogueFile()) && isUpToDate(rested)) {
                return rested;
            }
            closeQuietly(rested);
        }
        Connection connection = Catalogue.openForWriting(vault);
        try {
            connection.setAutoCommit(false);
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
        return new Sql(vault, connection);
    }

    /** Takes it back from a session that ended well, before its lock is given up. */
    void giveBack(Sql sql) {
        Object file = catalogueFile();
        boolean keeps = file != null && sql.prepared() <= MOST_PREPARED && rest(sql);
        synchronized (this) {
            if (keeps && !closed && resting == null) {
                resting = sql;
                of = file;
                return;
            }
        }
        closeQuietly(sql);
    }

    /** Ends its transaction, and gives back the memory of its pages. */
    private static boolean rest(Sql sql) {
        try (Statement statement = sql.connection().createStatement()) {
            statement.execute("PRAGMA shrink_memory");
            sql.connection().rollback();
            return true;
        } catch (SQLException e) {
            log.debug("a connection is not kept", e);
            return false;
        }
    }

    /** A newer program may have brought the tables up to date meanwhile. */
    private static boolean isUpToDate(Sql sql) {
        try {
            boolean known = Catalogue.version(sql.connection()) == Catalogue.VERSION;
            sql.connection().rollback();
            return known;
        } catch (SQLException e) {
            log.debug("a connection that was kept does not answer", e);
            return false;
        }
    }

    /** Which file the catalogue is; null where there is none, or the system does not say. */
    private @Nullable Object catalogueFile() {
        try {
            return Files.readAttributes(vault.catalogue(), BasicFileAttributes.class)
                    .fileKey();
        } catch (IOException e) {
            log.debug("no catalogue", e);
            return null;
        }
    }

    private static void closeQuietly(Sql sql) {
        try {
            sql.close();
        } catch (IOException e) {
            log.debug("closing a connection", e);
        }
    }

    /** Closes the one that rests, with the files that it keeps open; the next one may rest again. */
    void closeResting() {
        Sql rested;
        synchronized (this) {
            rested = resting;
            resting = null;
        }
        if (rested != null) {
            closeQuietly(rested);
        }
    }

    @Override
    public void close() {
        synchronized (this) {
            closed = true;
        }
        closeResting();
    }
}
