package org.mendedleaf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.apache.poi.xwpf.usermodel.XWPFParagraph;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Style;

/** Small print of the formats: what is easily read wrongly. */
class ReaderEdgesTest {

    private static List<String> rows(byte[] content, String name) {
        Document.Sheets sheets = (Document.Sheets) Documents.read(name, content, false);
        return sheets.sheets().get(0).rows().stream()
                .map(r -> r.cells().stream().map(Cell::shown).collect(Collectors.joining("|")))
                .toList();
    }

    private static List<Block> blocks(byte[] content, String name) {
        Document.Prose prose = (Document.Prose) Documents.read(name, content, false);
        return prose.sections().stream().flatMap(s -> s.blocks().stream()).toList();
    }

    private static List<String> said(List<Block> blocks) {
        return blocks.stream()
                .map(b -> b.style() + (b.level() > 0 ? " " + b.level() : "") + ": "
                        + b.text().replace("\t", "|").replace("\n", "/"))
                .toList();
    }

    private static byte[] xlsx(String sheet, String styles, String shared, String book) {
        Map<String, String> parts = new LinkedHashMap<>();
        String main = "xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"";
        parts.put("[Content_Types].xml", "<Types/>");
        parts.put(
                "xl/workbook.xml",
                "<workbook " + main + " xmlns:r=\"r\">" + book
                        + "<sheets><sheet name=\"S\" sheetId=\"1\" r:id=\"rId1\"/></sheets></workbook>");
        parts.put(
                "xl/_rels/workbook.xml.rels",
                "<Relationships><Relationship Id=\"rId1\" Target=\"worksheets/sheet1.xml\"/></Relationships>");
        parts.put(
                "xl/worksheets/sheet1.xml", "<worksheet " + main + "><sheetData>" + sheet + "</sheetData></worksheet>");
        parts.put("xl/styles.xml", "<styleSheet " + main + ">" + styles + "</styleSheet>");
        parts.put("xl/sharedStrings.xml", "<sst " + main + ">" + shared + "</sst>");
        return Made.zip(parts);
    }

    @Test
    void aWorkbookMayLeaveOutWhereItsCellsStandAndSayTextsInManyWays() {
        byte[] book = xlsx(
                "<row><c t=\"inlineStr\"><is><t>in</t></is></c><c t=\"s\"><v>0</v></c><c t=\"b\"><v>1</v></c>"
                        + "<c t=\"e\"><v>#DIV/0!</v></c><c t=\"str\"><f>A1&amp;\"x\"</f><v>inx</v></c></row>"
                        + "<row r=\"4\"><c r=\"C4\"><v>7</v></c></row>",
                "",
                "<si><r><t>ri</t></r><r><t>ch</t></r><rPh><t>not said</t></rPh></si>",
                "");
        assertThat(rows(book, "a.xlsx")).containsExactly("in|rich|TRUE|#DIV/0!|inx", "", "", "||7");
    }

    @Test
    void numbersAreShownAsTheWorkbookFormatsThem() {
        String styles = "<numFmts><numFmt numFmtId=\"170\" formatCode=\"0.0&quot; kg&quot;\"/></numFmts><cellXfs>"
                + "<xf numFmtId=\"0\"/><xf numFmtId=\"9\"/><xf numFmtId=\"14\"/><xf numFmtId=\"170\"/><xf numFmtId=\"4\"/>"
                + "</cellXfs>";
        String cells = "<row><c s=\"0\"><v>0.1</v></c><c s=\"1\"><v>0.25</v></c><c s=\"2\"><v>45000</v></c>"
                + "<c s=\"3\"><v>12.34</v></c><c s=\"4\"><v>1234.5</v></c></row>";
        assertThat(rows(xlsx(cells, styles, "", ""), "a.xlsx")).containsExactly("0.1|25%|3/15/23|12.3 kg|1,234.50");
        assertThat(rows(xlsx(cells, styles, "", "<workbookPr date1904=\"1\"/>"), "a.xlsx"))
                .containsExactly("0.1|25%|3/16/27|12.3 kg|1,234.50");
    }

