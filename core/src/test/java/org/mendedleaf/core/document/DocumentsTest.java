package org.mendedleaf.core.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.document.Made.rows;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Style;

/** Each ordinary format is read as what it says. */
class DocumentsTest {

    private static Document read(String name, byte[] content) {
        return Documents.read(name, content, false);
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static Document.Sheets sheets(String name, byte[] content) {
        assertThat(read(name, content)).isInstanceOf(Document.Sheets.class);
        return (Document.Sheets) read(name, content);
    }

    private static Document.Prose prose(String name, byte[] content) {
        assertThat(read(name, content)).isInstanceOf(Document.Prose.class);
        return (Document.Prose) read(name, content);
    }

    private static List<String> shown(Document.Sheet sheet, int row) {
        return sheet.rows().get(row).cells().stream().map(Cell::shown).toList();
    }

    @Test
    void aWorkbookShowsItsCellsAsItFormatsThem() {
        List<List<String>> rows =
                rows("Kind,Kilos,Price", "Bramley,736,1.50", "Egremont,332,2.25", ",,", "Sum,=SUM(B2:B3),=SUM(C2:C3)");
        for (String name : List.of("fees.xlsx", "fees.xls")) {
            byte[] content = name.endsWith("x") ? Made.xlsx(rows) : Made.xls(rows);
            Document.Sheet sheet = sheets(name, content).sheets().get(0);
            assertThat(sheet.name()).isEqualTo("Fees");
            assertThat(shown(sheet, 1)).as(name).containsExactly("Bramley", "736", "1.50");
            assertThat(sheet.rows().get(3).isEmpty()).isTrue();
            assertThat(sheet.rows().get(4).cell(1))
                    .isEqualTo(new Cell("1068", "1068", "=SUM(B2:B3)"))
                    .as(name);
            assertThat(sheet.merged()).containsExactly(new Document.Merged(5, 0, 2, 3));
        }
    }

    @Test
    void anOpenDocumentSheetIsReadAndEndlessEmptyRowsAreNot() {
        Document.Sheet sheet = sheets("fees.ods", Made.ods(rows("Kind,Kilos", "Bramley,736")))
                .sheets()
                .get(0);
        assertThat(sheet.rows().get(1).cell(0).shown()).isEqualTo("Bramley");
        assertThat(sheet.rows().get(1).cell(1).value()).isEqualTo("736");
        byte[] endless = Made.openDocument(
                "spreadsheet",
                "<office:spreadsheet><table:table table:name=\"A\"><table:table-row><table:table-cell"
                        + " table:formula=\"of:=1+1\" office:value=\"2\"><text:p>2<text:s text:c=\"2\"/>x</text:p>"
                        + "</table:table-cell><table:table-cell table:number-columns-repeated=\"16383\"/>"
                        + "</table:table-row><table:table-row table:number-rows-repeated=\"1048575\">"
                        + "<table:table-cell table:number-columns-repeated=\"16384\"/></table:table-row>"
                        + "</table:table></office:spreadsheet>");
        Document.Sheets all = sheets("e.ods", endless);
        assertThat(all.sheets().get(0).rows()).hasSize(1);
        assertThat(all.sheets().get(0).rows().get(0).cells()).containsExactly(new Cell("2  x", "2", "=1+1"));
        assertThat(all.cut()).isFalse();
    }

    @ParameterizedTest
    @ValueSource(strings = {"lease.docx", "lease.odt"})
    void aTextIsItsHeadingsParagraphsAndTables(String name) {
        String[] text = {"# The lease", "The rent is 400 a month & no more.", "| Month | Rent", "It ends on 31 May."};
        Document.Prose prose = prose(name, name.endsWith("docx") ? Made.docx(text) : Made.odt(text));
        assertThat(prose.sections()).hasSize(1);
        assertThat(prose.sections().get(0).blocks())
                .extracting(Document.Block::style)
                .containsExactly(Style.HEADING, Style.TEXT, Style.ROW, Style.TEXT);
        assertThat(prose.sections().get(0).blocks())
                .extracting(Document.Block::text)
                .containsExactly(
                        "The lease", "The rent is 400 a month & no more.", "Month\tRent", "It ends on 31 May.");
    }

    @Test
    void notesListsAndPicturesOfATextStandWhereTheyBelong() {
        byte[] content = Made.openDocument(
                "text",
                "<office:text><text:p>Who pays<text:note text:note-class=\"footnote\"><text:note-citation>1"
                        + "</text:note-citation><text:note-body><text:p>the tenant</text:p></text:note-body></text:note>"
                        + " in May</text:p><text:list><text:list-item><text:p>one</text:p><text:list><text:list-item>"
                        + "<text:p>one a</text:p></text:list-item></text:list></text:list-item></text:list>"
                        + "<text:p><draw:frame><draw:text-box><text:p>in a box</text:p></draw:text-box></draw:frame>"
                        + "after</text:p></office:text>");
        assertThat(prose("a.odt", content).sections().get(0).blocks())
                .extracting(b -> b.style() + " " + b.level() + " " + b.text())
                .containsExactly(
                        "TEXT 0 Who pays in May",
                        "NOTE 0 the tenant",
                        "ITEM 1 one",
                        "ITEM 2 one a",
                        "TEXT 0 after",
                        "TEXT 0 in a box");
    }

    @Test
    void slidesAndPagesAreSectionsInTheirOrder() throws IOException {
        assertThat(prose("talk.pptx", Made.pptx("First", "Second")).sections())
                .extracting(s -> s.blocks().get(0).text())
                .containsExactly("First", "Second");
        Document.Prose odp = prose("talk.odp", Made.odp("First", "Second"));
        assertThat(odp.form()).isEqualTo(Document.Form.SLIDES);
        assertThat(odp.sections().get(1).blocks())
                .extracting(b -> b.style() + " " + b.text())
                .containsExactly("TEXT Second", "NOTE say 2");
        byte[] pdf = Made.pdf("Page one", "Page two\nwith a line");
        assertThat(prose("a.pdf", pdf).sections().get(1).blocks())
                .extracting(Document.Block::text)
                .containsExactly("Page two", "with a line");
        byte[] png = Documents.page(pdf, 1, 300);
        assertThat(ImageIO.read(new ByteArrayInputStream(png)).getWidth()).isEqualTo(300);
        assertThatThrownBy(() -> Documents.page(pdf, 2, 300)).hasMessage("There is no page 3; it has 2.");
    }

    @Test
    void textIsReadInTheEncodingItIsWrittenIn() {
        String words = "Müller & Söhne, Straße: 30 € für Äpfel – “gut”\nzweite Zeile\n";
        for (String charset : List.of("UTF-8", "UTF-16", "windows-1252")) {
            byte[] content = words.getBytes(Charset.forName(charset));
            Document document = read("a.txt", content);
            assertThat(document).isInstanceOf(Document.Text.class);
            assertThat(((Document.Text) document).lines())
                    .as(charset)
                    .containsExactly("Müller & Söhne, Straße: 30 € für Äpfel – “gut”", "zweite Zeile");
        }
        byte[] whole = utf8("ä".repeat(100));
        Document head = Documents.read("a.txt", java.util.Arrays.copyOf(whole, 101), true);
        assertThat(head).as("cut within a character").isInstanceOf(Document.Text.class);
        assertThat(((Document.Text) head).lines().get(0)).isEqualTo("ä".repeat(50));
    }

    @Test
    void markdownIsShownAsItIsMeantAndTablesAsSheets() {
        Document.Prose prose =
                prose("read.md", utf8("# Plan\n\n* one\n  * two\n\n> said\n\n| a | b |\n|---|---|\n| 1 | 2 |\n"));
        assertThat(prose.sections().get(0).blocks())
                .extracting(b -> b.style() + " " + b.text())
                .containsExactly("HEADING Plan", "ITEM one", "ITEM two", "QUOTE said", "ROW a\tb", "ROW 1\t2");
        Document.Sheet sheet =
                sheets("a.csv", utf8("Kind;Kilos\nBramley;7,5\n")).sheets().get(0);
        assertThat(sheet.rows().get(1).cell(1)).isEqualTo(new Cell("7,5", "7.5", ""));
    }

    @Test
    void aMessageIsItsHeaderItsWordsAndItsAttachments() throws IOException {
        byte[] content = utf8("From: Ines <ines@example.org>\nTo: Tomas\nSubject: =?UTF-8?Q?Ernte_f=C3=BCr_Mai?=\n"
                + "MIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\n"
                + "Here it is.\n> asked before\n--b\nContent-Type: text/csv; name=fees.csv\n"
                + "Content-Disposition: attachment; filename=fees.csv\n\na,b\n1,2\n--b--\n");
        Document.Prose mail = prose("m.eml", content);
        assertThat(mail.form()).isEqualTo(Document.Form.MAIL);
        assertThat(mail.sections().get(0).blocks())
                .extracting(Document.Block::text)
                .contains("Subject\tErnte für Mai");
        assertThat(mail.sections().get(1).blocks())
                .extracting(b -> b.style() + " " + b.text())
                .containsExactly("TEXT Here it is.", "QUOTE > asked before");
        Document.Block attachment = mail.sections().get(2).blocks().get(0);
        assertThat(Documents.member("m.eml", content, attachment.ref()))
                .asString()
                .startsWith("a,b");
    }

    @Test
    void archivesAreListedAndTheirMembersRead() throws IOException {
        byte[] zip = Made.zip(Map.of("a/b.txt", "inside"));
        Document.Archive listing = (Document.Archive) read("x.zip", zip);
        assertThat(listing.members()).extracting(Document.Member::path).containsExactly("a/b.txt");
        assertThat(Documents.member("x.zip", zip, "a/b.txt")).asString().isEqualTo("inside");
        assertThatThrownBy(() -> Documents.member("x.zip", zip, "c")).hasMessageContaining("“c”");

        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(new GzipCompressorOutputStream(out))) {
            TarArchiveEntry entry = new TarArchiveEntry("f.txt");
            entry.setSize(6);
            tar.putArchiveEntry(entry);
            tar.write(utf8("in tar"));
            tar.closeArchiveEntry();
        }
        assertThat(((Document.Archive) read("x.tgz", out.toByteArray())).members())
                .extracting(Document.Member::path)
                .containsExactly("f.txt");
        assertThat(Documents.member("x.tgz", out.toByteArray(), "f.txt"))
                .asString()
                .isEqualTo("in tar");

        ByteArrayOutputStream one = new ByteArrayOutputStream();
        try (GzipCompressorOutputStream gzip = new GzipCompressorOutputStream(one)) {
            gzip.write(utf8("alone"));
        }
        assertThat(((Document.Archive) read("notes.txt.gz", one.toByteArray()))
                        .members()
                        .get(0)
                        .path())
                .isEqualTo("notes.txt");
        assertThat(Documents.member("notes.txt.gz", one.toByteArray(), "notes.txt"))
                .asString()
                .isEqualTo("alone");
    }

