package org.mendedleaf.core.check;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Catalogue;
import org.mendedleaf.core.catalogue.ChangeLog;
import org.mendedleaf.core.catalogue.Migrations;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/**
 * Compares the catalogue with what the change logs in the packs say: they are replayed into a second catalogue, and both are
 * read side by side, row by row. So a row that is lost, or says something else than was written, is found, though a database
 * can hold it without being damaged as one.
 */
final class LogCheck {

    /** Up to so many bytes of change logs are replayed in memory, more in a temporary file. */
    private static final long IN_MEMORY = 64L << 20;

    /** A pack that is emptied while packs are walked takes its commits along; then they are walked again. */
    private static final int TRIES = 3;

    private static final int SAID = 20;

    private final VaultFolder vault;
    private final Sql sql;
    private final List<String> found = new ArrayList<>();

    LogCheck(VaultFolder vault, Sql sql) {
        this.vault = vault;
        this.sql = sql;
    }

    /** What differs, as a message. */
    List<String> run() throws IOException {
        long last = sql.number("SELECT value FROM counter WHERE name = 'commit'");
        try (PackReplay replay = walk(last)) {
            Set<Long> there = new HashSet<>(replay.commits());
            List<Long> missing = new ArrayList<>();
            for (long n = 1; n <= last && missing.size() <= SAID; n++) {
                if (!there.contains(n)) {
                    missing.add(n);
                }
            }
            if (!missing.isEmpty()) {
                // Without all logs there is nothing to compare with.
                return List.of(Words.of("check.noLog", String.valueOf(missing.get(0)), missing.size()));
            }
            compare(replay, last);
        }
        return found;
    }

    private PackReplay walk(long last) throws IOException {
        for (int i = 1; ; i++) {
            PackReplay replay = new PackReplay(vault);
            replay.findCommits();
            long whole = replay.commits().stream().filter(n -> n <= last).count();
            if (whole == last || i == TRIES) {
                return replay;
            }
            replay.close();
        }
    }

    private void compare(PackReplay replay, long last) throws IOException {
        Path temporary = null;
        try {
            boolean large = replay.changeLogBytes() > IN_MEMORY;
            temporary = large ? TemporaryFiles.folder() : null;
            String url = temporary == null ? "jdbc:sqlite::memory:" : "jdbc:sqlite:" + temporary.resolve("log.db");
            try (Connection connection = DriverManager.getConnection(url)) {
                if (large) {
                    quick(connection);
                }
                Migrations.run(connection);
                connection.setAutoCommit(false);
                Sql second = new Sql(vault, connection);
                for (long commit : replay.commits()) {
                    if (commit <= last) {
                        ChangeLog.read(replay.changeLog(commit), (op, values) -> second.run(op.sql(), values));
                    }
                }
                for (String table : Logged.TABLES) {
                    compare(table, connection);
                }
            }
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        } catch (VaultException.Damaged e) {
            found.add(Words.of("check.logDamaged", e.words()));
        } finally {
            if (temporary != null) {
                Files.deleteIfExists(temporary.resolve("log.db"));
                Files.deleteIfExists(temporary);
            }
        }
    }

    private static void quick(Connection connection) throws SQLException {
        try (Statement set = connection.createStatement()) {
            set.execute("PRAGMA journal_mode = OFF");
            set.execute("PRAGMA synchronous = OFF");
        }
    }

    private void compare(String table, Connection second) throws SQLException {
        TreeMap<Integer, String> key = new TreeMap<>();
        List<String> columns = new ArrayList<>();
        try (Statement ask = second.createStatement();
                ResultSet rows = ask.executeQuery("PRAGMA table_info(" + table + ")")) {
            while (rows.next()) {
                columns.add(rows.getString(2));
                if (rows.getInt(6) > 0) {
                    key.put(rows.getInt(6), rows.getString(2));
                }
            }
        }
        String order = key.isEmpty() ? "rowid" : String.join(", ", key.values());
        String all = "SELECT " + String.join(", ", columns) + " FROM " + table + " ORDER BY " + order;
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
