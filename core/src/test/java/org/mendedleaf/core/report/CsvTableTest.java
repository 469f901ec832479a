package org.mendedleaf.core.report;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.time.Instant;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Tables for others hold what they were given, and nothing that is computed when somebody opens them. */
class CsvTableTest {

    private static List<CSVRecord> read(CsvTable table) throws Exception {
        try (CSVParser parser = CSVParser.parse(new StringReader(table.text()), CSVFormat.RFC4180)) {
            return parser.getRecords();
        }
    }

    private static String cell(CsvTable.Cells cells, Object value) throws Exception {
        CsvTable table = new CsvTable(cells, "only");
        table.row(value);
        return read(table).get(1).get(0);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "=HYPERLINK(\"http://x\")",
                "+cmd|' /C calc'!A0",
                "-2+3",
                "@SUM(A1)",
                "\t=1",
                "\r=1",
                "-",
                "+49 30 1234",
                "-1e5"
            })
    void whatASpreadsheetWouldComputeStaysText(String text) throws Exception {
        assertThat(cell(CsvTable.Cells.TEXT, text)).isEqualTo("'" + text);
        assertThat(cell(CsvTable.Cells.AS_IS, text)).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "a=b", "notes.txt", " =1", "-12", "+3.5", "-0,25", "2026-05-04"})
    void whatIsNoFormulaStaysAsItIs(String text) throws Exception {
        assertThat(cell(CsvTable.Cells.TEXT, text)).isEqualTo(text);
    }

    @Test
    void numbersMomentsAndNothingStayWhatTheyAre() throws Exception {
        Instant at = Instant.parse("2026-05-04T08:00:00Z");
        CsvTable table = new CsvTable(CsvTable.Cells.TEXT, "n", "d", "at", "none");
        table.row(-5, -1.5, at, null);
        assertThat(read(table).get(0).toList()).containsExactly("n", "d", "at", "none");
        assertThat(read(table).get(1).toList()).containsExactly("-5", "-1.5", at.toString(), "");
    }

    @Property(tries = 60)
    void whateverIsWrittenIsReadAgain(@ForAll List<String> texts) throws Exception {
        if (texts.isEmpty()) {
            return;
        }
        CsvTable table = new CsvTable(CsvTable.Cells.AS_IS, "any");
        table.row(texts.toArray());
        assertThat(read(table).get(1).toList()).isEqualTo(texts);
    }

    @Property(tries = 60)
    void noCellBeginsAsAFormulaDoesUnlessItIsANumber(@ForAll String text) throws Exception {
        String cell = cell(CsvTable.Cells.TEXT, text);
        assertThat(cell.isEmpty() || "=@\t\r".indexOf(cell.charAt(0)) < 0).isTrue();
        assertThat(cell).endsWith(text);
    }

    @Test
    void aPageHoldsNoMarkupButItsOwn() {
        String bad = "<script>alert(1)</script> & \"x\"";
        String html = new HtmlPage(bad)
                .paragraph(bad)
                .warning(bad)
                .table(List.of(bad, "n"), 1, List.of(List.of(bad, "3")))
                .text();
        assertThat(html)
                .doesNotContain("<script>")
                .contains("&lt;script&gt;alert(1)&lt;/script&gt; &amp; &quot;x&quot;");
        assertThat(html).contains("<td class=\"n\">3</td>").contains("<th class=\"n\">n</th>");
        assertThat(html).startsWith("<!DOCTYPE html>").endsWith("</main></body></html>\n");
    }
}
