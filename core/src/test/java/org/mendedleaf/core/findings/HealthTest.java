package org.mendedleaf.core.findings;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.document.Health.Reason;
import org.mendedleaf.core.document.Made;

/** Whether contents are what their names say, and whole. */
class HealthTest {

    private static Health health(String name, byte[] content) throws IOException {
        return DocumentProcess.shared().health(name, content);
    }

    private static Reason reason(String name, byte[] content) throws IOException {
        return health(name, content).reason();
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] noise(int length) {
        byte[] noise = new byte[length];
        new Random(7).nextBytes(noise);
        return noise;
    }

    /** A byte in the middle is another one. */
    private static byte[] flipped(byte[] content, int at) {
        byte[] other = content.clone();
        other[at] ^= 0x55;
        return other;
    }

    @Test
    void whatOpensAsItsNameSaysIsGoodAndSaysHowMuchOfItThereIs() throws IOException {
        assertThat(health("a.ods", Made.ods(Made.rows("k,v", "a,1"))).words()).isEqualTo("opens, 2 rows");
        assertThat(health("a.xlsx", Made.xlsx(Made.rows("k,v"))).words()).isEqualTo("opens, 1 row");
        assertThat(health("a.docx", Made.docx("one", "two")).words()).isEqualTo("opens, 2 paragraphs");
        assertThat(health("a.odp", Made.odp("one", "two")).words()).isEqualTo("opens, 2 slides");
        assertThat(health("a.pdf", Made.pdf("one")).words()).isEqualTo("opens, 1 page");
        assertThat(health("a.png", Made.picture("png", 30, 20, 5)).words()).isEqualTo("picture, 30 × 20");
        assertThat(health("a.zip", Made.zip(Map.of("a", "x"))).words()).isEqualTo("whole, 1 member");
        assertThat(health("a.txt", utf8("one\ntwo\n")).words()).isEqualTo("text, 2 lines");
        assertThat(health("a.json", utf8("{\"a\": [1, 2]}")).isGood()).isTrue();
        assertThat(health("a.xml", utf8("<a><b/></a>")).isGood()).isTrue();
        assertThat(health("a.strange", noise(3000)).isGood())
                .as("nobody knows what it should be")
                .isTrue();
    }

    @Test
    void whatIsNotWhatItsNameSaysIsDoubtful() throws IOException {
        Health letter = health("ledger.ods", Made.odt("Dear members"));
        assertThat(letter.reason()).isEqualTo(Reason.OTHER_KIND);
        assertThat(letter.state()).isEqualTo(Health.State.DOUBTFUL);
        assertThat(letter.words()).isEqualTo("it is a document, not what its name says");
        assertThat(reason("a.odt", new byte[0])).isEqualTo(Reason.EMPTY);
        assertThat(reason("a.json", utf8("{\"a\": [1, 2"))).isEqualTo(Reason.DOES_NOT_PARSE);
        assertThat(health("a.json", utf8("{\n\"a\": oops}")).words()).contains("line 2");
        assertThat(reason("a.xml", utf8("<a><b></a>"))).isEqualTo(Reason.DOES_NOT_PARSE);
    }

    @Test
    void whatCannotBeUsedIsBroken() throws IOException {
        assertThat(reason("a.ods", noise(2000))).isEqualTo(Reason.DOES_NOT_OPEN);
        assertThat(reason("a.pdf", noise(2000))).isEqualTo(Reason.DOES_NOT_OPEN);
        assertThat(reason("a.png", noise(2000))).isEqualTo(Reason.DOES_NOT_OPEN);
        assertThat(reason("a.txt", noise(2000))).isEqualTo(Reason.NOT_TEXT);
        assertThat(reason("a.csv", noise(2000))).isEqualTo(Reason.NOT_TEXT);
        assertThat(reason("a.docx", new byte[4096])).isEqualTo(Reason.ONE_BYTE);
        byte[] docx = Made.docx("a paragraph", "and another");
        assertThat(reason("a.docx", Arrays.copyOf(docx, docx.length / 2))).isEqualTo(Reason.DOES_NOT_OPEN);
        assertThat(health("a.docx", noise(2000)).state()).isEqualTo(Health.State.BROKEN);
    }

    @Test
    void damageInsideAnArchiveOrAPictureShowsByItsChecksum() throws IOException {
        byte[] zip = Made.zip(Map.of("letter.txt", "The rent is four hundred. ".repeat(40)));
        int inside = 30 + "letter.txt".length() + 5;
        assertThat(reason("a.zip", zip)).isEqualTo(Reason.WELL);
        Health damaged = health("a.zip", flipped(zip, inside));
        assertThat(damaged.reason()).isEqualTo(Reason.CHECKSUM);
        assertThat(damaged.words()).contains("letter.txt");
        byte[] png = Made.picture("png", 60, 60, 9);
        assertThat(reason("a.png", flipped(png, png.length - 30))).isIn(Reason.CHECKSUM, Reason.DOES_NOT_OPEN);
    }

    @Test
    void aPictureOrAPdfWithoutItsEndIsCutShort() throws IOException {
        byte[] jpeg = Made.picture("jpg", 400, 300, 40);
        assertThat(reason("a.jpg", jpeg)).isEqualTo(Reason.WELL);
        assertThat(reason("a.jpg", Arrays.copyOf(jpeg, jpeg.length * 3 / 4)))
                .isIn(Reason.CUT_SHORT, Reason.DOES_NOT_OPEN);
        byte[] pdf = Made.pdf("The rent is four hundred.");
        assertThat(health("a.pdf", Arrays.copyOf(pdf, pdf.length - 60)).state())
                .isIn(Health.State.BROKEN, Health.State.DOUBTFUL);
    }

    @Test
    void aPdfWhoseTextIsDamagedWithinSaysSo() throws IOException {
        byte[] pdf = Made.pdf("The rent is four hundred, and the meadow is mown twice a year by whoever has it.");
        String text = new String(pdf, StandardCharsets.ISO_8859_1);
        int stream = text.indexOf("stream\r\n") + 8;
        if (text.indexOf("FlateDecode") < 0) {
            return;
        }
        assertThat(reason("a.pdf", pdf)).isEqualTo(Reason.WELL);
        assertThat(reason("a.pdf", flipped(pdf, stream + 20))).isIn(Reason.CHECKSUM, Reason.DOES_NOT_OPEN);
    }

    @Test
    void aPictureOfPixelsIsNoDrawing() throws IOException {
        assertThat(reason("a.svg", Made.picture("png", 30, 20, 5))).isEqualTo(Reason.OTHER_KIND);
    }

    @Test
    void structureIsToldFromChance() throws IOException {
        assertThat(health("a.dat", noise(5000)).noise()).isGreaterThan(780);
        assertThat(health("a.txt", utf8("the rent is due on the first of May\n".repeat(50)))
                        .noise())
                .isLessThan(500);
        assertThat(health("a.dat", utf8("abc")).head()).isEqualTo("616263");
    }
}
