package org.mendedleaf.core.pick;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;

/** Files that an office program really writes are read, compared and mended, and it opens what comes of that. */
class OfficeProgramTest {

    @TempDir
    static Path temp;

    private static Optional<String> program() {
        return Arrays.stream(String.valueOf(System.getenv("PATH")).split(File.pathSeparator))
                .map(p -> Path.of(p, "soffice"))
                .filter(Files::isExecutable)
                .map(Path::toString)
                .findFirst();
    }

    @BeforeAll
    static void there() {
        Assumptions.assumeTrue(
                program().isPresent(), "No office program is installed; its files are not tried. Install LibreOffice.");
    }

    /** Converts files; what comes of them is beside each other in a folder of its own. */
    private static Path convert(String to, Path... files) throws Exception {
        Path out = Files.createTempDirectory(temp, "out");
        List<String> command = new ArrayList<>(List.of(
                program().orElseThrow(),
                "-env:UserInstallation=" + temp.resolve("settings").toUri(),
                "--headless",
                "--convert-to",
                to,
                "--outdir",
                out.toString()));
        Arrays.stream(files).map(Path::toString).forEach(command::add);
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(temp.resolve("said").toFile())
                .start();
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
        return out;
    }

    private static final String HEAD = "<?xml version=\"1.0\" encoding=\"UTF-8\"?><office:document"
            + " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
            + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
            + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
            + " xmlns:style=\"urn:oasis:names:tc:opendocument:xmlns:style:1.0\""
            + " xmlns:fo=\"urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0\""
            + " xmlns:of=\"urn:oasis:names:tc:opendocument:xmlns:of:1.2\" office:version=\"1.3\" office:mimetype=\"";

    private static Path workbook(String name, String... rows) throws IOException {
        StringBuilder xml = new StringBuilder(HEAD)
                .append("application/vnd.oasis.opendocument.spreadsheet\"><office:body><office:spreadsheet>")
                .append("<table:table table:name=\"Fees\">");
        for (String row : rows) {
            xml.append("<table:table-row>");
            for (String cell : row.split("\\|")) {
                if (cell.startsWith("=")) {
                    xml.append("<table:table-cell office:value-type=\"float\" table:formula=\"of:")
                            .append(cell)
                            .append("\"/>");
                } else if (cell.matches("\\d+(\\.\\d+)?")) {
                    xml.append("<table:table-cell office:value-type=\"float\" office:value=\"")
                            .append(cell)
                            .append("\"/>");
                } else {
                    xml.append("<table:table-cell office:value-type=\"string\"><text:p>")
                            .append(cell)
                            .append("</text:p></table:table-cell>");
                }
            }
            xml.append("</table:table-row>");
        }
        xml.append("</table:table></office:spreadsheet></office:body></office:document>");
        return Files.writeString(temp.resolve(name), xml);
    }

    private static Path text(String name, String... paragraphs) throws IOException {
        StringBuilder xml = new StringBuilder(HEAD)
                .append("application/vnd.oasis.opendocument.text\"><office:automatic-styles>")
                .append("<style:style style:name=\"B\" style:family=\"text\">")
                .append("<style:text-properties fo:font-weight=\"bold\"/></style:style></office:automatic-styles>")
                .append("<office:body><office:text>");
        for (String p : paragraphs) {
            String heading = p.startsWith("# ") ? "h" : "p";
            xml.append("<text:")
                    .append(heading)
                    .append(p.startsWith("# ") ? " text:outline-level=\"1\">" : ">")
                    .append(p.replaceFirst("^# ", "")
                            .replaceAll("\\*(\\w+)\\*", "<text:span text:style-name=\"B\">$1</text:span>"))
                    .append("</text:")
                    .append(heading)
                    .append(">");
        }
        xml.append("</office:text></office:body></office:document>");
        return Files.writeString(temp.resolve(name), xml);
    }

    private static Comparison compare(String name, byte[] a, byte[] b) {
        return Compare.compare(Documents.read(name, a, false), a, Documents.read(name, b, false), b);
    }

    private static List<String> rows(Document document) {
        return ((Document.Sheets) document)
                .sheets().get(0).rows().stream()
                        .map(r -> r.cells().stream().map(Document.Cell::shown).collect(Collectors.joining("|")))
                        .toList();
    }

    private static List<String> paragraphs(Document document) {
        return ((Document.Prose) document)
                .sections().get(0).blocks().stream().map(Document.Block::text).toList();
    }

    private static int number(Comparison comparison, String part) {
        return comparison.changes().stream()
                .filter(c -> (c.before() + c.after() + c.where()).contains(part))
                .findFirst()
                .orElseThrow()
                .number();
    }