    @ParameterizedTest
    @ValueSource(strings = {"png", "jpg", "gif", "bmp", "tiff"})
    void picturesAreSeen(String format) throws IOException {
        Document document = read("p." + format, Made.picture(format, 60, 40, 10));
        assertThat(document).isInstanceOf(Document.Picture.class);
        Document.Picture picture = (Document.Picture) document;
        assertThat(picture.width()).isEqualTo(60);
        assertThat(ImageIO.read(new ByteArrayInputStream(picture.png())).getHeight())
                .isEqualTo(40);
    }

    @Test
    void aPhotographIsTurnedAsTheCameraWasHeldAndADrawingIsDrawn() throws IOException {
        byte[] jpeg = Made.picture("jpg", 60, 40, 10);
        // An Exif segment (TIFF, big-endian) that says: turned a quarter, to the right.
        byte[] exif = {
            (byte) 0xFF,
            (byte) 0xE1,
            0,
            34,
            'E',
            'x',
            'i',
            'f',
            0,
            0,
            'M',
            'M',
            0,
            42,
            0,
            0,
            0,
            8,
            0,
            1,
            1,
            0x12,
            0,
            3,
            0,
            0,
            0,
            1,
            0,
            6,
            0,
            0,
            0,
            0,
            0,
            0
        };
        ByteArrayOutputStream turned = new ByteArrayOutputStream();
        turned.write(jpeg, 0, 2);
        turned.write(exif);
        turned.write(jpeg, 2, jpeg.length - 2);
        Document.Picture picture = (Document.Picture) read("p.jpg", turned.toByteArray());
        assertThat(picture.width()).isEqualTo(40);
        assertThat(picture.height()).isEqualTo(60);
        int corner = ImageIO.read(new ByteArrayInputStream(picture.png())).getRGB(38, 2) & 0xFF;
        assertThat(corner)
                .as("what was at the upper left is at the upper right")
                .isLessThan(0x60);

        Document svg = read(
                "d.svg",
                utf8("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"30\" height=\"20\">"
                        + "<rect width=\"30\" height=\"20\" fill=\"#123456\"/></svg>"));
        assertThat(svg).isInstanceOf(Document.Picture.class);
        byte[] png = ((Document.Picture) svg).png();
        assertThat(ImageIO.read(new ByteArrayInputStream(png)).getRGB(5, 5)).isEqualTo(0xFF123456);
    }

    @Test
    void anythingElseIsItsTypeAndTheWordsInIt() {
        byte[] content = utf8("\0\1\2\3hello inside\0\1");
        Document.Other other = (Document.Other) read("x.bin", content);
        assertThat(other.strings()).containsExactly("hello inside");
        assertThat(other.hex().get(0)).startsWith("000000  00 01 02 03 68").contains("····hello inside");
        assertThat(other.why()).isEmpty();
        assertThat(read("x.txt", new byte[0])).isInstanceOf(Document.Empty.class);
    }

    @Test
    void whatADocumentSaysIsItsWords() {
        assertThat(Document.words(read("a.docx", Made.docx("# One", "two words"))))
                .containsExactly("One", "two words");
        assertThat(Document.words(read("a.xlsx", Made.xlsx(rows("a,1"))))).containsExactly("Fees", "a\t1");
    }
}
