package org.mendedleaf.core.preview;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.document.Made;

class DocumentTextTest {

    @Test
    void onlyMembersWithWordsAreUnpacked() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("Pictures/huge.png"));
            zip.write(new byte[2_000_000]);
            zip.closeEntry();
            zip.putNextEntry(new ZipEntry("mimetype"));
            zip.closeEntry();
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write("<a><body><text><p>the words</p></text></body></a>".getBytes(StandardCharsets.UTF_8));
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

    @Test
    void whatIsMadeToDoHarmHasNoWordsAndCostsLittle() throws IOException {
        byte[] brackets = "<".repeat(2 << 20).getBytes(StandardCharsets.UTF_8);
        assertThat(DocumentText.of("text/html", brackets)).contains("<".repeat(2 << 20));
        assertThat(DocumentText.of("text/html", "a < b <i>c</i> d".getBytes(StandardCharsets.UTF_8))
                        .orElseThrow())
                .doesNotContain("<i>")
                .contains("c");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("mimetype"));
            zip.putNextEntry(new ZipEntry("content.xml"));
            byte[] much = new byte[1 << 20];
            Arrays.fill(much, (byte) ' ');
            for (int i = 0; i < 300; i++) {
                zip.write(much);
            }
        }
        assertThat(DocumentText.of("application/vnd.oasis.opendocument.text", out.toByteArray()))
                .isEmpty();
        assertThat(DocumentText.of("application/pdf", "%PDF-1.7 and no more".getBytes(StandardCharsets.UTF_8)))
                .isEmpty();
    }

    @Test
    void documentsOfTheOldKindHaveWordsToo() throws IOException {
        assertThat(DocumentText.of("application/x-tika-msoffice", Made.xls(Made.rows("Kind,Kilos", "Bramley,736")))
                        .orElseThrow())
                .contains("Bramley\t736");
    }
}
