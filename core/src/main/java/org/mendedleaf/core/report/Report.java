package org.mendedleaf.core.report;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What is written down for others: a title, facts, and tables. One thing is said once and comes out as a page for printing, as a
 * table for a spreadsheet, or as JSON for programs, see {@link ReportFile}.
 *
 * <pre>{@code
 * Report report = new Report("versions", "The versions of lease.odt", now);
 * report.fact("path", "lease.odt", "It is in Leases.");
 * Report.Table table = report.table("versions", "Versions", Report.text("who", "By"), Report.number("bytes", "Size"));
 * table.row(new Report.Cell("Ines", "Ines"), new Report.Cell(1200, "1.2 KB"));
 * }</pre>
 */
public final class Report {

    private final String kind;
    private final String title;
    private final Instant at;
    private final Map<String, Object> facts = new LinkedHashMap<>();
    private final List<String> paragraphs = new ArrayList<>();
    private final List<String> warnings = new ArrayList<>();
    private final List<Table> tables = new ArrayList<>();
    private @Nullable Table main;

    /**
     * A report of nothing yet.
     *
     * @param kind for programs, a word
     * @param title for people
     * @param at when it was made
     */
    public Report(String kind, String title, Instant at) {
        this.kind = kind;
        this.title = title;
        this.at = at;
    }

    /** What stands in a column. */
    enum Holds {
        WORDS,
        /** Short texts that stay on one line, such as moments. */
        SHORT,
        /** Set to the right. */
        NUMBERS,
        /** Texts without spaces that may be long. */
        PATHS
    }

    /**
     * A column.
     *
     * @param id for programs
     * @param heading for people; empty for one that people are not shown
     */
    public record Column(String id, String heading, Holds holds) {}

    /** A column of words. */
    public static Column text(String id, String heading) {
        return new Column(id, heading, Holds.WORDS);
    }

    /** A column of short texts, such as moments and names. */
    public static Column brief(String id, String heading) {
        return new Column(id, heading, Holds.SHORT);
    }

    /** A column of numbers. */
    public static Column number(String id, String heading) {
        return new Column(id, heading, Holds.NUMBERS);
    }

    /** A column of paths. */
    public static Column path(String id, String heading) {
        return new Column(id, heading, Holds.PATHS);
    }

    /** A column for programs only. */
    public static Column hidden(String id) {
        return new Column(id, "", Holds.WORDS);
    }

    /**
     * What stands in a row under a column.
     *
     * @param value for programs: a text, a number, a moment, or null for nothing
     * @param words for people
     */
    public record Cell(@Nullable Object value, String words) {
        /** A text that is the same for everybody. */
        public static Cell of(String text) {
            return new Cell(text, text);
        }
    }

    /** A table. */
    public static final class Table {
        private final String id;
        private final String heading;
        private final List<Column> columns;
        private final List<List<Cell>> rows = new ArrayList<>();
        private int shown = Integer.MAX_VALUE;
        private String more = "";

        private Table(String id, String heading, List<Column> columns) {
            this.id = id;
            this.heading = heading;
            this.columns = columns;
        }

        /** Adds a row with a cell for each column. */
        public void row(Cell... cells) {
            if (cells.length != columns.size()) {
                throw new IllegalArgumentException("expected " + columns.size() + " cells, got " + cells.length);
            }
            rows.add(List.of(cells));
        }

        /** Shows people so many rows only, and says below them what programs get beyond that. */
        public void show(int most, String words) {
            shown = most;
            more = words;
        }

        String id() {
            return id;
        }

        String heading() {
            return heading;
        }

        List<Column> columns() {
            return columns;
        }

        /** All rows, in the order in which they came. */
        public List<List<Cell>> rows() {
            return rows;
        }

        int shown() {
            return Math.min(shown, rows.size());
        }

        String more() {
            return more;
        }
    }

    /** The table that the report is about, which is all that a spreadsheet gets: the first one, unless another one was named. */
    public Table main() {
        return main == null ? tables.get(0) : main;
    }

    /** Names the table that the report is about. */
    public void main(Table table) {
        main = table;
    }

    /** A table below those before it. */
    public Table table(String id, String heading, Column... columns) {
        Table table = new Table(id, heading, List.of(columns));
        tables.add(table);
        return table;
    }

    /** A fact: a value with a name for programs, and a sentence for people, or none. */
    public Report fact(String name, @Nullable Object value, String sentence) {
        facts.put(name, value == null ? "" : value);
        return sentence.isEmpty() ? this : paragraph(sentence);
    }

    /** A sentence for people. */
    public Report paragraph(String sentence) {
        paragraphs.add(sentence);
        return this;
    }

    /** A sentence that nobody should miss. */
    public Report warning(String sentence) {
        warnings.add(sentence);
        return this;
    }

    String kind() {
        return kind;
    }

    String title() {
        return title;
    }

    Instant at() {
        return at;
    }

    Map<String, Object> facts() {
        return facts;
    }

    /** What is said to people above the tables. */
    public List<String> paragraphs() {
        return paragraphs;
    }

    /** What nobody should miss. */
    public List<String> warnings() {
        return warnings;
    }

    /** The tables, in order. */
    public List<Table> tables() {
        return tables;
    }

    /** With names for its parts, as JSON has it. */
    public Map<String, Object> map() {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("report", kind);
        map.put("at", at.toString());
        map.putAll(facts);
        map.put("warnings", warnings);
        for (Table t : tables) {
            List<Map<String, Object>> rows = new ArrayList<>();
            for (List<Cell> row : t.rows) {
                Map<String, Object> cells = new LinkedHashMap<>();
                for (int i = 0; i < row.size(); i++) {
                    Object value = row.get(i).value();
                    cells.put(t.columns.get(i).id(), value instanceof Instant moment ? moment.toString() : value);
                }
                rows.add(cells);
            }
            map.put(t.id, rows);
        }
        return map;
    }
}