    @Test
    void cellsAndRowsOfItsWorkbooksComeBackAndItComputesTheSameTotals() throws Exception {
        Path before = workbook(
                "before.fods",
                "who|fee|tax",
                "Ada|10|=[.B2]*2",
                "Bo|20|=[.B3]*2",
                "Cy|30|=[.B4]*2",
                "all|=SUM([.B2:.B4])|=SUM([.C2:.C4])");
        Path after = workbook(
                "after.fods",
                "who|fee|tax",
                "Ada|11|=[.B2]*2",
                "Cy|33|=[.B3]*2",
                "all|=SUM([.B2:.B3])|=SUM([.C2:.C3])");
        List<String> totals = new ArrayList<>();
        for (String kind : List.of("ods", "xlsx")) {
            Path folder = convert(kind, before, after);
            String name = "a." + kind;
            byte[] a = Files.readAllBytes(folder.resolve("before." + kind));
            byte[] b = Files.readAllBytes(folder.resolve("after." + kind));
            assertThat(rows(Documents.read(name, a, false))).endsWith("all|60|120");
            Comparison comparison = compare(name, a, b);
            assertThat(comparison.changes()).as(kind).hasSize(3);
            Picking.Outcome row = Picking.back(name, a, b, comparison, Set.of(number(comparison, "Bo")));
            assertThat(rows(Documents.read(name, row.content(), false)))
                    .as(kind)
                    .containsExactly("who|fee|tax", "Ada|11|22", "Bo|20|40", "Cy|33|66", "all|64|128");
            Picking.Outcome all = Picking.back(name, a, b, comparison, Set.of(1, 2, 3));
            Path made = Files.createDirectories(temp.resolve("made-" + kind));
            Files.write(made.resolve("row." + kind), row.content());
            Files.write(made.resolve("all." + kind), all.content());
            Path read = convert("csv", made.resolve("row." + kind), made.resolve("all." + kind));
            totals.addAll(Files.readAllLines(read.resolve("row.csv")).subList(4, 5));
            totals.addAll(Files.readAllLines(read.resolve("all.csv")).subList(4, 5));
        }
        assertThat(totals).containsExactly("all,64,128", "all,60,120", "all,64,128", "all,60,120");
    }

    @Test
    void paragraphsOfItsTextsComeBackWithTheirLookAndItOpensThem() throws Exception {
        String clause = "The tenant keeps the orchard in *good* order and prunes it each winter.";
        Path before =
                text("before.fodt", "# Lease", clause, "The well is shared with the neighbour.", "Signed by both.");
        Path after = text(
                "after.fodt",
                "# Lease",
                "The tenant keeps the orchard in fair order and prunes it each second winter.",
                "Signed by both.",
                "Nobody wanted this line.");
        for (String kind : List.of("odt", "docx")) {
            Path folder = convert(kind, before, after);
            String name = "a." + kind;
            byte[] a = Files.readAllBytes(folder.resolve("before." + kind));
            byte[] b = Files.readAllBytes(folder.resolve("after." + kind));
            Comparison comparison = compare(name, a, b);
            Integer[] all =
                    comparison.changes().stream().map(Comparison.Change::number).toArray(Integer[]::new);
            byte[] made = Picking.back(name, a, b, comparison, Set.of(all)).content();
            assertThat(paragraphs(Documents.read(name, made, false)))
                    .as(kind)
                    .isEqualTo(paragraphs(Documents.read(name, a, false)));
            Path file = Files.write(
                    Files.createDirectories(temp.resolve("made-" + kind)).resolve(name), made);
            String opened = Files.readString(convert("fodt", file).resolve("a.fodt"));
            assertThat(opened)
                    .contains("Nobody".substring(0, 0) + "The well is shared")
                    .doesNotContain("Nobody wanted");
            assertThat(opened.replaceAll(
                            "(?s).*<text:span text:style-name=\"([^\"]*)\">good</text:span>.*", "bold by $1"))
                    .as(kind + ": the word is still in a style of its own")
                    .startsWith("bold by ");
        }
    }

    @Test
    void everyFormatThatItWritesSaysTheSame() throws Exception {
        Path book = workbook("book.fods", "who|fee", "Ada|10", "all|=SUM([.B2:.B2])");
        Path letter = text("letter.fodt", "# Lease", "The well is shared with the neighbour.");
        for (String kind : List.of("ods", "xlsx", "xls")) {
            byte[] content = Files.readAllBytes(convert(kind, book).resolve("book." + kind));
            assertThat(rows(Documents.read("book." + kind, content, false)))
                    .as(kind)
                    .containsExactly("who|fee", "Ada|10", "all|10");
        }
        for (String kind : List.of("odt", "docx", "doc", "pdf", "rtf")) {
            byte[] content = Files.readAllBytes(convert(kind, letter).resolve("letter." + kind));
            Document read = Documents.read("letter." + kind, content, false);
            assertThat(read).as(kind).isInstanceOf(Document.Prose.class);
            assertThat(String.join(" ", Document.words(read)))
                    .as(kind)
                    .contains("Lease")
                    .contains("The well is shared with the neighbour.");
        }
    }
}
