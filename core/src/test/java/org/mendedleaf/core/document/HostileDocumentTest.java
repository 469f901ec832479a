package org.mendedleaf.core.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** Documents that are made to do harm, and damaged ones, cost one answer, which says why. */
class HostileDocumentTest {

    private static final DocumentProcess PROCESS = new DocumentProcess(Duration.ofSeconds(30), 512);

    @AfterAll
    static void end() {
        PROCESS.close();
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String why(String name, byte[] content) throws IOException {
        Document document = PROCESS.read(name, content, false);
        assertThat(document).as(name).isInstanceOf(Document.Other.class);
        return ((Document.Other) document).why();
    }

    /** What comes after is answered as if nothing had been. */
    private static void stillWell() throws IOException {
        assertThat(PROCESS.read("a.odt", Made.odt("well"), false)).isInstanceOf(Document.Prose.class);
    }

    @Test
    void aPartThatUnpacksToGigabytesIsGivenUp() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("mimetype"));
            zip.write(utf8("application/vnd.oasis.opendocument.text"));
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write(utf8("<a><body><text>"));
            byte[] much = new byte[1 << 20];
            Arrays.fill(much, (byte) ' ');
            for (int i = 0; i < 400; i++) {
                zip.write(much);
            }
            zip.write(utf8("</text></body></a>"));
        }
        assertThat(why("bomb.odt", out.toByteArray()))
                .isEqualTo("It unpacks to far more than any document does, and is not looked into.");
        stillWell();
    }

    @Test
    void archivesInEachOtherAreListedAndNotFollowed() throws IOException {
        byte[] inner = Made.zip(Map.of("a.txt", "x"));
        for (int i = 0; i < 20; i++) {
            inner = Made.zipOf(Map.of("inner.zip", inner));
        }
        Document document = PROCESS.read("nested.zip", inner, false);
        assertThat(document).isInstanceOf(Document.Archive.class);
        assertThat(((Document.Archive) document).members()).hasSize(1);
    }

    @Test
    void ofAHundredThousandsOfMembersAsManyAreListedAsAnybodyReads() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < 150_000; i++) {
                zip.putNextEntry(new ZipEntry("m" + i));
            }
        }
        Document.Archive archive = (Document.Archive) PROCESS.read("many.zip", out.toByteArray(), false);
        assertThat(archive.cut()).isTrue();
        assertThat(archive.members()).hasSize(100_000);
    }

    /** An archive of empty members, of which each header stands in the directory; the count at its end may lie. */
    private static byte[] members(int count, int lie) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < count; i++) {
                ZipEntry entry = new ZipEntry("m" + i + (i % 3 == 0 ? "/" : ""));
                entry.setTimeLocal(java.time.LocalDateTime.of(2026, 5, 4, 10, 42, 8));
                zip.putNextEntry(entry);
            }
            zip.setComment("what stands after the end");
        }
        byte[] content = out.toByteArray();
        if (lie >= 0) {
            ByteBuffer.wrap(content)
                    .order(java.nio.ByteOrder.LITTLE_ENDIAN)
                    .putShort(content.length - 25 - 22 + 10, (short) lie);
        }
        return content;
    }

    @Test
    void ofALargeArchiveTheFirstMembersAreReadAsAThoroughReaderReadsThem() throws IOException {
        Limits few = new Limits(1 << 20, 20, 100, 100, 7, 10, 1, 1000);
        Document.Archive first = (Document.Archive) Documents.read("a.zip", members(8, -1), false, few);
        assertThat(first.cut()).isTrue();
        Document.Archive whole = (Document.Archive) Documents.read("a.zip", members(7, -1), false, few);
        assertThat(whole.cut()).isFalse();
        assertThat(first.members()).isEqualTo(whole.members());
        assertThat(((Document.Archive) Documents.read("a.zip", members(9, 3), false, few)).cut())
                .as("whatever the count at its end says")
                .isTrue();
    }

    @Test
    void aDirectoryThatIsCutOrPointsNowhereIsNoDirectory() throws IOException {
        byte[] content = members(20, -1);
        assertThat(ZipDirectory.of(content).hasMoreThan(19)).isTrue();
        assertThat(ZipDirectory.of(content).hasMoreThan(20)).isFalse();
        assertThat(ZipDirectory.of(Arrays.copyOf(content, content.length - 30)).hasMoreThan(0))
                .isFalse();
        ByteBuffer.wrap(content).putInt(content.length - 25 - 22 + 16, 0xffffff7f);
        assertThat(ZipDirectory.of(content).hasMoreThan(0)).isFalse();
        assertThat(ZipDirectory.of(content).first(10)).isEmpty();
        assertThat(ZipDirectory.of(new byte[3]).hasMoreThan(0)).isFalse();
    }

    @Test
    void entitiesAreNeitherFetchedNorMultiplied() throws IOException {
        String bomb = "<!DOCTYPE a [<!ENTITY b \"bbbbbbbbbb\"><!ENTITY c \"&b;&b;&b;&b;&b;&b;&b;&b;\">"
                + "<!ENTITY file SYSTEM \"file:///etc/passwd\">]>";
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put("mimetype", "application/vnd.oasis.opendocument.text");
        parts.put(
                "content.xml",
                bomb + "<d xmlns:o=\"o\"><o:body><o:text><o:p>before &c; &file; after</o:p></o:text></o:body></d>");
        Document document = PROCESS.read("xxe.odt", Made.zip(parts), false);
        assertThat(String.join(" ", Document.words(document)))
                .doesNotContain("root:")
                .doesNotContain("bbb");
        stillWell();
    }

    @Test
    void elementsInEachOtherWithoutEndAreGivenUp() throws IOException {
        String deep =
                "<office:text>" + "<text:section>".repeat(50_000) + "</text:section>".repeat(50_000) + "</office:text>";
        assertThat(why("deep.odt", Made.openDocument("text", deep))).contains("deeper than any document needs");
        stillWell();
    }

    @Test
    void whatBreaksOffOrIsNotWhatItsNameSaysSaysSo() throws IOException {
        byte[] whole = Made.docx("a paragraph", "and another");
        assertThat(why("cut.docx", Arrays.copyOf(whole, whole.length / 2)))
                .isEqualTo("It is damaged, or not what its name says.");
        assertThat(why("cut.xls", Arrays.copyOf(Made.xls(Made.rows("a,1", "b,2")), 2000)))
                .isEqualTo("It is damaged, or not what its name says.");
        assertThat(why("cut.png", Arrays.copyOf(Made.picture("png", 100, 100, 20), 60)))
                .isNotEmpty();
        assertThat(PROCESS.read("table.ods", Made.docx("a letter"), false))
                .as("its bytes say what it is")
                .isInstanceOf(Document.Prose.class);
        stillWell();
    }

    @Test
    void aPictureThatClaimsToBeHugeIsNotDrawn() throws IOException {
        byte[] png = Made.picture("png", 10, 10, 5);
        ByteBuffer header = ByteBuffer.wrap(png);
        header.putInt(16, 100_000).putInt(20, 100_000);
        CRC32 crc = new CRC32();
        crc.update(png, 12, 17);
        header.putInt(29, (int) crc.getValue());
        assertThat(why("huge.png", png)).contains("100,000 × 100,000 pixels");
        stillWell();
    }

    @Test
    void whatTakesAllMemoryOrAllTimeCostsOneAnswer() throws IOException {
        try (DocumentProcess small = new DocumentProcess(Duration.ofSeconds(30), 24)) {
            StringBuilder rows = new StringBuilder();
            for (int i = 0; i < 60_000; i++) {
                rows.append("<table:table-row><table:table-cell><text:p>cell ")
                        .append(i)
                        .append("</text:p></table:table-cell></table:table-row>");
            }
            byte[] large = Made.openDocument(
                    "spreadsheet", "<office:spreadsheet><table:table>" + rows + "</table:table></office:spreadsheet>");
            Document document = small.read("large.ods", large, false);
            assertThat(document).isInstanceOf(Document.Other.class);
            assertThat(((Document.Other) document).why()).contains("more memory");
            assertThat(small.read("a.odt", Made.odt("well"), false)).isInstanceOf(Document.Prose.class);
        }
        try (DocumentProcess hasty = new DocumentProcess(Duration.ofMillis(1), 256)) {
            Document document = hasty.read("a.odt", Made.odt("slow"), false);
            assertThat(((Document.Other) document).why()).contains("too long");
        }
    }

    @Test
    void whatSaysTheSameForEverIsReadAsFarAsThereIsAnythingToShow() throws IOException {
        Limits few = new Limits(1 << 20, 20, 1000, 100_000, 100, 10, 1, 5_000);
        String cell = "<table:table-cell table:number-columns-repeated=\"900\"><text:p>" + "word ".repeat(100)
                + "</text:p></table:table-cell>";
        byte[] sheet = Made.openDocument(
                "spreadsheet",
                "<office:spreadsheet><table:table table:name=\"a\"><table:table-row><table:table-cell><text:p>first"
                        + "</text:p></table:table-cell></table:table-row><table:table-row>" + cell
                        + "</table:table-row></table:table></office:spreadsheet>");
        Document.Sheets sheets = (Document.Sheets) Documents.read("a.ods", sheet, false, few);
        assertThat(sheets.cut()).isTrue();
        assertThat(Document.words(sheets)).contains("first").allMatch(w -> w.length() < 5_000);
        Document.Prose pages = (Document.Prose)
                Documents.read("a.pdf", Made.pdf("a page", "more ".repeat(2_000), "the end"), false, few);
        assertThat(pages.cut()).isTrue();
        assertThat(pages.sections()).hasSize(1);
        assertThat(Documents.words(Made.odt("word ".repeat(5_000)), few)).hasSize(5_000);
    }

    @Test
    void threadsAskProcessesOfTheirOwnAndWhatIsEndedMeanwhileIsBegunAgain() throws Exception {
        try (DocumentProcess two = new DocumentProcess(Duration.ofSeconds(30), 256, 2)) {
            byte[] letter = Made.odt("well");
            List<Thread> threads = new ArrayList<>();
            Queue<String> said = new ConcurrentLinkedQueue<>();
            for (int t = 0; t < 4; t++) {
                threads.add(new Thread(() -> {
                    for (int i = 0; i < 5; i++) {
                        try {
                            said.add(two.words(letter));
                        } catch (IOException e) {
                            said.add(String.valueOf(e));
                        }
                    }
                }));
            }
            threads.forEach(Thread::start);
            for (Thread thread : threads) {
                thread.join();
            }
            assertThat(said).hasSize(20).containsOnly("well");
            two.end();
            assertThat(two.words(letter)).isEqualTo("well");
        }
    }

    @Test
    void ofAnOfficeDocumentOfWhichOnlyTheBeginningIsThereTheNamesAreRead() throws IOException {
        byte[] whole = Made.docx("a letter");
        assertThat(Documents.memberNames(whole, 200)).contains("word/document.xml", "[Content_Types].xml");
        assertThat(Documents.memberNames(Arrays.copyOf(whole, whole.length - 60), 200))
                .contains("[Content_Types].xml");
        assertThat(Documents.memberNames(new byte[10], 200)).isEmpty();
    }

    @Test
    void errorsOfMembersAndPagesComeBackInWords() {
        assertThatThrownBy(() -> PROCESS.member("a.zip", Made.zip(Map.of("a", "b")), "c"))
                .isInstanceOf(DocumentException.class)
                .hasMessageContaining("“c”");
        assertThatThrownBy(() -> PROCESS.page(utf8("no pdf"), 0, 100)).isInstanceOf(DocumentException.class);
    }

    @Test
    void ofATextOfAnySizeTheBeginningIsRead() throws IOException {
        byte[] head = utf8("line\n".repeat(300_000));
        Document.Text text = (Document.Text) PROCESS.read("log.txt", head, true);
        assertThat(text.cut()).isTrue();
        assertThat(text.lines()).hasSize(200_000);
    }
}
