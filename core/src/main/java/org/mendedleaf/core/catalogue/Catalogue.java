package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.vault.VaultLock;
import org.mendedleaf.core.words.Words;

/** The database of a vault: opening it, and bringing its tables up to date. */
public final class Catalogue {

    /** Version of the tables that this program knows. */
    public static final int VERSION = Migrations.NEWEST;

    /** How long a reader waits for its turn when the tables must be brought up to date first. */
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private Catalogue() {}

    /**
     * A connection for reading. Nothing is written to the vault by it, and it needs no right to: on a disk that is full, or
     * may only be read, a private copy serves where the database itself cannot be opened. Only a catalogue of an older version
     * is brought up to date first, under the lock of the vault.
     *
     * @throws VaultException.Unavailable when there is no catalogue
     * @throws VaultException.TooNew when it is of a newer version
     * @throws VaultException.Damaged when it cannot be read as a database
     */
    public static Connection openForReading(VaultFolder vault) throws IOException {
        if (!Files.exists(vault.catalogue())) {
            throw missing(vault);
        }
        Connection connection = open(vault);
        if (known(vault, connection) == VERSION) {
            return connection;
        }
        close(connection);
        try (VaultLock lock = VaultLock.take(vault, Words.of("catalogue.migrating"), PATIENCE)) {
            close(openForWriting(vault));
        } catch (VaultException.Unavailable | VaultException.Full e) {
            return CatalogueCopy.upToDate(vault);
        }
        return open(vault);
    }

    private static Connection open(VaultFolder vault) throws IOException {
        try {
            return CatalogueConnection.open(vault.catalogue());
        } catch (SQLException e) {
            if (CatalogueCopy.cannotWrite(vault, e)) {
                return CatalogueCopy.open(vault);
            }
            throw translate(vault, e);
        }
    }

    private static VaultException missing(VaultFolder vault) throws IOException {
        return vault.packNumbers().isEmpty()
                ? new VaultException.Unavailable(
                        Words.of(vault.isCopy() ? "copies.empty" : "catalogue.none", vault.root()))
                : new VaultException.Damaged(PackReplay.hint(vault));
    }

    /**
     * A connection for writing, outside a transaction; the caller holds the lock of the vault. Makes the tables, and brings
     * those of older versions up to date; the catalogue as it was before that is kept beside it.
     */
    static Connection openForWriting(VaultFolder vault) throws IOException {
        if (!Files.exists(vault.catalogue())) {
            if (!vault.packNumbers().isEmpty()) {
                throw missing(vault);
            }
            create(vault);
        }
        try {
            Connection connection = CatalogueConnection.open(vault.catalogue());
            int version = known(vault, connection);
            if (version < VERSION) {
                keepBefore(vault, connection, version);
                Migrations.run(connection);
            }
            return connection;
        } catch (SQLException e) {
            throw translate(vault, e);
        }
    }

    /** Makes the tables beside the final name, so that there is a whole catalogue or none. */
    private static void create(VaultFolder vault) throws IOException {
        Path beside = vault.root().resolve("catalogue.new");
        make(vault, beside);
        Files.move(beside, vault.catalogue(), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        Durable.forceFolder(vault.root());
    }

    /** Makes a new, empty catalogue in a file; what is there is replaced. */
    public static void make(VaultFolder vault, Path file) throws IOException {
        for (String ending : new String[] {"", "-wal", "-shm", "-journal"}) {
            Files.deleteIfExists(Path.of(file + ending));
        }
        vault.access().createFile(file);
        try (Connection connection = SqliteDriver.connect(CatalogueConnection.url(file))) {
            Migrations.run(connection);
        } catch (SQLException e) {
            throw translate(vault, e);
        }
    }

    /** The way back for an older program, until something is written by this one. */
    private static void keepBefore(VaultFolder vault, Connection connection, int version) throws IOException {
        Path before = vault.root().resolve("catalogue.db.version-" + version);
        try (Statement copy = connection.createStatement()) {
            Files.deleteIfExists(before);
            copy.execute("VACUUM INTO '" + before.toString().replace("'", "''") + "'");
            vault.access().tighten(before);
        } catch (SQLException e) {
            if (Durable.saysFull(e)) {
                Files.deleteIfExists(before);
                throw new VaultException.Full(vault.root(), e);
            }
            throw translate(vault, e);
        }
    }

    /** The version of the tables, when this program knows it; otherwise the connection is closed. */
    private static int known(VaultFolder vault, Connection connection) throws IOException {
        try {
            int version = version(connection);
            if (version > VERSION) {
                connection.close();
                throw new VaultException.TooNew(vault.catalogue(), version, VERSION);
            }
            return version;
        } catch (SQLException e) {
            throw translate(vault, e);
        }
    }

    static int version(Connection connection) throws SQLException {
        try (Statement ask = connection.createStatement();
                ResultSet row = ask.executeQuery("PRAGMA user_version")) {
            return row.getInt(1);
        }
    }

    private static void close(Connection connection) throws IOException {
        try {
            connection.close();
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    /** What a database error means for the caller. */
    public static VaultException translate(VaultFolder vault, SQLException e) {
        if (Durable.saysFull(e)) {
            return new VaultException.Full(vault.root(), e);
        }
        String text = String.valueOf(e.getMessage());
        if (text.contains("SQLITE_CORRUPT") || text.contains("SQLITE_NOTADB") || text.contains("SQLITE_ERROR")) {
            return VaultException.Damaged.ofCatalogue(vault.root(), e);
        }
        if (CatalogueConnection.isBusy(e)) {
            return new VaultException.Busy(vault.root(), Words.of("vault.someone"));
        }
        if (CatalogueCopy.cannotWrite(vault, e)) {
            return CatalogueCopy.isFull(vault)
                    ? new VaultException.Full(vault.root(), e)
                    : new VaultException.Unavailable(Words.of("vault.notWritable", vault.root()), e);
        }
        return new VaultException.Unavailable(
                Words.of("catalogue.unavailable", vault.root(), VaultException.said(e)), e);
    }
}
