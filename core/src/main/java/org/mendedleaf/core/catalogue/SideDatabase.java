package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;
import org.sqlite.SQLiteErrorCode;

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
    private boolean together;

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
        Connection connection = SqliteDriver.connect("jdbc:sqlite:" + file);
        try (Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA busy_timeout = " + BUSY_MILLIS);
            writeAhead(statement);
            statement.execute("PRAGMA synchronous = NORMAL");
            statement.execute("PRAGMA secure_delete = ON");
            return connection;
        } catch (SQLException e) {
            connection.close();
            throw e;
        }
    }

    /** The first who opens a database turns its log on, alone; for that SQLite does not wait by itself. */
    private static void writeAhead(Statement statement) throws SQLException {
        long end = System.nanoTime() + BUSY_MILLIS * 1_000_000L;
        while (true) {
            try {
                statement.execute("PRAGMA journal_mode = WAL");
                return;
            } catch (SQLException e) {
                if (e.getErrorCode() != SQLiteErrorCode.SQLITE_BUSY.code || System.nanoTime() > end) {
                    throw e;
                }
                java.util.concurrent.locks.LockSupport.parkNanos(5_000_000);
            }
        }
    }

    /** Opens the database in a file. */
    protected interface Opener<D extends SideDatabase> {
        /** Opens it. */
        D open(Path file) throws IOException;
    }

    /**
     * Opens a database that cannot be used as it is: one that is not there yet or is being made gets its tables, by whoever
     * comes first; one that is damaged, or of another version, is begun anew.
     *
     * @param tables statements that make all of it, and set its version
     */
    protected static <D extends SideDatabase> D make(VaultFolder vault, String name, Opener<D> opener, String... tables)
            throws IOException {
        // In one process nobody takes away what another has just begun anew.
        synchronized (SideDatabase.class) {
            return makeAlone(vault, name, opener, tables);
        }
    }

    private static <D extends SideDatabase> D makeAlone(
            VaultFolder vault, String name, Opener<D> opener, String... tables) throws IOException {
        Path file = vault.root().resolve(name);
        vault.access().createFile(file);
        D made = null;
        try {
            made = opener.open(file);
            if (made.change(0, tables)) {
                return made;
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(SideDatabase.class).info("{} is begun anew", file, e);
        }
        if (made != null) {
            made.close();
        }
        remove(vault, name);
        vault.access().createFile(file);
        D anew = opener.open(file);
        anew.change(0, tables);
        return anew;
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

    /**
     * Changes the tables from one version to another, all of it or nothing; who does the same at the same moment, in this
     * process or another, waits and finds it done.
     *
     * @param from the version that this is for; 0 for a database without tables
     * @return whether the tables are as they should be: they were changed now, or by another meanwhile
     */
    protected final boolean change(long from, String... statements) throws IOException {
        try (Statement statement = connection.createStatement()) {
            statement.execute("BEGIN IMMEDIATE");
            try {
                long version = version();
                boolean fits = version == from && (from != 0 || number("SELECT count(*) FROM sqlite_master") == 0);
                if (fits) {
                    for (String one : statements) {
                        statement.execute(one);
                    }
                }
                long now = version();
                statement.execute("COMMIT");
                return fits || version > from && now == last(statements);
            } catch (IOException | SQLException e) {
                statement.execute("ROLLBACK");
                throw e;
            }
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    /** The version that statements set in the end. */
    private static long last(String... statements) {
        String setting = "PRAGMA user_version = ";
        long version = 0;
        for (String one : statements) {
            version = one.startsWith(setting) ? Long.parseLong(one.substring(setting.length())) : version;
        }
        return version;
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

    /**
     * Does work, all of it or nothing. Who writes at the same moment, in this process or another, waits: what is read within it
     * stays so until it is through.
     */
    public final void together(Work work) throws IOException {
        if (together) {
            work.run();
            return;
        }
        try (Statement statement = connection.createStatement()) {
            statement.execute("BEGIN IMMEDIATE");
            together = true;
            try {
                work.run();
                statement.execute("COMMIT");
            } catch (IOException | SQLException | RuntimeException e) {
                statement.execute("ROLLBACK");
                throw e;
            } finally {
                together = false;
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
