package org.mendedleaf.core.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One report, said once, is a page, a table, and JSON. */
class ReportFileTest {

    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");

    @TempDir
    Path temp;

    private Report report;
    private Report.Table table;

    @BeforeEach
    void make() {
        report = new Report("trees", "Trees & <names>", NOW);
        report.fact("count", 2, "There are 2.").warning("One is ill.");
        Report.Table rules = report.table("rules", "Rules", Report.text("says", "Says"));
        rules.row(Report.Cell.of("Prune in January."));
        table = report.table(
                "trees",
                "All of them",
                Report.path("name", "Name"),
                Report.number("bytes", "Size"),
                Report.text("ill", "Ill"),
                Report.hidden("digest"));
        report.main(table);
        table.row(Report.Cell.of("=Bramley"), ReportFile.size(1200), Report.Cell.of(""), Report.Cell.of("ab12"));
        table.row(Report.Cell.of("Discovery"), new Report.Cell(null, ""), Report.Cell.of(""), Report.Cell.of("cd34"));
    }

    private String written(String name) throws IOException {
        Path file = temp.resolve(name);
        ReportFile.write(report, file, CsvTable.Cells.TEXT, ZoneOffset.UTC);
        return Files.readString(file);
    }

    @Test
    void aPageHasWhatPeopleReadAndNothingElse() throws IOException {
        String page = written("a.html");
        assertThat(page)
                .contains("<h1>Trees &amp; &lt;names&gt;</h1>")
                .contains("<p>There are 2.</p>")
                .contains("<strong>One is ill.</strong>")
                .contains("<h2>Rules</h2>")
                .contains("1.20 kB")
                .doesNotContain("ab12")
                .as("a column in which nothing stands is left out")
                .doesNotContain("<th class=\"w\">Ill");
        assertThat(page).as("nothing is fetched").doesNotContain("http");
    }

    @Test
    void aTableHasTheRowsThatItIsAboutAndNothingThatASpreadsheetComputes() throws IOException {
        assertThat(written("a.csv").lines())
                .containsExactly("name,bytes,ill,digest", "'=Bramley,1200,,ab12", "Discovery,,,cd34");
    }

    @Test
    void jsonHasAllOfIt() throws IOException {
        assertThat(written("a.json"))
                .contains("\"report\" : \"trees\"")
                .contains("\"at\" : \"2026-05-04T08:00:00Z\"")
                .contains("\"count\" : 2")
                .contains("\"digest\" : \"ab12\"")
                .contains("\"bytes\" : null")
                .contains("\"says\" : \"Prune in January.\"");
    }

    @Test
    void aPageShowsTheFirstRowsOfManyAndSaysSo() throws IOException {
        table.show(1, "1 more.");
        assertThat(written("a.html"))
                .contains("=Bramley")
                .doesNotContain("Discovery")
                .contains("1 more.");
        assertThat(written("a.csv")).contains("Discovery");
    }

    @Test
    void anotherEndingIsRefusedAndNothingIsWritten() {
        assertThatThrownBy(() -> written("a.doc"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(".csv, .json or .html");
        assertThat(temp).isEmptyDirectory();
    }

    @Test
    void whatWasThereStaysWhenItCannotBeWritten() throws IOException {
        Path folder = Files.createDirectories(temp.resolve("a.html/below"));
        assertThatThrownBy(() -> written("a.html")).isInstanceOf(IOException.class);
        assertThat(folder).exists();
        assertThat(temp.resolve(".a.html.new")).doesNotExist();
    }
}
