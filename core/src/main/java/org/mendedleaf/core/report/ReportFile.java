package org.mendedleaf.core.report;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Writes reports as files; the ending of the name says in which form: {@code .html} for printing, {@code .csv}, {@code .json}. */
public final class ReportFile {

    private ReportFile() {}

    /** The forms in which a report is written. */
    public enum Form {
        /** For a spreadsheet: the table that it is about (RFC 4180). */
        CSV,
        /** For programs: all of it. */
        JSON,
        /** For reading and printing: a page that needs nothing else. */
        HTML;

        /**
         * By the ending of a name.
         *
         * @throws IllegalArgumentException with a message for the user, when it is another one
         */
        public static Form of(Path file) {
            String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
            if (name.endsWith(".htm")) {
                return HTML;
            }
            for (Form f : values()) {
                if (name.endsWith("." + f.name().toLowerCase(Locale.ROOT))) {
                    return f;
                }
            }
            throw new IllegalArgumentException(Words.of("report.ending", file.getFileName()));
        }
    }

    /**
     * Writes a report; what was there is replaced as a whole.
     *
     * @param zone in which moments are told on a page
     * @throws IllegalArgumentException with a message for the user, when the ending of the name is none of ours
     */
    public static void write(Report report, Path file, CsvTable.Cells cells, ZoneId zone) throws IOException {
        write(
                switch (Form.of(file)) {
                    case CSV -> csv(report, cells);
                    case JSON ->
                        new ObjectMapper().writerWithDefaultPrettyPrinter().writeValueAsString(report.map());
                    case HTML -> html(report, zone);
                },
                file);
    }

    /** Writes a text; what was there is replaced as a whole. */
    public static void write(String text, Path file) throws IOException {
        Path beside = file.resolveSibling("." + file.getFileName() + ".new");
        try {
            Files.write(beside, text.getBytes(StandardCharsets.UTF_8));
            Files.move(beside, file, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            Files.deleteIfExists(beside);
            throw e;
        }
    }

    private static String csv(Report report, CsvTable.Cells cells) {
        Report.Table table = report.main();
        CsvTable csv = new CsvTable(
                cells, table.columns().stream().map(Report.Column::id).toArray(String[]::new));
        table.rows().forEach(row -> csv.row(row.stream().map(Report.Cell::value).toArray()));
        return csv.text();
    }

    private static String html(Report report, ZoneId zone) {
        HtmlPage page = new HtmlPage(report.title());
        page.note(Words.of("report.made", Formats.full(report.at(), zone)));
        report.paragraphs().forEach(page::paragraph);
        report.warnings().forEach(page::warning);
        for (Report.Table table : report.tables()) {
            if (!table.heading().isEmpty()) {
                page.heading(table.heading());
            }
            if (table.rows().isEmpty()) {
                page.note(Words.of("report.none"));
                continue;
            }
            int[] shown = IntStream.range(0, table.columns().size())
                    .filter(i -> !table.columns().get(i).heading().isEmpty())
                    .filter(i -> table.rows().stream()
                            .anyMatch(row -> !row.get(i).words().isEmpty()))
                    .toArray();
            page.table(
                    IntStream.of(shown).mapToObj(table.columns()::get).toList(),
                    table.rows().subList(0, table.shown()).stream()
                            .map(row -> IntStream.of(shown)
                                    .mapToObj(i -> row.get(i).words())
                                    .toList())
                            .toList());
            if (table.shown() < table.rows().size()) {
                page.note(table.more());
            }
        }
        return page.text();
    }

    /** A cell with a moment: for programs as it is, for people as here. */
    public static Report.Cell moment(java.time.Instant at, ZoneId zone) {
        return new Report.Cell(at, Formats.dated(at, zone));
    }

    /** A cell with a size in bytes. */
    public static Report.Cell size(long bytes) {
        return new Report.Cell(bytes, Formats.size(bytes));
    }

    /** A cell with a number. */
    public static Report.Cell number(long n) {
        return new Report.Cell(n, Formats.number(n));
    }

    /** A cell with words that programs get in pieces elsewhere. */
    public static Report.Cell words(String words) {
        return Report.Cell.of(words);
    }

    /** The words of a row, for a table in a terminal. */
    public static List<String> words(List<Report.Cell> row) {
        return row.stream().map(Report.Cell::words).toList();
    }
}
