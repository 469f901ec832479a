package org.mendedleaf.core.check;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * The columns of a table.
 *
 * @param columns all of them
 * @param key those by which a row is found; the number of the row where the table has no others
 */
record TableShape(String table, List<String> columns, List<String> key) {

    /** As the database has it. */
    static TableShape of(Connection connection, String table) throws SQLException {
        TreeMap<Integer, String> key = new TreeMap<>();
        List<String> columns = new ArrayList<>();
        try (Statement ask = connection.createStatement();
                ResultSet rows = ask.executeQuery("PRAGMA table_info(" + table + ")")) {
            while (rows.next()) {
                columns.add(rows.getString(2));
                if (rows.getInt(6) > 0) {
                    key.put(rows.getInt(6), rows.getString(2));
                }
            }
        }
        return new TableShape(table, columns, key.isEmpty() ? List.of("rowid") : List.copyOf(key.values()));
    }

    /** All rows, by their key. */
    String all() {
        return "SELECT " + String.join(", ", columns) + " FROM " + table + " ORDER BY " + String.join(", ", key);
    }

    /**
     * Whether the table has the same rows in another database that is attached: as many, and each row of this one is there, column by
     * column, byte by byte.
     */
    String sameAs(String other) {
        String found = key.stream().map(k -> "b." + k + " = a." + k).collect(Collectors.joining(" AND "));
        String differs = columns.stream()
                .map(c -> "a." + c + " IS NOT b." + c + " COLLATE BINARY")
                .collect(Collectors.joining(" OR "));
        return "SELECT (SELECT count(*) FROM main." + table + " NOT INDEXED) = (SELECT count(*) FROM " + other + "."
                + table
                + " NOT INDEXED) AND NOT EXISTS (SELECT 1 FROM main." + table + " a LEFT JOIN " + other + "." + table
                + " b ON "
                + found + " WHERE b." + key.get(0) + " IS NULL OR " + differs + ")";
    }
}