    @Test
    void aFormulaThatCellsShareIsToldInEachOfThem() {
        byte[] book = xlsx(
                "<row r=\"1\"><c r=\"A1\"><f t=\"shared\" ref=\"A1:B2\" si=\"0\">$C1+D$1</f><v>1</v></c>"
                        + "<c r=\"B1\"><f t=\"shared\" si=\"0\"/><v>2</v></c></row>"
                        + "<row r=\"2\"><c r=\"A2\"><f t=\"shared\" si=\"0\"/><v>3</v></c>"
                        + "<c r=\"B2\"><f t=\"shared\" si=\"9\"/><v>4</v></c></row>",
                "",
                "",
                "");
        Document.Sheets sheets = (Document.Sheets) Documents.read("a.xlsx", book, false);
        assertThat(sheets.sheets().get(0).rows().stream()
                        .flatMap(r -> r.cells().stream())
                        .map(Cell::formula))
                .containsExactly("=$C1+D$1", "=$C1+E$1", "=$C2+D$1", "");
    }

    private static byte[] ods(String table) {
        return Made.openDocument("spreadsheet", "<office:spreadsheet>" + table + "</office:spreadsheet>");
    }

    @Test
    void ofAnOpenSheetNotesAreNoTextAndLinesOfACellAreKept() {
        byte[] book = ods("<table:table table:name=\"S\"><table:table-row><table:table-cell><office:annotation>"
                + "<text:p>a note</text:p></office:annotation><text:p>one<text:s text:c=\"3\"/>two</text:p>"
                + "<text:p>below</text:p></table:table-cell><table:table-cell table:number-columns-repeated=\"16383\"/>"
                + "</table:table-row><table:table-row table:number-rows-repeated=\"1048575\"><table:table-cell"
                + " table:number-columns-repeated=\"16384\"/></table:table-row></table:table>");
        assertThat(rows(book, "a.ods")).containsExactly("one   two\nbelow");
    }

    @Test
    void rowsInGroupsAndHeadsAndCellsThatAreOneAreRead() {
        byte[] book = ods("<table:table table:name=\"S\"><table:table-header-rows><table:table-row>"
                + "<table:table-cell table:number-columns-spanned=\"2\"><text:p>head</text:p></table:table-cell>"
                + "<table:covered-table-cell/></table:table-row></table:table-header-rows><table:table-row-group>"
                + "<table:table-row table:number-rows-repeated=\"2\"><table:table-cell/><table:table-cell"
                + " table:number-columns-repeated=\"2\"><text:p>x</text:p></table:table-cell></table:table-row>"
                + "</table:table-row-group></table:table>");
        assertThat(rows(book, "a.ods")).containsExactly("head", "|x|x", "|x|x");
        Document.Sheets sheets = (Document.Sheets) Documents.read("a.ods", book, false);
        assertThat(sheets.sheets().get(0).merged()).containsExactly(new Document.Merged(0, 0, 1, 2));
    }

    private static byte[] odt(String body) {
        return Made.openDocument("text", "<office:text>" + body + "</office:text>");
    }

    @Test
    void listsInListsTextsInFramesAndTrackedChangesOfAnOpenText() {
        byte[] text = odt("<text:tracked-changes><text:p>taken out</text:p></text:tracked-changes>"
                + "<text:list><text:list-item><text:p>one</text:p><text:list><text:list-item><text:p>deep</text:p>"
                + "</text:list-item></text:list></text:list-item></text:list>"
                + "<text:p>before <draw:frame><draw:text-box><text:p>in a frame</text:p></draw:text-box></draw:frame>after</text:p>"
                + "<text:p>a<text:line-break/>b<text:tab/>c</text:p><text:p>   </text:p>");
        assertThat(said(blocks(text, "a.odt")))
                .containsExactly(
                        "ITEM 1: one", "ITEM 2: deep", "TEXT: before after", "TEXT: in a frame", "TEXT: a/b|c");
    }

