package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/**
 * A database beside the catalogue (SQLite), of which everything can be made anew from the vault. What is taken out of it is
 * overwritten in its file. One thread at a time for each instance; several instances, also of several processes, may have it
 * open.
 */
public abstract class SideDatabase implements AutoCloseable {

    private static final int BUSY_MILLIS = 10_000;

    private final Path file;
    private final Connection connection;
    private final Map<String, PreparedStatement> prepared = new HashMap<>();

    /** The database in a file. */
    protected SideDatabase(Path file) throws IOException {
        this.file = file;
        try {
            this.connection = connect(file);
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    private static Connection connect(Path file) throws SQLException {
        Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
        try (Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA busy_timeout = " + BUSY_MILLIS);
            statement.execute("PRAGMA journal_mode = WAL");
            statement.execute("PRAGMA synchronous = NORMAL");
            statement.execute("PRAGMA secure_delete = ON");
            return connection;
        } catch (SQLException e) {
            connection.close();
            throw e;
        }
    }

    /** Takes the files of a database away. */
    protected static void remove(VaultFolder vault, String name) throws IOException {
        for (String ending : new String[] {"", "-wal", "-shm"}) {
            Files.deleteIfExists(vault.root().resolve(name + ending));
        }
    }

    private static IOException failed(Path where, SQLException e) {
        return new IOException(Words.of("find.index.failed", where, String.valueOf(e.getMessage())), e);
    }

    /** Where it lies, beside the catalogue. */
    protected final Path file() {
        return file;
    }

    /** The number by which a database says which tables it has; 0 while it has none. */
    protected final long version() throws IOException {
        return number("PRAGMA user_version");
    }

    /** Runs statements, all of them or none. */
    protected final void execute(String... statements) throws IOException {
        together(() -> {
            try (Statement statement = connection.createStatement()) {
                for (String one : statements) {
                    statement.execute(one);
                }
            } catch (SQLException e) {
                throw failed(file, e);
            }
        });
    }

    /** Takes rows. */
    protected interface Taker {
        /** Is given each row in turn; the row is gone afterwards. */
        void take(ResultSet row) throws SQLException;
    }

    /** Asks. */
    protected final void query(String sql, Taker taker, @Nullable Object... values) throws IOException {
        try (ResultSet rows = bind(sql, values).executeQuery()) {
            while (rows.next()) {
                taker.take(rows);
            }
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    /** The number in the first row; 0 when there is none. */
    protected final long number(String sql, @Nullable Object... values) throws IOException {
        long[] number = {0};
        query(sql, r -> number[0] = r.getLong(1), values);
        return number[0];
    }

    /** Changes something. */
    protected final void run(String sql, @Nullable Object... values) throws IOException {
        try {
            bind(sql, values).execute();
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    private PreparedStatement bind(String sql, @Nullable Object... values) throws SQLException {
        PreparedStatement statement = prepared.get(sql);
        if (statement == null) {
            statement = connection.prepareStatement(sql);
            prepared.put(sql, statement);
        }
        for (int i = 0; i < values.length; i++) {
            statement.setObject(i + 1, values[i]);
        }
        return statement;
    }

    /** Work within one transaction. */
    public interface Work {
        /** Does it. */
        void run() throws IOException;
    }

    /** Does work, all of it or nothing. */
    public final void together(Work work) throws IOException {
        try {
            connection.setAutoCommit(false);
            try {
                work.run();
                connection.commit();
            } catch (IOException | RuntimeException e) {
                connection.rollback();
                throw e;
            } finally {
                connection.setAutoCommit(true);
            }
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    /** Writes everything into the file itself, so that nothing of what was taken out is left beside it. */
    protected final void settle(String... before) throws IOException {
        // Nothing may be left open for what follows.
        try {
            for (PreparedStatement statement : prepared.values()) {
                statement.close();
            }
            prepared.clear();
            try (Statement statement = connection.createStatement()) {
                for (String one : before) {
                    statement.execute(one);
                }
                statement.execute("PRAGMA wal_checkpoint(TRUNCATE)");
                statement.execute("VACUUM");
                statement.execute("PRAGMA wal_checkpoint(TRUNCATE)");
            }
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    @Override
    public void close() throws IOException {
        try {
            for (PreparedStatement statement : prepared.values()) {
                statement.close();
            }
            connection.close();
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }
}
