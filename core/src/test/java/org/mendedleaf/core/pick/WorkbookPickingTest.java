package org.mendedleaf.core.pick;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.document.Made.rows;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.apache.poi.ss.usermodel.Workbook;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.document.Made;

class WorkbookPickingTest {

    private static Comparison compare(String name, byte[] a, byte[] b) {
        return Compare.compare(Documents.read(name, a, false), a, Documents.read(name, b, false), b);
    }

    private static Picking.Outcome back(String name, byte[] a, byte[] b, Integer... numbers) throws IOException {
        return Picking.back(name, a, b, compare(name, a, b), Set.of(numbers));
    }

    /** What the first sheet shows, a line for each row. */
    private static List<String> shown(String name, byte[] content) {
        Document.Sheets sheets = (Document.Sheets) Documents.read(name, content, false);
        return sheets.sheets().get(0).rows().stream()
                .map(r -> r.cells().stream().map(Document.Cell::shown).collect(Collectors.joining(",")))
                .toList();
    }

    private static List<String> formulas(String name, byte[] content) {
        Document.Sheets sheets = (Document.Sheets) Documents.read(name, content, false);
        return sheets.sheets().stream()
                .flatMap(s -> s.rows().stream())
                .flatMap(r -> r.cells().stream())
                .map(Document.Cell::formula)
                .filter(f -> !f.isEmpty())
                .toList();
    }

