package org.mendedleaf.core.check;

import java.io.IOException;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Catalogue;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.catalogue.SqliteDriver;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.PackChunks;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;

/** A catalogue that is being replaced: what can still be read of it. Changes nothing. */
final class OldCatalogue implements AutoCloseable {

    private final Connection connection;
    private final boolean sound;
    private final long commit;

    private OldCatalogue(Connection connection, boolean sound, long commit) {
        this.connection = connection;
        this.sound = sound;
        this.commit = commit;
    }

    /**
     * Opens it; empty when there is none, or none that can be read at all.
     *
     * @throws VaultException.TooNew when a newer version of this program wrote it
     */
    static Optional<OldCatalogue> open(VaultFolder vault) throws IOException {
        if (!Files.exists(vault.catalogue())) {
            return Optional.empty();
        }
        Connection connection = null;
        try {
            connection = SqliteDriver.connect("jdbc:sqlite:" + vault.catalogue().toUri());
            long version = number(connection, "PRAGMA user_version");
            if (version > Catalogue.VERSION) {
                connection.close();
                throw new VaultException.TooNew(vault.catalogue(), version, Catalogue.VERSION);
            }
            long commit = number(connection, "SELECT value FROM counter WHERE name = 'commit'");
            return Optional.of(new OldCatalogue(connection, isSound(connection), commit));
        } catch (SQLException e) {
            closeQuietly(connection);
            return Optional.empty();
        }
    }

    private static void closeQuietly(@Nullable Connection connection) {
        try {
            if (connection != null) {
                connection.close();
            }
        } catch (SQLException e) {
            org.slf4j.LoggerFactory.getLogger(OldCatalogue.class).debug("closing an old catalogue", e);
        }
    }

    private static long number(Connection connection, String sql) throws SQLException {
        try (Statement ask = connection.createStatement();
                ResultSet row = ask.executeQuery(sql)) {
            return row.next() ? row.getLong(1) : 0;
        }
    }

    private static boolean isSound(Connection connection) {
        try (Statement ask = connection.createStatement();
                ResultSet row = ask.executeQuery("PRAGMA integrity_check")) {
            return row.next() && "ok".equals(row.getString(1));
        } catch (SQLException e) {
            return false;
        }
    }

    /** Whether the database is consistent in itself. */
    boolean isSound() {
        return sound;
    }

    /** Number of the last commit that it knows. */
    long commit() {
        return commit;
    }

    /** What it says of the chunks of a pack; nothing where it cannot be read. */
    PackChunks places(long pack) {
        PackChunks.Builder found = new PackChunks.Builder(pack);
        try (Statement ask = connection.createStatement();
                ResultSet r = ask.executeQuery("SELECT id, hash, off, clen, len FROM chunk WHERE pack = " + pack)) {
            while (r.next()) {
                byte[] digest = r.getBytes(2);
                if (digest != null && digest.length == Digest.LENGTH && r.getInt(4) >= 0 && r.getInt(5) >= 0) {
                    found.add(r.getLong(1), r.getLong(3), r.getInt(4), r.getInt(5), digest);
                }
            }
        } catch (SQLException e) {
            return found.build();
        }
        return found.build();
    }

    /**
     * Copies the rows of a table, as many as can be read: from the front up to what cannot be, and from the back. A row that
     * is there already is left as it is.
     *
     * @return how many were copied
     */
    long copy(String table, Sql into) throws IOException {
        List<String> columns = columns(table, into);
        if (columns.isEmpty()) {
            return 0;
        }
        String names = String.join(", ", columns);
        String put = "INSERT OR IGNORE INTO " + table + "(" + names + ") VALUES ("
                + String.join(",", Collections.nCopies(columns.size(), "?")) + ")";
        String order = key(table);
        String all = "SELECT " + names + " FROM " + table;
        long[] copied = new long[1];
        if (!copy(all, columns.size(), put, into, copied) && !order.isEmpty()) {
            copy(all + " ORDER BY " + order, columns.size(), put, into, copied);
        }
        return copied[0];
    }

    private boolean copy(String ask, int columns, String put, Sql into, long[] copied) throws IOException {
        try (Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(ask)) {
            while (rows.next()) {
                @Nullable Object[] values = new @Nullable Object[columns];
                for (int i = 0; i < columns; i++) {
                    Object value = rows.getObject(i + 1);
                    values[i] = value instanceof Integer n ? Long.valueOf(n) : value;
                }
                copied[0] += into.run(put, values);
            }
            return true;
        } catch (SQLException e) {
            return false;
        }
    }

    /** Columns that both have. */
    private List<String> columns(String table, Sql into) throws IOException {
        List<String> mine = new ArrayList<>();
        try (Statement ask = connection.createStatement();
                ResultSet rows = ask.executeQuery("PRAGMA table_info(" + table + ")")) {
            while (rows.next()) {
                mine.add(rows.getString(2));
            }
        } catch (SQLException e) {
            return List.of();
        }
        List<String> theirs = into.list("PRAGMA table_info(" + table + ")", r -> r.getString(2));
        mine.retainAll(theirs);
        return mine;
    }

    /** The columns of the primary key, each backwards. */
    private String key(String table) {
        TreeMap<Integer, String> key = new TreeMap<>();
        try (Statement ask = connection.createStatement();
                ResultSet rows = ask.executeQuery("PRAGMA table_info(" + table + ")")) {
            while (rows.next()) {
                if (rows.getInt(6) > 0) {
                    key.put(rows.getInt(6), rows.getString(2) + " DESC");
                }
            }
        } catch (SQLException e) {
            return "";
        }
        return String.join(", ", key.values());
    }

    @Override
    public void close() throws IOException {
        closeQuietly(connection);
    }
}
