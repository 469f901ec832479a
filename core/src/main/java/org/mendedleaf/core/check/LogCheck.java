package org.mendedleaf.core.check;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Catalogue;
import org.mendedleaf.core.catalogue.ChangeLog;
import org.mendedleaf.core.catalogue.Migrations;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.catalogue.SqliteDriver;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/**
 * Compares the catalogue with what the change logs in the packs say: they are replayed into a second catalogue, by a thread of
 * its own that begins at once, and both are read side by side, row by row. So a row that is lost, or says something else than
 * was written, is found, though a database can hold it without being damaged as one.
 */
final class LogCheck implements AutoCloseable {

    /** Up to so many bytes of change logs are replayed in memory, more in a temporary file. */
    private static final long IN_MEMORY = 64L << 20;

    /** A pack that is emptied while packs are walked takes its commits along; then they are walked again. */
    private static final int TRIES = 3;

    private static final int SAID = 20;

    private final VaultFolder vault;
    private final Sql sql;
    private final List<String> found = new ArrayList<>();

    private final long last;
    private final @Nullable IOException unreadable;
    private final FutureTask<Replayed> replay = new FutureTask<>(this::replay);
    private final Thread thread = new Thread(replay, "check of change logs");
    private volatile boolean ended;

    /** A check of this catalogue. The logs are replayed from now on; what goes wrong with that is told by {@link #run}. */
    LogCheck(VaultFolder vault, Sql sql) {
        this.vault = vault;
        this.sql = sql;
        long commit = 0;
        IOException trouble = null;
        try {
            commit = sql.number("SELECT value FROM counter WHERE name = 'commit'");
        } catch (IOException e) {
            trouble = e;
        }
        this.last = commit;
        this.unreadable = trouble;
        thread.setDaemon(true);
        thread.start();
    }

    /**
     * What the logs say.
     *
     * @param missing numbers of commits without a log; where there are any, nothing was replayed
     * @param catalogue what they come to
     * @param same tables that were seen to be the same; of the others it is said what differs
     */
    private record Replayed(
            List<Long> missing,
            @Nullable Connection catalogue,
            @Nullable Path temporary,
            Set<String> same) implements AutoCloseable {
        @Override
        public void close() throws IOException {
            try {
                if (catalogue != null) {
                    catalogue.close();
                }
            } catch (SQLException e) {
                throw new IOException(e);
            } finally {
                if (temporary != null) {
                    Files.deleteIfExists(temporary.resolve("log.db"));
                    Files.deleteIfExists(temporary);
                }
            }
        }
    }

