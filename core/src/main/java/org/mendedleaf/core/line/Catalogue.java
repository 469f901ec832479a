package org.mendedleaf.core.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Properties;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.FlywayException;
import org.mendedleaf.core.vault.Durable;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;
import org.sqlite.SQLiteConfig;

/** The database of a vault: opening it, and bringing its tables up to date. */
public final class Catalogue {

    /** Version of the tables that this program knows. */
    static final int VERSION = 6;

    private static final int BUSY_MILLIS = 20_000;

    private Catalogue() {}

    /**
     * A connection for reading.
     *
     * @throws VaultException.Unavailable when there is no catalogue
     * @throws VaultException.TooNew when it is of a newer version
     * @throws VaultException.Damaged when it cannot be read as a database
     */
    public static Connection openForReading(VaultFolder vault) throws IOException {
        if (!Files.exists(vault.catalogue())) {
            throw missing(vault);
        }
        return open(vault, true);
    }

    private static VaultException missing(VaultFolder vault) throws IOException {
        return vault.packNumbers().isEmpty()
                ? new VaultException.Unavailable(Words.of("catalogue.none", vault.root()))
                : new VaultException.Damaged(PackReplay.hint(vault));
    }

    /** A connection for writing, outside a transaction; the caller holds the lock of the vault. Makes the tables. */
    static Connection openForWriting(VaultFolder vault) throws IOException {
        if (!Files.exists(vault.catalogue())) {
            if (!vault.packNumbers().isEmpty()) {
                throw missing(vault);
            }
            create(vault);
        }
        return open(vault, false);
    }

    /** Makes the tables beside the final name, so that there is a whole catalogue or none. */
    private static void create(VaultFolder vault) throws IOException {
        Path beside = vault.root().resolve("catalogue.new");
        Files.deleteIfExists(beside);
        migrate(vault, beside);
        Files.move(beside, vault.catalogue(), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        Durable.forceFolder(vault.root());
    }

    /** Brings a database file to the newest tables. */
    static void migrate(VaultFolder vault, Path file) throws IOException {
        try {
            Flyway.configure(Catalogue.class.getClassLoader())
                    .dataSource(url(file), null, null)
                    .locations("classpath:org/mendedleaf/core/line/migration")
                    .load()
                    .migrate();
        } catch (FlywayException e) {
            if (Durable.saysFull(e)) {
                throw new VaultException.Full(vault.root(), e);
            }
            throw new VaultException.Damaged(Words.of("catalogue.damaged", vault.root(), e.getMessage()), e);
        }
    }

    private static String url(Path file) {
        return "jdbc:sqlite:" + file.toUri();
    }

    private static Connection open(VaultFolder vault, boolean reading) throws IOException {
        Path file = vault.catalogue();
        SQLiteConfig config = new SQLiteConfig();
        config.setJournalMode(SQLiteConfig.JournalMode.WAL);
        config.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
        config.setBusyTimeout(BUSY_MILLIS);
        config.setCacheSize(-32 * 1024);
        config.setTempStore(SQLiteConfig.TempStore.MEMORY);
        Properties properties = config.toProperties();
        try {
            Connection connection = connect(file, properties, reading);
            int version = version(connection);
            if (version > VERSION) {
                connection.close();
                throw new VaultException.TooNew(file, version, VERSION);
            }
            if (version < VERSION) {
                connection.close();
                migrate(vault, file);
                connection = connect(file, properties, reading);
            }
            return connection;
        } catch (SQLException e) {
            throw translate(vault, e);
        }
    }

    /** A read-only disk gives no write-ahead log; then the database is read as it stands. */
    private static Connection connect(Path file, Properties properties, boolean reading) throws SQLException {
        try {
            return DriverManager.getConnection(url(file), properties);
        } catch (SQLException e) {
            if (!reading || Files.isWritable(file.getParent())) {
                throw e;
            }
            return DriverManager.getConnection(url(file) + "?immutable=1&mode=ro");
        }
    }

    private static int version(Connection connection) throws SQLException {
        try (Statement ask = connection.createStatement();
                ResultSet row = ask.executeQuery("PRAGMA user_version")) {
            return row.getInt(1);
        }
    }

    /** What a database error means for the caller. */
    static VaultException translate(VaultFolder vault, SQLException e) {
        if (Durable.saysFull(e)) {
            return new VaultException.Full(vault.root(), e);
        }
        String text = String.valueOf(e.getMessage());
        if (text.contains("SQLITE_CORRUPT") || text.contains("SQLITE_NOTADB") || text.contains("SQLITE_ERROR")) {
            return new VaultException.Damaged(Words.of("catalogue.damaged", vault.root(), text), e);
        }
        if (text.contains("SQLITE_BUSY")) {
            return new VaultException.Busy(vault.root(), Words.of("vault.someone"));
        }
        return new VaultException.Unavailable(Words.of("catalogue.unavailable", vault.root(), text), e);
    }
}
