package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Made;

class PairTest {

    private static Optional<Side> side(String name, String said, byte[] content) {
        return Optional.of(new Side(name, said, content));
    }

    private static Optional<Side> text(String said, String text) {
        return side("a.txt", said, text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void twoAreComparedAndOneAloneIsRead() throws Exception {
        Pair.Seen both = new Pair(text("now", "a\nb\n"), text("version 3", "a\nc\n")).see();
        assertThat(both.words()).isEqualTo("now, then version 3: +1 line, −1 line");
        assertThat(both.comparison()).isPresent();
        assertThat(both.document()).isEmpty();
        Pair.Seen one = new Pair(text("now", "a\nb\n"), Optional.empty()).see();
        assertThat(one.words()).isEqualTo("Only in now; nothing comes after it.");
        assertThat(one.document())
                .hasValueSatisfying(d -> assertThat(Document.words(d)).containsExactly("a", "b"));
        assertThat(new Pair(Optional.empty(), text("version 3", "a")).see().words())
                .isEqualTo("Only in version 3; there is nothing before it.");
        assertThat(new Pair(text("now", "a"), text("version 3", "a")).see().words())
                .isEqualTo("No difference: now and version 3 have the same content.");
        assertThat(new Pair(Optional.empty(), Optional.empty()).see().words()).isEqualTo("Neither has a file here.");
    }

    @Test
    void insteadOfNothingOrOfAnotherKindOfFileWhatComesIsShownItself() throws Exception {
        Pair.Seen filled = new Pair(text("now", ""), text("version 3", "a\nb\n")).see();
        assertThat(filled.words()).isEqualTo("now: empty. This is version 3.");
        assertThat(Document.words(filled.document().orElseThrow())).containsExactly("a", "b");
        Pair.Seen emptied = new Pair(text("version 3", "a\nb\n"), text("now", "")).see();
        assertThat(emptied.words()).isEqualTo("now: empty. This is version 3.");
        assertThat(Document.words(emptied.document().orElseThrow())).containsExactly("a", "b");
        Pair.Seen other = new Pair(
                        side("a.ods", "now", Made.odt("Dear members")),
                        side("a.ods", "version 3", Made.ods(Made.rows("k,v", "a,1"))))
                .see();
        assertThat(other.words()).isEqualTo("now, then version 3: a document, then a table");
        assertThat(other.document().orElseThrow()).isInstanceOf(Document.Sheets.class);
        assertThat(new Pair(text("now", ""), text("version 3", "")).see().words())
                .startsWith("No difference");
    }

    private static byte[] mail(String rows, String more) {
        return ("From: Ines <ines@example.org>\nTo: Tomas\nSubject: The fees\nMIME-Version: 1.0\n"
                        + "Content-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nHere they are.\n"
                        + "--b\nContent-Type: text/csv; name=fees.csv\n"
                        + "Content-Disposition: attachment; filename=fees.csv\n\n" + rows + "\n" + more + "--b--\n")
                .getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void attachmentsOfMessagesAreComparedFromThere() throws Exception {
        String note = "--b\nContent-Type: text/plain; name=note.txt\n"
                + "Content-Disposition: attachment; filename=note.txt\n\nnew\n";
        Pair pair = new Pair(
                side("a.eml", "version 1", mail("k,v\na,1", "")), side("a.eml", "version 2", mail("k,v\na,2", note)));
        assertThat(pair.member("fees.csv").see().words()).isEqualTo("version 1, then version 2: 1 cell");
        assertThat(pair.member("note.txt").see().words()).isEqualTo("Only in version 2; there is nothing before it.");
        assertThat(pair.member("never.txt").see().words()).isEqualTo("Neither has a file here.");
    }

    @Test
    void membersOfArchivesAreComparedFromThere() throws Exception {
        byte[] a = Made.zip(Map.of("in/a.txt", "one\ntwo\n", "gone.txt", "gone"));
        byte[] b = Made.zip(Map.of("in/a.txt", "one\nzwei\n"));
        Pair pair = new Pair(side("a.zip", "version 1", a), side("a.zip", "version 2", b));
        assertThat(pair.member("in/a.txt").see().words()).isEqualTo("version 1, then version 2: +1 line, −1 line");
        assertThat(pair.member("gone.txt").see().words()).isEqualTo("Only in version 1; nothing comes after it.");
        assertThat(pair.member("never.txt").see().words()).isEqualTo("Neither has a file here.");
        byte[] outer = Made.zipOf(Map.of("inner.zip", b));
        Pair nested =
                new Pair(side("o.zip", "version 1", outer), side("o.zip", "version 2", outer)).member("inner.zip");
        assertThat(nested.member("in/a.txt").after())
                .hasValueSatisfying(s ->
                        assertThat(s.content()).asString(StandardCharsets.UTF_8).isEqualTo("one\nzwei\n"));
        Pair broken = new Pair(side("a.zip", "version 1", new byte[] {'P', 'K', 3, 4, 0}), Optional.empty());
        assertThatThrownBy(() -> broken.member("x")).isInstanceOf(IOException.class);
    }

    /** A PDF with a word, and a line below it that reaches so far. */
    private static byte[] drawn(float right) throws IOException {
        try (PDDocument document = Loader.loadPDF(Made.pdf("the plan", "a page between", "the end"));
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            try (PDPageContentStream stream = new PDPageContentStream(
                    document, document.getPage(1), PDPageContentStream.AppendMode.APPEND, true)) {
                stream.setLineWidth(8);
                stream.moveTo(72, 400);
                stream.lineTo(right, 400);
                stream.stroke();
            }
            document.save(out);
            return out.toByteArray();
        }
    }

    @Test
    void aPageThatOnlyLooksDifferentIsAChangeThoughNoWordOfItIs() throws Exception {
        byte[] a = drawn(200);
        byte[] b = drawn(500);
        Comparison comparison = Compare.compare("plan.pdf", a, b);
        assertThat(comparison.words()).isEqualTo("page 2");
        assertThat(comparison.changes()).singleElement().satisfies(c -> {
            assertThat(c.where()).isEqualTo("page 2");
            assertThat(c.after()).isEqualTo("the page looks different");
        });
        Comparison.PictureChanges page = PagePictures.compare(a, 1, b, 1, 400);
        assertThat(page.share()).isBetween(0.001, 0.1);
        assertThat(PagePictures.compare(a, 0, b, 0, 400).share()).isZero();
        Comparison same = Compare.compare("plan.pdf", a, drawn(200));
        assertThat(same.changes())
                .as("saved again, and nothing looks different")
                .isEmpty();
    }
}
