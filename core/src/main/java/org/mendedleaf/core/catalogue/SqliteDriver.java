package org.mendedleaf.core.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.Properties;
import org.sqlite.JDBC;
import org.sqlite.SQLiteConfig;

/**
 * Opens SQLite's driver by its name. {@link java.sql.DriverManager} would search every library on the class path for drivers
 * first, which takes longer than most questions to a catalogue. The driver asks for the number of each row that is put in, by a
 * statement that takes as long as the row itself; nobody wants to know, and it is told not to.
 */
public final class SqliteDriver {

    private SqliteDriver() {}

    /** Opens the database with this address, which begins with {@code jdbc:sqlite:}. */
    public static Connection connect(String url) throws SQLException {
        return connect(url, new Properties());
    }

    /** Opens the database with this address and these properties of the driver. */
    public static Connection connect(String url, Properties properties) throws SQLException {
        properties.setProperty(SQLiteConfig.Pragma.JDBC_GET_GENERATED_KEYS.pragmaName, "false");
        return JDBC.createConnection(url, properties);
    }
}