    /** What differs, as a message. Waits until the logs are replayed. */
    List<String> run() throws IOException {
        if (unreadable != null) {
            throw unreadable;
        }
        try {
            Replayed replayed = replay.get();
            if (replayed.catalogue() == null) {
                // Without all logs there is nothing to compare with.
                List<Long> missing = replayed.missing();
                return List.of(Words.of("check.noLog", String.valueOf(missing.get(0)), missing.size()));
            }
            for (String table : Logged.TABLES) {
                if (!replayed.same().contains(table)) {
                    compare(table, replayed.catalogue());
                }
            }
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        } catch (ExecutionException e) {
            rethrow(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
        return found;
    }

    private void rethrow(@Nullable Throwable cause) throws IOException {
        if (cause instanceof VaultException.Damaged e) {
            found.add(Words.of("check.logDamaged", e.words()));
        } else if (cause instanceof SQLException e) {
            throw Catalogue.translate(vault, e);
        } else if (cause instanceof IOException e) {
            throw e;
        } else {
            throw new IllegalStateException("change logs could not be replayed", cause);
        }
    }

    /** Ends the replaying where nobody wants to know any more, and takes away what it made. */
    @Override
    public void close() throws IOException {
        ended = true;
        try {
            thread.join();
            replay.get().close();
        } catch (ExecutionException e) {
            org.slf4j.LoggerFactory.getLogger(LogCheck.class).debug("change logs were not replayed", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
    }

    private PackReplay walk() throws IOException {
        for (int i = 1; ; i++) {
            PackReplay walked = new PackReplay(vault);
            walked.findCommits();
            long whole = walked.commits().stream().filter(n -> n <= last).count();
            if (whole == last || i == TRIES) {
                return walked;
            }
            walked.close();
        }
    }

    private Replayed replay() throws IOException, SQLException {
        if (unreadable != null) {
            return new Replayed(List.of(), null, null, Set.of());
        }
        try (PackReplay logs = walk()) {
            Set<Long> there = new HashSet<>(logs.commits());
            List<Long> missing = new ArrayList<>();
            for (long n = 1; n <= last && missing.size() <= SAID; n++) {
                if (!there.contains(n)) {
                    missing.add(n);
                }
            }
            if (!missing.isEmpty()) {
                return new Replayed(missing, null, null, Set.of());
            }
            Path temporary = logs.changeLogBytes() > IN_MEMORY ? TemporaryFiles.folder() : null;
            String url = temporary == null ? "jdbc:sqlite::memory:" : "jdbc:sqlite:" + temporary.resolve("log.db");
            Replayed replayed = new Replayed(missing, SqliteDriver.connect(url), temporary, new HashSet<>());
            try {
                replay(logs, replayed);
                return replayed;
            } catch (IOException | SQLException | RuntimeException e) {
                replayed.close();
                throw e;
            }
        }
    }

    private void replay(PackReplay logs, Replayed into) throws IOException, SQLException {
        Connection connection = Objects.requireNonNull(into.catalogue());
        if (into.temporary() != null) {
            quick(connection);
        }
        Migrations.run(connection);
        connection.setAutoCommit(false);
        Sql second = new Sql(vault, connection);
        for (long commit : logs.commits()) {
            if (ended) {
                throw new InterruptedIOException();
            }
            if (commit <= last) {
                ChangeLog.read(logs.changeLog(commit), (op, values) -> second.run(op.sql(), values));
            }
        }
        connection.commit();
        into.same().addAll(same(connection));
    }

    /**
     * The tables that are the same in the catalogue, as the database itself sees: that takes a tenth of reading both row by row, which
     * is left for those that are not, and for a catalogue that somebody writes to meanwhile.
     */
    private Set<String> same(Connection replayed) {
        Set<String> same = new HashSet<>();
        try (Statement ask = replayed.createStatement()) {
            replayed.setAutoCommit(true);
            // Only to read: what is not there is not made.
            String catalogue = vault.catalogue().toUri().toString().replace("'", "''");
            ask.execute("ATTACH DATABASE '" + catalogue + "?mode=ro' AS there");
            replayed.setAutoCommit(false);
            if (number(ask, "SELECT value FROM there.counter WHERE name = 'commit'") == last) {
                for (String table : Logged.TABLES) {
                    if (number(ask, TableShape.of(replayed, table).sameAs("there")) == 1) {
                        same.add(table);
                    }
                }
            }
            replayed.commit();
        } catch (SQLException e) {
            org.slf4j.LoggerFactory.getLogger(LogCheck.class).debug("tables are compared row by row", e);
        }
        return same;
    }

    private static long number(Statement ask, String question) throws SQLException {
        try (ResultSet answer = ask.executeQuery(question)) {
            return answer.next() ? answer.getLong(1) : -1;
        }
    }

    private static void quick(Connection connection) throws SQLException {
        try (Statement set = connection.createStatement()) {
            set.execute("PRAGMA journal_mode = OFF");
            set.execute("PRAGMA synchronous = OFF");
        }
    }

    private void compare(String table, Connection second) throws SQLException {
        TableShape shape = TableShape.of(second, table);
        List<String> columns = shape.columns();
        String all = shape.all();
        int different = 0;
        try (PreparedStatement a = sql.connection().prepareStatement(all);
                PreparedStatement b = second.prepareStatement(all);
                ResultSet is = a.executeQuery();
                ResultSet should = b.executeQuery()) {
            while (true) {
                boolean one = is.next();
                boolean other = should.next();
                if (!one && !other) {
                    break;
                }
                if (one != other || !same(is, should, columns.size())) {
                    // Rows that are missing shift the others: one difference is enough to know, and is named.
                    different++;
                    found.add(Words.of("check.logDiffers", table, describe(one ? is : should, columns)));
                    break;
                }
            }
        }
        if (different == 0) {
            countsAgree(table, second);
        }
    }

    private void countsAgree(String table, Connection second) throws SQLException {
        String ask = "SELECT count(*) FROM " + table + " NOT INDEXED";
        try (Statement a = sql.connection().createStatement();
                Statement b = second.createStatement();
                ResultSet is = a.executeQuery(ask);
                ResultSet should = b.executeQuery(ask)) {
            if (is.getLong(1) != should.getLong(1)) {
                found.add(Words.of("check.logDiffers", table, ""));
            }
        }
    }

    private static boolean same(ResultSet a, ResultSet b, int columns) throws SQLException {
        for (int i = 1; i <= columns; i++) {
            Object x = a.getObject(i);
            Object y = b.getObject(i);
            if (!sameValue(x, y)) {
                return false;
            }
        }
        return true;
    }

    private static boolean sameValue(@Nullable Object x, @Nullable Object y) {
        if (x instanceof byte[] p && y instanceof byte[] q) {
            return Arrays.equals(p, q);
        }
        if (x instanceof Number p && y instanceof Number q) {
            return p.longValue() == q.longValue() && p.doubleValue() == q.doubleValue();
        }
        return java.util.Objects.equals(x, y);
    }

    private static String describe(ResultSet row, List<String> columns) throws SQLException {
        List<String> said = new ArrayList<>();
        for (int i = 0; i < Math.min(3, columns.size()); i++) {
            said.add(columns.get(i) + " " + row.getString(i + 1));
        }
        return String.join(", ", said);
    }
}
