package org.mendedleaf.core.preview;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.line.OnlyHere;
import org.mendedleaf.core.line.Reading;

class PreviewerTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private Preview preview(String name, byte[] content) throws IOException {
        p.save(name, content);
        p.capture();
        Files.delete(p.path(name));
        try (Reading r = p.vault().read()) {
            return Previewer.preview(p.line(name).newest().orElseThrow(), r.contents());
        }
    }

    private Preview preview(String name, String content) throws IOException {
        return preview(name, content.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void textIsShownByLineFromTheVaultAlone() throws IOException {
        assertThat(preview("a.txt", "one\ntwo ä\n")).isEqualTo(new Preview.Text(List.of("one", "two ä"), false));
    }

    @Test
    void textInAnOldEncodingIsReadable() throws IOException {
        assertThat(preview("a.txt", "Äpfel".getBytes(StandardCharsets.ISO_8859_1)))
                .isEqualTo(new Preview.Text(List.of("Äpfel"), false));
        assertThat(preview("b.txt", "Äpfel".getBytes(StandardCharsets.UTF_16)))
                .isEqualTo(new Preview.Text(List.of("Äpfel"), false));
    }

    @Test
    void tablesAreShownAsAGridWithWhateverSeparator() throws IOException {
        assertThat(preview("a.csv", "k;v\n\"x;y\";1,5\n"))
                .isEqualTo(new Preview.Grid(List.of(List.of("k", "v"), List.of("x;y", "1,5")), false));
    }

    @Test
    void aPictureIsKnownByItsContentWhateverItIsCalled() throws IOException {
        byte[] png = Base64.getDecoder()
                .decode(
                        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");
        assertThat(preview("scan.dat", png)).isInstanceOf(Preview.Picture.class);
    }

    @Test
    void anythingElseIsShownAsFactsWithItsFirstBytes() throws IOException {
        assertThat(preview("a.bin", new byte[] {0, 1, 2, 'x'}))
                .isInstanceOfSatisfying(
                        Preview.Facts.class, f -> assertThat(f.hex().get(0)).startsWith("000000  00 01 02 78"));
    }

    @Test
    void anEmptyFileIsSaidToBeEmptyAndALongOneToBeCut() throws IOException {
        assertThat(preview("a.txt", "")).isEqualTo(new Preview.Empty());
        assertThat(preview("b.txt", "line\n".repeat(5000))).isInstanceOfSatisfying(Preview.Text.class, t -> {
            assertThat(t.cut()).isTrue();
            assertThat(t.lines()).hasSize(2000);
        });
    }

    @Test
    void onlyWhatNoOtherVersionNeedsIsHeldByOneAlone() throws IOException {
        byte[] noise = new byte[6000];
        new java.util.Random(3).nextBytes(noise);
        p.save("a.bin", noise);
        p.save("b.bin", noise);
        p.save("c.txt", "alone");
        p.capture();
        try (Reading r = p.vault().read()) {
            assertThat(OnlyHere.storedBytes(r, p.line("a.bin").newest().orElseThrow()))
                    .isZero();
            assertThat(OnlyHere.storedBytes(r, p.line("c.txt").newest().orElseThrow()))
                    .isEqualTo(5);
        }
    }

    private static byte[] zip(String... namesAndContents) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < namesAndContents.length; i += 2) {
                zip.putNextEntry(new ZipEntry(namesAndContents[i]));
                zip.write(namesAndContents[i + 1].getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
        return out.toByteArray();
    }

    @Test
    void aDocumentIsShownByItsParagraphs() throws IOException {
        String content = "<office:document-content xmlns:office='o' xmlns:text='t'><office:body>"
                + "<text:h>Lease</text:h><text:p>Until <text:span>Michaelmas</text:span>.</text:p>"
                + "</office:body></office:document-content>";
        byte[] odt = zip("mimetype", "application/vnd.oasis.opendocument.text", "content.xml", content);
        assertThat(preview("lease.odt", odt)).isEqualTo(new Preview.Text(List.of("Lease", "Until Michaelmas."), false));
    }

    @Test
    void aWorkbookIsShownByItsCells() throws IOException {
        byte[] xlsx = zip(
                "[Content_Types].xml",
                "<Types xmlns='http://schemas.openxmlformats.org/package/2006/content-types'/>",
                "xl/sharedStrings.xml",
                "<sst><si><t>Katy</t></si><si><t>kilos</t></si></sst>",
                "xl/worksheets/sheet1.xml",
                "<worksheet><sheetData><row><c t='s'><v>1</v></c></row><row><c t='s'><v>0</v></c><c><v>412</v></c></row>"
                        + "</sheetData></worksheet>");
        assertThat(preview("stock.xlsx", xlsx))
                .isInstanceOfSatisfying(
                        Preview.Grid.class,
                        grid -> assertThat(grid.rows()).containsExactly(List.of("kilos"), List.of("Katy", "412")));
    }

    @Test
    void aDamagedDocumentIsShownByItsFacts() throws IOException {
        byte[] odt = zip("mimetype", "application/vnd.oasis.opendocument.text", "content.xml", "<a>text".repeat(99));
        assertThat(preview("lease.odt", Arrays.copyOf(odt, odt.length / 2))).isInstanceOf(Preview.Facts.class);
    }

    @Test
    void onlyMembersWithWordsAreUnpacked() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("Pictures/huge.png"));
            zip.write(new byte[2_000_000]);
            zip.closeEntry();
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write("<a><p>the words</p></a>".getBytes(StandardCharsets.UTF_8));
            zip.closeEntry();
        }
        byte[] odt = out.toByteArray();
        // Whoever unpacks the picture fails: nothing of what is deflated in it makes sense.
        Arrays.fill(odt, 60, 1000, (byte) 0xff);
        assertThat(DocumentText.of("application/vnd.oasis.opendocument.text", odt)
                        .orElse(""))
                .contains("the words");
    }

    @Test
    void aDrawingWithoutTextSpeaksByItsMarkup() {
        String drawing = "<svg xmlns=\"http://www.w3.org/2000/svg\"><circle r=\"18\"/></svg>";
        byte[] bytes = drawing.getBytes(StandardCharsets.UTF_8);
        assertThat(DocumentText.of("image/svg+xml", bytes)).contains(drawing);
        assertThat(DocumentText.of("application/xml", "<a>b<c/></a>".getBytes(StandardCharsets.UTF_8))
                        .orElseThrow()
                        .strip())
                .isEqualTo("b");
    }
}
