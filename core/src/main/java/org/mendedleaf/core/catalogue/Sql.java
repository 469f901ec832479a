package org.mendedleaf.core.catalogue;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;

/** Statements on one connection, prepared once, with errors in the terms of the vault. One thread at a time. */
public final class Sql implements AutoCloseable {

    private final VaultFolder vault;
    private final Connection connection;
    private final Map<String, PreparedStatement> prepared = new HashMap<>();

    public Sql(VaultFolder vault, Connection connection) {
        this.vault = vault;
        this.connection = connection;
    }

    /** Makes a value of a row. */
    @FunctionalInterface
    public interface Row<T> {
        T of(ResultSet row) throws SQLException, VaultException;
    }

    public <T> List<T> list(String sql, Row<T> mapper, @Nullable Object... values) throws VaultException {
        try (ResultSet rows = bind(sql, values).executeQuery()) {
            List<T> found = new ArrayList<>();
            while (rows.next()) {
                found.add(mapper.of(rows));
            }
            return found;
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    /** Takes a row. */
    @FunctionalInterface
    public interface Each {
        void row(ResultSet row) throws SQLException, VaultException;
    }

    /** Gives each row, and keeps none: they may be many millions. */
    public void each(String sql, Each taker, @Nullable Object... values) throws VaultException {
        try (ResultSet rows = bind(sql, values).executeQuery()) {
            while (rows.next()) {
                taker.row(rows);
            }
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    /** Says of a row whether it was the last that is wanted. */
    @FunctionalInterface
    interface Last {
        boolean is(ResultSet row) throws SQLException, VaultException;
    }

    /** Gives each row, until one is the last that is wanted. */
    void until(String sql, Last last, @Nullable Object... values) throws VaultException {
        try (ResultSet rows = bind(sql, values).executeQuery()) {
            boolean go = true;
            while (go && rows.next()) {
                go = !last.is(rows);
            }
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    <T> Optional<T> first(String sql, Row<T> mapper, @Nullable Object... values) throws VaultException {
        try (ResultSet rows = bind(sql, values).executeQuery()) {
            return rows.next() ? Optional.of(mapper.of(rows)) : Optional.empty();
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    /** The first number of the first row, or 0. */
    public long number(String sql, @Nullable Object... values) throws VaultException {
        return first(sql, row -> row.getLong(1), values).orElse(0L);
    }

    /** Writes the whole database into a file that is not there, without what was deleted from it. */
    void whole(Path file) throws VaultException {
        try {
            boolean before = connection.getAutoCommit();
            connection.rollback();
            connection.setAutoCommit(true);
            try (Statement copy = connection.createStatement()) {
                copy.execute("VACUUM INTO '" + file.toString().replace("'", "''") + "'");
            } finally {
                connection.setAutoCommit(before);
            }
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    public int run(String sql, @Nullable Object... values) throws VaultException {
        try {
            return bind(sql, values).executeUpdate();
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }

    private PreparedStatement bind(String sql, @Nullable Object[] values) throws SQLException {
        PreparedStatement statement = prepared.get(sql);
        if (statement == null) {
            statement = connection.prepareStatement(sql);
            prepared.put(sql, statement);
        }
        for (int i = 0; i < values.length; i++) {
            Object value = values[i];
            if (value instanceof Long n) {
                statement.setLong(i + 1, n);
            } else if (value instanceof Integer n) {
                statement.setInt(i + 1, n);
            } else if (value instanceof byte[] b) {
                statement.setBytes(i + 1, b);
            } else {
                statement.setString(i + 1, value == null ? null : value.toString());
            }
        }
        return statement;
    }

    /** The vault whose catalogue this is. */
    VaultFolder vault() {
        return vault;
    }

    /** How many different statements were prepared. */
    int prepared() {
        return prepared.size();
    }

    public Connection connection() {
        return connection;
    }

    @Override
    public void close() throws VaultException {
        try {
            connection.close();
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
    }
}