    @Test
    void deletedWordsOfATextAreNotSaidAndInsertedOnesAre() throws IOException {
        byte[] plain = Made.docx("stays");
        Map<String, byte[]> parts = new LinkedHashMap<>();
        try (var zip = new java.util.zip.ZipInputStream(new java.io.ByteArrayInputStream(plain))) {
            for (var e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
                String xml = new String(zip.readAllBytes(), StandardCharsets.UTF_8);
                parts.put(
                        e.getName(),
                        xml.replace(
                                        "</w:p>",
                                        "<w:del><w:r><w:delText>gone</w:delText></w:r></w:del>"
                                                + "<w:ins><w:r><w:t> new</w:t></w:r></w:ins><w:r><w:noBreakHyphen/><w:tab/>"
                                                + "<w:t>end</w:t></w:r><w:r><w:instrText>DATE</w:instrText></w:r></w:p>")
                                .getBytes(StandardCharsets.UTF_8));
            }
        }
        assertThat(said(blocks(Made.zipOf(parts), "a.docx"))).containsExactly("TEXT: stays new-|end");
    }

    @Test
    void listsNotesAndLinksOfATextAreRead() throws IOException {
        try (XWPFDocument document = new XWPFDocument();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            var abstractNumber =
                    org.openxmlformats.schemas.wordprocessingml.x2006.main.CTAbstractNum.Factory.newInstance();
            abstractNumber.setAbstractNumId(java.math.BigInteger.ZERO);
            var numbering = document.createNumbering();
            var number = numbering.addNum(
                    numbering.addAbstractNum(new org.apache.poi.xwpf.usermodel.XWPFAbstractNum(abstractNumber)));
            XWPFParagraph item = document.createParagraph();
            item.setNumID(number);
            item.setNumILvl(java.math.BigInteger.ONE);
            item.createRun().setText("an item");
            XWPFParagraph linked = document.createParagraph();
            linked.createRun().setText("see ");
            linked.createHyperlinkRun("https://example.org/").setText("there");
            document.createFootnotes();
            var note = document.createFootnote();
            note.createParagraph().createRun().setText("a note");
            linked.addFootnoteReference(note);
            document.write(out);
            assertThat(said(blocks(out.toByteArray(), "a.docx")))
                    .containsExactly("ITEM 2: an item", "TEXT: see there", "NOTE: a note");
        }
    }

    private static byte[] rtf(String body) {
        return ("{\\rtf1\\ansi\\ansicpg1252{\\fonttbl{\\f0 Arial;}}{\\*\\generator none;}" + body + "}")
                .getBytes(StandardCharsets.ISO_8859_1);
    }

    @Test
    void richTextIsItsParagraphsRowsAndNotesInWhateverLetters() {
        byte[] text = rtf("\\pard\\b Lease\\b0\\par \\u321?\\'f3d\\u378? {\\i is} here\\line below\\par\n"
                + "\\trowd\\cellx1 rent\\cell 200\\par pounds\\cell\\row\n"
                + "{\\field{\\*\\fldinst DATE}{\\fldrslt today}}\\par "
                + "seen{\\footnote\\pard a note} and more\\par {\\pict 0102}\\{kept\\}\\~\\emdash");
        assertThat(said(blocks(text, "a.rtf")))
                .containsExactly(
                        "TEXT: Lease",
                        "TEXT: Łódź is here/below",
                        "ROW: rent|200 pounds",
                        "TEXT: today",
                        "TEXT: seen and more",
                        "NOTE: a note",
                        "TEXT: {kept}\u00a0—");
        byte[] greek = "{\\rtf1\\ansi\\ansicpg1253 \\'e1\\'e2\\par}".getBytes(StandardCharsets.US_ASCII);
        assertThat(said(blocks(greek, "a.rtf"))).containsExactly("TEXT: αβ");
        byte[] utf = "{\\rtf1\\ansi\\ansicpg65001 \\'c3\\'a4\\uc0\\u8364 \\par}".getBytes(StandardCharsets.US_ASCII);
        assertThat(said(blocks(utf, "a.rtf"))).containsExactly("TEXT: ä€");
    }