    private static Map<String, String> parts(byte[] content) throws IOException {
        Map<String, String> parts = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
                parts.put(e.getName(), new String(zip.readAllBytes(), StandardCharsets.ISO_8859_1));
            }
        }
        return parts;
    }

    /** An OpenDocument sheet of these rows as XML. */
    private static byte[] ods(String styles, String... rows) {
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put("mimetype", "application/vnd.oasis.opendocument.spreadsheet");
        parts.put(
                "content.xml",
                "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<office:document-content"
                        + " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                        + " xmlns:style=\"urn:oasis:names:tc:opendocument:xmlns:style:1.0\""
                        + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
                        + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
                        + " xmlns:fo=\"urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0\""
                        + " xmlns:of=\"urn:oasis:names:tc:opendocument:xmlns:of:1.2\">"
                        + "<office:automatic-styles>" + styles + "</office:automatic-styles>"
                        + "<office:body><office:spreadsheet><table:table table:name=\"Fees\">"
                        + "<table:table-column table:number-columns-repeated=\"4\"/>"
                        + String.join("\n", rows)
                        + "</table:table></office:spreadsheet></office:body></office:document-content>");
        parts.put("meta.xml", "<meta>who knows</meta>");
        return Made.zip(parts);
    }

    private static String row(String... cells) {
        return "<table:table-row>" + String.join("", cells) + "</table:table-row>";
    }

    private static String text(String text) {
        return "<table:table-cell office:value-type=\"string\"><text:p>" + text + "</text:p></table:table-cell>";
    }

    private static String number(String style, int value) {
        return "<table:table-cell table:style-name=\"" + style + "\" office:value-type=\"float\" office:value=\""
                + value + "\"><text:p>" + value + ".00</text:p></table:table-cell>";
    }

    private static String plain(int value) {
        return "<table:table-cell office:value-type=\"float\" office:value=\"" + value + "\"><text:p>" + value
                + "</text:p></table:table-cell>";
    }

    private static String sum(String formula, int value) {
        return "<table:table-cell table:formula=\"of:=" + formula + "\" office:value-type=\"float\" office:value=\""
                + value + "\"><text:p>" + value + ".00</text:p></table:table-cell>";
    }

    private static final String MONEY =
            "<style:style style:name=\"ce1\" style:family=\"table-cell\" fo:color=\"#c00\"/>";
    private static final String PLAIN =
            "<style:style style:name=\"ce1\" style:family=\"table-cell\" fo:color=\"#000\"/>";

    @Test
    void aCellComesBackAndTheTotalThatNamesItIsComputedAnew() throws IOException {
        String head = row(text("who"), text("fee"));
        byte[] a = ods(
                MONEY,
                head,
                row(text("Ada"), number("ce1", 10)),
                row(text("Bo"), number("ce1", 20)),
                row(text("all"), sum("SUM([.B2:.B3])", 30)));
        byte[] b = ods(
                MONEY,
                head,
                row(text("Ada"), number("ce1", 11)),
                row(text("Bo"), number("ce1", 22)),
                row(text("all"), sum("SUM([.B2:.B3])", 33)));
        Picking.Outcome made = back("a.ods", a, b, 2);
        assertThat(shown("a.ods", made.content())).containsExactly("who,fee", "Ada,11.00", "Bo,20.00", "all,31.00");
        assertThat(made.also())
                .singleElement()
                .asString()
                .contains("One formula")
                .contains("computed anew");
        Map<String, String> was = parts(b);
        Map<String, String> is = parts(made.content());
        assertThat(is.keySet()).containsExactlyElementsOf(was.keySet());
        assertThat(is.get("meta.xml")).isEqualTo(was.get("meta.xml"));
        assertThat(is.get("content.xml"))
                .as("everything else stays as it is written")
                .isEqualTo(was.get("content.xml")
                        .replace("office:value=\"22\"", "office:value=\"20\"")
                        .replace("22.00", "20.00")
                        .replace("office:value=\"33\"", "office:value=\"31\"")
                        .replace("33.00", "31.00"));
    }

    @Test
    void aRowComesBackWithItsLookAndSumsReachOverItAgain() throws IOException {
        String head = row(text("who"), text("fee"));
        byte[] a = ods(
                MONEY,
                head,
                row(text("Ada"), number("ce1", 10)),
                row(text("Bo"), number("ce1", 20)),
                row(text("all"), sum("SUM([.B2:.B3])", 30)));
        byte[] b = ods(PLAIN, head, row(text("Ada"), number("ce1", 10)), row(text("all"), sum("SUM([.B2:.B2])", 10)));
        Picking.Outcome made = back("a.ods", a, b, 1);
        assertThat(shown("a.ods", made.content())).containsExactly("who,fee", "Ada,10.00", "Bo,20.00", "all,30.00");
        assertThat(formulas("a.ods", made.content())).containsExactly("=SUM([.B2:.B3])");
        String content = parts(made.content()).get("content.xml");
        assertThat(content)
                .as("the earlier look under another name")
                .contains("style:name=\"ce1_1\" style:family=\"table-cell\" fo:color=\"#c00\"")
                .contains("table:style-name=\"ce1_1\" office:value-type=\"float\" office:value=\"20\"");
    }

    @Test
    void aRowThatCameGoesAndARowThatWasMovedGoesBack() throws IOException {
        String head = row(text("who"), text("fee"));
        String ada = row(text("Ada"), number("ce1", 10));
        String bo = row(text("Bo"), number("ce1", 20));
        String cy = row(text("Cy"), number("ce1", 30));
        byte[] a = ods(MONEY, head, ada, bo, cy, row(text("all"), sum("SUM([.B2:.B4])", 60)));
        byte[] b = ods(
                MONEY,
                head,
                ada,
                bo,
                row(text("Di"), number("ce1", 5)),
                cy,
                row(text("all"), sum("SUM([.B2:.B5])", 65)));
        byte[] made = back("a.ods", a, b, 1).content();
        assertThat(parts(made).get("content.xml").replace("\n", ""))
                .isEqualTo(parts(a).get("content.xml").replace("\n", ""));
        byte[] moved = ods(MONEY, head, cy, ada, bo, row(text("all"), sum("SUM([.B2:.B4])", 60)));
        byte[] back = back("a.ods", a, moved, 1).content();
        assertThat(shown("a.ods", back)).isEqualTo(shown("a.ods", a));
        assertThat(formulas("a.ods", back)).containsExactly("=SUM([.B2:.B4])");
    }

    @Test
    void elementsThatStandForManyRowsAndCellsAreDividedWhereSomethingComesBack() throws IOException {
        String same = "<table:table-row table:number-rows-repeated=\"3\"><table:table-cell office:value-type=\"float\""
                + " office:value=\"7\" table:number-columns-repeated=\"4\"><text:p>7</text:p></table:table-cell>"
                + "</table:table-row>";
        String other = row(plain(7), plain(7), plain(2), plain(1));
        String seven = row("<table:table-cell office:value-type=\"float\" office:value=\"7\""
                + " table:number-columns-repeated=\"4\"><text:p>7</text:p></table:table-cell>");
        byte[] a = ods("", seven, other, seven);
        byte[] b = ods("", same);
        assertThat(compare("a.ods", a, b).changes()).hasSize(2);
        assertThat(shown("a.ods", back("a.ods", a, b, 2).content())).containsExactly("7,7,7,7", "7,7,7,1", "7,7,7,7");
        assertThat(shown("a.ods", back("a.ods", a, b, 1, 2).content()))
                .containsExactly("7,7,7,7", "7,7,2,1", "7,7,7,7");
    }

    @Test
    void whatNamesRowsElsewhereKeepsWholeRowsFromBeingTakenBackButNotCells() {
        String head = row(text("who"), text("fee"));
        String named = "</table:table><table:named-expressions><table:named-range table:name=\"all\""
                + " table:cell-range-address=\"$Fees.$B$2:$B$3\"/></table:named-expressions><table:table table:name=\"x\">";
        byte[] a = ods("", head, row(text("Ada"), number("x", 1)), row(text("Bo"), number("x", 2)), named);
        byte[] b = ods("", head, row(text("Ada"), number("x", 3)), named);
        assertThatThrownBy(() -> back("a.ods", a, b, 2)).hasMessageContaining("says in another place");
        assertThat(compare("a.ods", a, b).changes()).hasSize(2);
        assertThat(shownAfter(a, b)).contains("Ada,1.00");
    }

    private static List<String> shownAfter(byte[] a, byte[] b) {
        try {
            return shown("a.ods", back("a.ods", a, b, 1).content());
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Test
    void aCellWithAPictureOrANoteInItIsRefusedAndNothingIsMade() {
        String odd = "<table:table-cell office:value-type=\"string\"><text:p>x</text:p><draw:frame"
                + " xmlns:draw=\"urn:oasis:names:tc:opendocument:xmlns:drawing:1.0\"/></table:table-cell>";
        byte[] a = ods("", row(text("k"), text("v")), row(text("same"), text("x1"), text("same too")));
        byte[] b = ods("", row(text("k"), text("v")), row(text("same"), odd, text("same too")));
        assertThatThrownBy(() -> back("a.ods", a, b, 1)).hasMessageContaining("cannot be taken back alone");
    }

    private static byte[] xlsx(java.util.function.Consumer<XSSFSheet> fill) throws IOException {
        try (XSSFWorkbook book = new XSSFWorkbook();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            XSSFSheet sheet = book.createSheet("Fees");
            fill.accept(sheet);
            book.getCreationHelper().createFormulaEvaluator().evaluateAll();
            book.write(out);
            return out.toByteArray();
        }
    }

    private static void put(XSSFSheet sheet, int row, Object... cells) {
        var r = sheet.createRow(row);
        for (int c = 0; c < cells.length; c++) {
            if (cells[c] instanceof Integer n) {
                r.createCell(c).setCellValue(n);
            } else if (cells[c] instanceof String s && s.startsWith("=")) {
                r.createCell(c).setCellFormula(s.substring(1));
            } else {
                r.createCell(c).setCellValue(cells[c].toString());
            }
        }
    }

    @Test
    void cellsAndRowsOfAWorkbookComeBackAndOtherProgramsReadIt() throws IOException {
        byte[] a = xlsx(s -> {
            put(s, 0, "who", "fee", "tax");
            put(s, 1, "Ada", 10, "=B2*2");
            put(s, 2, "Bo", 20, "=B3*2");
            put(s, 3, "Cy", 30, "=B4*2");
            put(s, 4, "all", "=SUM(B2:B4)", "=SUM(C2:C4)");
        });
        byte[] b = xlsx(s -> {
            put(s, 0, "who", "fee", "tax");
            put(s, 1, "Ada & co", 10, "=B2*2");
            put(s, 2, "Cy", 33, "=B3*2");
            put(s, 3, "all", "=SUM(B2:B3)", "=SUM(C2:C3)");
        });
        List<Comparison.Change> changes = compare("a.xlsx", a, b).changes();
        assertThat(changes).hasSize(3);
        byte[] row = back("a.xlsx", a, b, 2).content();
        assertThat(shown("a.xlsx", row))
                .containsExactly("who,fee,tax", "Ada & co,10,20", "Bo,20,40", "Cy,33,66", "all,63,126");
        assertThat(formulas("a.xlsx", row)).containsExactly("=B2*2", "=B3*2", "=B4*2", "=SUM(B2:B4)", "=SUM(C2:C4)");
        byte[] all = back("a.xlsx", a, b, 1, 2, 3).content();
        assertThat(shown("a.xlsx", all)).isEqualTo(shown("a.xlsx", a));
        try (Workbook book = new XSSFWorkbook(new ByteArrayInputStream(all))) {
            book.getCreationHelper().createFormulaEvaluator().evaluateAll();
            assertThat(book.getSheetAt(0).getRow(4).getCell(2).getNumericCellValue())
                    .isEqualTo(120);
        }
    }

    @Test
    void mergedHeadsNamesFiltersAndSelectionsFollowTheRowsOfAWorkbook() throws IOException {
        java.util.function.BiConsumer<XSSFSheet, Integer> rest = (s, row) -> {
            s.addMergedRegion(new CellRangeAddress(0, 0, 0, 1));
            s.addMergedRegion(new CellRangeAddress(row, row, 0, 1));
            s.setAutoFilter(new CellRangeAddress(1, row - 1, 0, 1));
            var name = s.getWorkbook().createName();
            name.setNameName("fees");
            name.setRefersToFormula("Fees!$B$2:$B$" + row);
        };
        byte[] a = xlsx(s -> {
            put(s, 0, "Fees of the year");
            put(s, 1, "Ada", 10);
            put(s, 2, "Bo", 20);
            put(s, 3, "Cy", 30);
            put(s, 4, "the end");
            rest.accept(s, 4);
        });
        byte[] b = xlsx(s -> {
            put(s, 0, "Fees of the year");
            put(s, 1, "Ada", 10);
            put(s, 2, "Cy", 30);
            put(s, 3, "the end");
            rest.accept(s, 3);
        });
        byte[] made = back("a.xlsx", a, b, 1).content();
        try (XSSFWorkbook book = new XSSFWorkbook(new ByteArrayInputStream(made))) {
            assertThat(book.getSheetAt(0).getMergedRegions())
                    .extracting(CellRangeAddress::formatAsString)
                    .containsExactlyInAnyOrder("A1:B1", "A5:B5");
            assertThat(book.getName("fees").getRefersToFormula()).isEqualTo("Fees!$B$2:$B$4");
            assertThat(book.getSheetAt(0).getCTWorksheet().getAutoFilter().getRef())
                    .isEqualTo("A2:B4");
        }
    }

    @Test
    void aFormulaThatCellsShareIsWrittenOutWhenItsFirstCellIsTakenBack() throws IOException {
        byte[] a = Made.xlsx(rows("n,twice,x", "1,5,a", "2,=A3*2,b", "3,=A4*2,c"));
        byte[] plain = Made.xlsx(rows("n,twice,x", "1,=A2*2,a", "2,=A3*2,b", "3,=A4*2,c"));
        Map<String, byte[]> parts = new LinkedHashMap<>();
        for (Map.Entry<String, String> part : parts(plain).entrySet()) {
            String text = part.getValue()
                    .replace("<f>A2*2</f>", "<f t=\"shared\" ref=\"B2:B4\" si=\"0\">A2*2</f>")
                    .replace("<f>A3*2</f>", "<f t=\"shared\" si=\"0\"/>")
                    .replace("<f>A4*2</f>", "<f t=\"shared\" si=\"0\"/>");
            parts.put(part.getKey(), text.getBytes(StandardCharsets.ISO_8859_1));
        }
        byte[] b = Made.zipOf(parts);
        assertThat(formulas("a.xlsx", b)).containsExactly("=A2*2", "=A3*2", "=A4*2");
        List<Comparison.Change> changes = compare("a.xlsx", a, b).changes();
        assertThat(changes)
                .as("cells that share a formula say the same as before")
                .hasSize(1);
        byte[] made = back("a.xlsx", a, b, 1).content();
        assertThat(shown("a.xlsx", made)).startsWith("n,twice,x", "1,5,a", "2,4,b", "3,6,c");
        assertThat(formulas("a.xlsx", made)).containsExactly("=A3*2", "=A4*2");
    }

    @Test
    void theListOfComputedCellsAndASignatureAreSeenTo() throws IOException {
        byte[] a = Made.xlsx(rows("k,v", "a,1", "b,=B2*2"));
        Map<String, byte[]> parts = new LinkedHashMap<>();
        for (Map.Entry<String, String> part :
                parts(Made.xlsx(rows("k,v", "a,1", "b,7"))).entrySet()) {
            String text = part.getValue()
                    .replace(
                            "</Relationships>",
                            part.getKey().contains("workbook")
                                    ? "<Relationship Id=\"rId99\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/"
                                            + "relationships/calcChain\" Target=\"calcChain.xml\"/></Relationships>"
                                    : "</Relationships>")
                    .replace("</Types>", "<Override PartName=\"/xl/calcChain.xml\" ContentType=\"x/y\"/></Types>");
            parts.put(part.getKey(), text.getBytes(StandardCharsets.ISO_8859_1));
        }
        parts.put("xl/calcChain.xml", "<calcChain/>".getBytes(StandardCharsets.UTF_8));
        parts.put("_xmlsignatures/sig1.xml", "<x/>".getBytes(StandardCharsets.UTF_8));
        Picking.Outcome made = back("a.xlsx", a, Made.zipOf(parts), 1);
        Map<String, String> is = parts(made.content());
        assertThat(is).doesNotContainKey("xl/calcChain.xml");
        assertThat(is.get("xl/_rels/workbook.xml.rels")).doesNotContain("calcChain");
        assertThat(is.get("[Content_Types].xml")).doesNotContain("calcChain");
        assertThat(made.also()).anyMatch(s -> s.contains("signed"));
        assertThat(formulas("a.xlsx", made.content())).containsExactly("=B2*2");
    }

    @Test
    void whatIsNotOneCellOrRowIsRefusedInWords() throws IOException {
        byte[] a = Made.xlsx(rows("k,v", "a,1", "b,2"));
        byte[] column = Made.xlsx(rows("k,x,v", "a,z,1", "b,y,2"));
        assertThatThrownBy(() -> back("a.xlsx", a, column, 1)).hasMessageContaining("whole sheet or column");
        byte[] ods = Made.ods(rows("k,v", "a,3", "b,2"));
        assertThatThrownBy(() -> back("a.xlsx", a, ods, 1)).hasMessageContaining("cannot be taken back safely");
        byte[] tall = xlsx(s -> {
            put(s, 0, "k", 1);
            put(s, 1, "a", 2);
            s.addMergedRegion(new CellRangeAddress(0, 1, 3, 3));
        });
        byte[] more = xlsx(s -> {
            put(s, 0, "k", 1);
            put(s, 1, "a", 2);
            put(s, 2, "new", 3);
            s.addMergedRegion(new CellRangeAddress(0, 1, 3, 3));
        });
        assertThatThrownBy(() -> back("a.xlsx", tall, more, 1)).hasMessageContaining("several rows");
    }

    private static byte[] table(String kind, List<List<String>> cells) throws IOException {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("h", "i", "j"));
        rows.addAll(cells);
        return kind.equals("a.ods")
                ? Made.ods(rows)
                : xlsx(s -> {
                    for (int r = 0; r < rows.size(); r++) {
                        put(s, r, rows.get(r).toArray());
                    }
                });
    }

    private static void allBack(String name, List<List<String>> x, List<List<String>> y) throws IOException {
        byte[] a = table(name, x);
        byte[] b = table(name, y);
        Comparison comparison = compare(name, a, b);
        boolean possible = !comparison.changes().isEmpty()
                && comparison.changes().stream()
                        .allMatch(c -> Picking.refusal(comparison, c).isEmpty());
        if (!possible) {
            return;
        }
        Integer[] all =
                IntStream.rangeClosed(1, comparison.changes().size()).boxed().toArray(Integer[]::new);
        byte[] made = back(name, a, b, all).content();
        assertThat(shown(name, made).stream().sorted().toList())
                .isEqualTo(shown(name, a).stream().sorted().toList());
    }

    @Property(tries = 25)
    void takingAllBackGivesTheEarlierSheetOfOpenDocument(
            @ForAll @Size(min = 1, max = 8)
                    List<@Size(value = 3) List<@CharRange(from = '1', to = '6') @StringLength(value = 1) String>> x,
            @ForAll @Size(min = 1, max = 8)
                    List<@Size(value = 3) List<@CharRange(from = '1', to = '6') @StringLength(value = 1) String>> y)
            throws IOException {
        allBack("a.ods", x, y);
    }

    @Property(tries = 15)
    void takingAllBackGivesTheEarlierSheetOfAWorkbook(
            @ForAll @Size(min = 1, max = 6)
                    List<@Size(value = 3) List<@CharRange(from = '1', to = '4') @StringLength(value = 1) String>> x,
            @ForAll @Size(min = 1, max = 6)
                    List<@Size(value = 3) List<@CharRange(from = '1', to = '4') @StringLength(value = 1) String>> y)
            throws IOException {
        allBack("a.xlsx", x, y);
    }
}
