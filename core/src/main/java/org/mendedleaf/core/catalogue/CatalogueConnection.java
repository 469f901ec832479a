package org.mendedleaf.core.catalogue;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.util.Properties;
import java.util.concurrent.locks.LockSupport;
import org.sqlite.SQLiteConfig;

/** Opens databases as catalogues are opened: with a log beside them, and safe when it says so. */
final class CatalogueConnection {

    private static final int BUSY_MILLIS = 20_000;

    private static final int JOURNAL_TRIES = 40;
    private static final Duration JOURNAL_PAUSE = Duration.ofMillis(50);

    private CatalogueConnection() {}

    /** Opens the database in this file. */
    static Connection open(Path file) throws SQLException {
        SQLiteConfig config = new SQLiteConfig();
        config.setJournalMode(SQLiteConfig.JournalMode.WAL);
        config.setSynchronous(SQLiteConfig.SynchronousMode.FULL);
        config.setBusyTimeout(BUSY_MILLIS);
        config.setCacheSize(-32 * 1024);
        config.setTempStore(SQLiteConfig.TempStore.MEMORY);
        Properties properties = config.toProperties();
        for (int tries = 1; ; tries++) {
            try {
                return open(file, properties);
            } catch (SQLException e) {
                // Two that both give a new catalogue its journal do not wait for each other by themselves.
                if (!isBusy(e) || tries == JOURNAL_TRIES) {
                    throw e;
                }
                LockSupport.parkNanos(JOURNAL_PAUSE.toNanos());
            }
        }
    }

    private static Connection open(Path file, Properties properties) throws SQLException {
        Connection connection = SqliteDriver.connect(url(file), properties);
        try {
            // Whether it can be read at all shows with the first question.
            Catalogue.version(connection);
            return connection;
        } catch (SQLException e) {
            connection.close();
            throw e;
        }
    }

    static String url(Path file) {
        return "jdbc:sqlite:" + file.toUri();
    }

    /** Whether another process has it just now. */
    static boolean isBusy(SQLException e) {
        return String.valueOf(e.getMessage()).contains("SQLITE_BUSY");
    }
}
