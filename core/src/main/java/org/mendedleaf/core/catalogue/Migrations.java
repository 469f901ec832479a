package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.List;

/**
 * Brings the tables of a catalogue from any earlier version to the newest: one script a version, each in one transaction that
 * ends with the version's number in {@code PRAGMA user_version}. So a kill in between leaves a whole version.
 *
 * <p>Catalogues of version 6 say that they are of version 5; the two have the same tables.
 */
public final class Migrations {

    private static final List<String> SCRIPTS = List.of(
            "V1__lines",
            "V2__systems",
            "V3__snapshots",
            "V4__intake",
            "V5__retention",
            "V6__unfolding",
            "V7__damage",
            "V8__holds",
            "V9__redo",
            "V10__findings",
            "V11__copies",
            "V12__rhythms",
            "V13__unfold_later",
            "V14__large_vaults",
            "V15__recent_changes",
            "V16__ended_spans");

    /** The newest version. */
    static final int NEWEST = SCRIPTS.size();

    private Migrations() {}

    /** Runs what is missing; the connection is outside a transaction before and afterwards. */
    public static void run(Connection connection) throws SQLException {
        run(connection, NEWEST);
    }

    /** Runs what is missing up to a version. */
    static void run(Connection connection, int until) throws SQLException {
        int version = Catalogue.version(connection);
        for (int next = version + 1; next <= until; next++) {
            execute(connection, "BEGIN IMMEDIATE");
            try {
                for (String one : statements(SCRIPTS.get(next - 1))) {
                    execute(connection, one);
                }
                execute(connection, "PRAGMA user_version = " + next);
                execute(connection, "COMMIT");
            } catch (SQLException e) {
                execute(connection, "ROLLBACK");
                throw e;
            }
        }
    }

    private static void execute(Connection connection, String sql) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    /** The statements of a script; each ends with a semicolon at the end of a line. */
    private static List<String> statements(String script) {
        try (InputStream in = Migrations.class.getResourceAsStream("migration/" + script + ".sql")) {
            if (in == null) {
                throw new IllegalStateException("expected the script " + script + " inside the program");
            }
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            return Arrays.stream(text.replaceAll("(?m)^--.*$", "").split(";\\s*(?:\\n|$)"))
                    .map(String::strip)
                    .filter(one -> !one.isEmpty())
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
