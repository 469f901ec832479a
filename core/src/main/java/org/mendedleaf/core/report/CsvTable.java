package org.mendedleaf.core.report;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;

/**
 * A table as CSV (RFC 4180). A text that a spreadsheet would compute when somebody opens the file, such as a file that is
 * named {@code =HYPERLINK(...)}, stands there with an apostrophe before it, unless its reader wants it as it is.
 *
 * <pre>{@code
 * CsvTable table = new CsvTable(Cells.TEXT, "path", "bytes");
 * table.row("notes.txt", 120);
 * Files.writeString(file, table.text());
 * }</pre>
 */
public final class CsvTable {

    /** How texts are written that begin as a formula does. */
    public enum Cells {
        /** So that they stay text in every spreadsheet. */
        TEXT,
        /** As they are, for programs that compute nothing. */
        AS_IS
    }

    private final StringWriter out = new StringWriter();
    private final CSVPrinter csv;
    private final Cells cells;

    /** A table with these names above its columns. */
    public CsvTable(Cells cells, String... columns) {
        this.cells = cells;
        try {
            this.csv = new CSVPrinter(out, CSVFormat.RFC4180);
            csv.printRecord((Object[]) columns);
        } catch (IOException e) {
            // It is written into memory.
            throw new UncheckedIOException(e);
        }
    }

    /** Adds a row; null is an empty cell, numbers and moments stay what they are. */
    public void row(@Nullable Object... values) {
        @Nullable Object[] safe = values.clone();
        for (int i = 0; i < safe.length; i++) {
            safe[i] = values[i] instanceof CharSequence text ? cell(text.toString()) : values[i];
        }
        try {
            csv.printRecord(safe);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private String cell(String text) {
        return cells == Cells.TEXT && isFormula(text) ? "'" + text : text;
    }

    /** Whether a spreadsheet may take a text for a formula; a number is none, also where it is less than 0. */
    static boolean isFormula(String text) {
        if (text.isEmpty() || "=+-@\t\r".indexOf(text.charAt(0)) < 0) {
            return false;
        }
        return !text.matches("[+-]\\d{1,15}([.,]\\d{1,15})?");
    }

    /** All of it. */
    public String text() {
        return out.toString();
    }
}
