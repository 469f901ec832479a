package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.Outcome;

/** What stands in a version, of every kind of document, without the program that made it. */
class PreviewCommandLineTest extends TerminalTest {

    private static final String NAMESPACES = " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
            + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
            + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
            + " xmlns:draw=\"urn:oasis:names:tc:opendocument:xmlns:drawing:1.0\"";

    private Path document(String name, String type, String body) throws IOException {
        Path file = desk.resolve(name);
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            zip.putNextEntry(new ZipEntry("mimetype"));
            zip.write(("application/vnd.oasis.opendocument." + type).getBytes(StandardCharsets.US_ASCII));
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write(("<office:document-content" + NAMESPACES + "><office:body>" + body
                            + "</office:body></office:document-content>")
                    .getBytes(StandardCharsets.UTF_8));
        }
        return file;
    }

    private static String sheet(String name, String... cells) {
        StringBuilder rows = new StringBuilder("<table:table table:name=\"" + name + "\">");
        for (String cell : cells) {
            rows.append("<table:table-row><table:table-cell><text:p>")
                    .append(cell)
                    .append("</text:p></table:table-cell></table:table-row>");
        }
        return rows.append("</table:table>").toString();
    }

    private String preview(Object file, String... options) {
        String[] all = new String[options.length + 2];
        all[0] = "preview";
        all[1] = file.toString();
        System.arraycopy(options, 0, all, 2, options.length);
        assertThat(run(all)).as(out + err).isZero();
        return out;
    }

    @Test
    void aSheetIsShownByItsNameOrItsNumberAndOneThatIsNotThereIsSaid() throws IOException {
        Path book = document(
                "book.ods",
                "spreadsheet",
                "<office:spreadsheet>" + sheet("Apples", "Katy") + sheet("Pears", "Conference")
                        + "</office:spreadsheet>");
        protect();
        assertThat(preview(book)).contains("Apples", "Katy", "Pears", "Conference");
        assertThat(preview(book, "--sheet", "Pears")).contains("Conference").doesNotContain("Katy");
        assertThat(preview(book, "--sheet", "1")).contains("Katy").doesNotContain("Conference");
        assertThat(run("preview", book.toString(), "--sheet", "Plums")).isEqualTo(Outcome.WRONG_USE.code());
        assertThat(err).contains("“Plums”").contains("Apples, Pears");
    }

    @Test
    void aSlideIsShownByItsNumber() throws IOException {
        String slide = "<draw:page draw:name=\"p\"><draw:frame><draw:text-box><text:p>%s</text:p></draw:text-box>"
                + "</draw:frame></draw:page>";
        Path talk = document(
                "talk.odp",
                "presentation",
                "<office:presentation>" + slide.formatted("The press") + slide.formatted("The cellar")
                        + "</office:presentation>");
        protect();
        assertThat(preview(talk)).contains("Slide 1", "The press", "Slide 2", "The cellar");
        assertThat(preview(talk, "--page", "2")).contains("The cellar").doesNotContain("The press");
        assertThat(run("preview", talk.toString(), "--page", "3")).isEqualTo(Outcome.WRONG_USE.code());
        assertThat(err).contains("no page 3");
        assertThat(run("preview", talk.toString(), "--page", "0")).isEqualTo(Outcome.WRONG_USE.code());
    }

    @Test
    void aListIsShownAsAListAndAHeadingAsOne() throws IOException {
        String file = save("plan.md", "# Autumn\n\nTo do:\n\n- prune\n- graft\n");
        protect();
        assertThat(preview(file)).contains("Autumn", "To do:", "• prune", "• graft");
    }

    @Test
    void aPictureSaysHowLargeItIs() throws IOException {
        Path file = desk.resolve("label.png");
        ImageIO.write(new BufferedImage(42, 17, BufferedImage.TYPE_INT_RGB), "png", file.toFile());
        protect();
        assertThat(preview(file)).contains("42 × 17 pixels");
    }

    @Test
    void whatIsEmptyIsSaidToBe() throws IOException {
        String file = save("empty.txt", "");
        protect();
        assertThat(preview(file)).contains("empty: 0 bytes");
    }

    @Test
    void ofOtherFilesItsWordsAndItsFirstBytesAreShown() throws IOException {
        byte[] bytes = new byte[4000];
        new Random(1).nextBytes(bytes);
        System.arraycopy("WRITTEN BY THE SCALE".getBytes(StandardCharsets.US_ASCII), 0, bytes, 2000, 20);
        Path file = Files.write(desk.resolve("scale.dat"), bytes);
        protect();
        assertThat(preview(file))
                .contains("WRITTEN BY THE SCALE")
                .contains("4.00 kB")
                .contains("\n000000  ");
    }

    @Test
    void anEarlierVersionIsShownByItsNumber() throws IOException {
        String file = save("letter.txt", "first words\n");
        protect();
        save("letter.txt", "other words\n");
        run("capture");
        assertThat(preview(file, "--version", "1")).contains("first words").doesNotContain("other");
        assertThat(preview(file)).contains("other words");
        assertThat(run("preview", file, "--version", "7")).isEqualTo(Outcome.WRONG_USE.code());
        assertThat(err).contains("no version 7");
    }
}
