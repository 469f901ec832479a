package org.mendedleaf.core.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Properties;
import org.sqlite.JDBC;

/**
 * Opens SQLite's driver by its name. {@link java.sql.DriverManager} would search every library on the class path for drivers
 * first, which takes longer than most questions to a catalogue.
 */
final class SqliteDriver {

    private SqliteDriver() {}

    /** Opens the database with this address, which begins with {@code jdbc:sqlite:}. */
    static Connection connect(String url) throws SQLException {
        return connect(url, new Properties());
    }

    /** Opens the database with this address and these properties of the driver. */
    static Connection connect(String url, Properties properties) throws SQLException {
        return JDBC.createConnection(url, properties);
    }
}