    @Test
    void brokenRichTextIsReadAsFarAsItGoesOrSaysWhyNot() {
        assertThat(said(blocks("{\\rtf1 one\\par two {\\b thr".getBytes(StandardCharsets.US_ASCII), "a.rtf")))
                .containsExactly("TEXT: one", "TEXT: two thr");
        assertThat(said(blocks("{\\rtf1 a\\'4".getBytes(StandardCharsets.US_ASCII), "a.rtf")))
                .containsExactly("TEXT: a");
        Document deep =
                Documents.read("a.rtf", ("{\\rtf1" + "{".repeat(100_000)).getBytes(StandardCharsets.US_ASCII), false);
        assertThat(deep).isInstanceOf(Document.Other.class);
        assertThat(((Document.Other) deep).why()).isNotEmpty();
        assertThat(blocks("{\\rtf1 x\\bin99999999999 \\par}".getBytes(StandardCharsets.US_ASCII), "a.rtf"))
                .hasSize(1);
    }

    @Property(tries = 300)
    void noBytesAfterTheHeadOfARichTextBreakItsReading(@ForAll byte[] tail) {
        byte[] head = "{\\rtf1 ".getBytes(StandardCharsets.US_ASCII);
        byte[] all = java.util.Arrays.copyOf(head, head.length + tail.length);
        System.arraycopy(tail, 0, all, head.length, tail.length);
        assertThat(Documents.read("a.rtf", all, false)).isNotNull();
    }

    @Test
    void aFontIsToldByItsNameAndStyle() throws IOException {
        byte[] font;
        try (InputStream in =
                PDDocument.class.getResourceAsStream("/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf")) {
            font = in.readAllBytes();
        }
        Document.Other other = (Document.Other) Documents.read("a.ttf", font, false);
        assertThat(other.facts())
                .extracting(f -> f.name() + " " + f.value())
                .contains("Family Liberation Sans", "Style Regular", "Name LiberationSans");
        byte[] cut = java.util.Arrays.copyOf(font, 400);
        assertThat(Documents.read("a.ttf", cut, false)).isInstanceOf(Document.Other.class);
    }

    @Test
    void aTableKeepsItsQuotesEmptyCellsAndSeparators() {
        Charset utf8 = StandardCharsets.UTF_8;
        assertThat(rows("a;\"b;c\";\r\n;\"say \"\"no\"\"\";x\r\n".getBytes(utf8), "a.csv"))
                .containsExactly("a|b;c|", "|say \"no\"|x");
        assertThat(rows("a\tb\n1\t\"2\n3\"\n".getBytes(utf8), "a.tsv")).containsExactly("a|b", "1|2\n3");
        assertThat(Documents.read("a.csv", new byte[0], false)).isInstanceOf(Document.Empty.class);
        assertThat(rows("\uFEFFkind,kilos\nKaty,4\n".getBytes(utf8), "a.csv")).containsExactly("kind|kilos", "Katy|4");
    }

    @Test
    void aMessageWithinAMessageAndLettersOfManyKindsAreRead() {
        String mail = "From: =?UTF-8?Q?J=C3=B6rg?= <j@example.org>\r\nSubject: =?ISO-8859-1?B?5PY=?=\r\n"
                + "Content-Type: multipart/mixed; boundary=B\r\n\r\n--B\r\nContent-Type: multipart/alternative; boundary=A\r\n\r\n"
                + "--A\r\nContent-Type: text/html\r\n\r\n<p>loud</p>\r\n--A\r\nContent-Type: text/plain; charset=utf-8\r\n"
                + "Content-Transfer-Encoding: quoted-printable\r\n\r\nplain =C3=A4\r\n--A--\r\n"
                + "--B\r\nContent-Type: application/pdf\r\nContent-Disposition: attachment; filename=\"bill.pdf\"\r\n\r\nxyz\r\n--B--\r\n";
        List<String> said = said(blocks(mail.getBytes(StandardCharsets.US_ASCII), "a.eml"));
        assertThat(said).contains("FACT: Subject|äö", "ITEM: bill.pdf|3 B");
        assertThat(said).anyMatch(s -> s.startsWith("FACT: From|Jörg"));
        assertThat(said).anyMatch(s -> s.contains("plain ä"));
        assertThat(said).noneMatch(s -> s.contains("loud"));
        assertThat(blocks(mail.getBytes(StandardCharsets.US_ASCII), "a.eml").stream()
                        .map(Block::style))
                .contains(Style.FACT, Style.ITEM);
    }
}
