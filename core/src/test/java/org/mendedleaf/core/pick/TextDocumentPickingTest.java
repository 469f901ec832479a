package org.mendedleaf.core.pick;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.document.Made;

class TextDocumentPickingTest {

    private static Comparison compare(String name, byte[] a, byte[] b) {
        return Compare.compare(Documents.read(name, a, false), a, Documents.read(name, b, false), b);
    }

    private static Picking.Outcome back(String name, byte[] a, byte[] b, Integer... numbers) throws IOException {
        return Picking.back(name, a, b, compare(name, a, b), Set.of(numbers));
    }

    private static byte[] made(String kind, String... paragraphs) {
        return kind.equals("a.odt") ? Made.odt(paragraphs) : Made.docx(paragraphs);
    }

    private static List<String> words(String name, byte[] content) {
        Document.Prose prose = (Document.Prose) Documents.read(name, content, false);
        return prose.sections().get(0).blocks().stream()
                .map(b -> b.text().replace('\t', '|'))
                .toList();
    }

    private static String part(byte[] content, String name) throws IOException {
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
                if (e.getName().equals(name)) {
                    return new String(zip.readAllBytes(), StandardCharsets.UTF_8);
                }
            }
        }
        throw new IOException(name);
    }

    private static byte[] with(byte[] content, String name, String from, String to) throws IOException {
        Map<String, byte[]> parts = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
                byte[] bytes = zip.readAllBytes();
                if (e.getName().equals(name)) {
                    String text = new String(bytes, StandardCharsets.UTF_8);
                    assertThat(text).contains(from);
                    bytes = text.replace(from, to).getBytes(StandardCharsets.UTF_8);
                }
                parts.put(e.getName(), bytes);
            }
        }
        return Made.zipOf(parts);
    }

    private static final String CLAUSE = "The tenant keeps the orchard in good order and prunes it each winter.";
    private static final String CHANGED =
            "The tenant keeps the orchard in fair order and prunes it each second winter.";

    @ParameterizedTest
    @ValueSource(strings = {"a.odt", "a.docx"})
    void aParagraphAnItemAndARowComeBackEachAlone(String name) throws IOException {
        byte[] a = made(
                name,
                "# Lease",
                CLAUSE,
                "- first thing to do",
                "- second thing to do",
                "| rent | 200 pounds",
                "| due | Lady Day",
                "Signed by both of them.");
        byte[] b = made(
                name,
                "# Lease",
                CHANGED,
                "- first thing to do",
                "| rent | 200 pounds",
                "Signed by both of them.",
                "And a last line that nobody wanted.");
        List<Comparison.Change> changes = compare(name, a, b).changes();
        assertThat(changes).hasSize(4);
        List<String> now = words(name, b);
        List<String> clause = new ArrayList<>(now);
        clause.set(1, CLAUSE);
        assertThat(words(name, back(name, a, b, 1).content())).isEqualTo(clause);
        List<String> item = new ArrayList<>(now);
        item.add(3, words(name, a).get(3));
        assertThat(words(name, back(name, a, b, 2).content())).isEqualTo(item);
        List<String> row = new ArrayList<>(now);
        row.add(4, "due|Lady Day");
        assertThat(words(name, back(name, a, b, 3).content())).isEqualTo(row);
        List<String> last = new ArrayList<>(now);
        last.remove(last.size() - 1);
        assertThat(words(name, back(name, a, b, 4).content())).isEqualTo(last);
        assertThat(words(name, back(name, a, b, 1, 2, 3, 4).content())).isEqualTo(words(name, a));
    }

    @ParameterizedTest
    @ValueSource(strings = {"a.odt", "a.docx"})
    void aMovedParagraphGoesBackToItsPlaceAndTheFirstOneComesBackBeforeAllOthers(String name) throws IOException {
        byte[] a = made(
                name,
                "One paragraph that is long enough.",
                "Two paragraphs, and this is the second.",
                "Three of them, this one the last.");
        byte[] moved = made(
                name,
                "Two paragraphs, and this is the second.",
                "Three of them, this one the last.",
                "One paragraph that is long enough.");
        assertThat(words(name, back(name, a, moved, 1).content())).isEqualTo(words(name, a));
        byte[] without = made(name, "Two paragraphs, and this is the second.", "Three of them, this one the last.");
        assertThat(words(name, back(name, a, without, 1).content())).isEqualTo(words(name, a));
    }

    @Test
    void everythingElseInAnOpenDocumentStaysAsItIsWritten() throws IOException {
        byte[] a = Made.odt("# Lease", CLAUSE, "Signed <here> & there.");
        byte[] b = Made.odt("# Lease", CHANGED, "Signed <here> & there.");
        assertThat(part(back("a.odt", a, b, 1).content(), "content.xml"))
                .isEqualTo(part(b, "content.xml").replace(CHANGED, CLAUSE));
    }

    @Test
    void anotherProgramReadsTheDocumentAndAParagraphKeepsItsStyle() throws IOException {
        byte[] a = Made.docx("# The lease of the orchard", CLAUSE);
        byte[] b = Made.docx("# The lease of the old orchard", CLAUSE);
        try (XWPFDocument document = new XWPFDocument(
                new ByteArrayInputStream(back("a.docx", a, b, 1).content()))) {
            assertThat(document.getParagraphs().get(0).getText()).isEqualTo("The lease of the orchard");
            assertThat(document.getParagraphs().get(0).getStyle()).isEqualTo("H1");
        }
    }

    @Test
    void boldWordsComeBackBoldUnderAStyleThatTheLaterDocumentDoesNotHave() throws IOException {
        String declared = " xmlns:style=\"urn:oasis:names:tc:opendocument:xmlns:style:1.0\"><office:automatic-styles>";
        byte[] a = with(
                with(
                        Made.odt(CLAUSE, "x"),
                        "content.xml",
                        "good",
                        "<text:span text:style-name=\"T1\">good</text:span>"),
                "content.xml",
                "><office:body>",
                declared + "<style:style style:name=\"T1\" bold=\"yes\"/></office:automatic-styles><office:body>");
        byte[] b = with(
                Made.odt(CHANGED, "x"),
                "content.xml",
                "><office:body>",
                declared + "<style:style style:name=\"T1\" slanted=\"yes\"/></office:automatic-styles><office:body>");
        String made = part(back("a.odt", a, b, 1).content(), "content.xml");
        assertThat(made)
                .contains("<text:span text:style-name=\"T1_1\">good</text:span>")
                .contains("<style:style style:name=\"T1_1\" bold=\"yes\"/>")
                .contains("<style:style style:name=\"T1\" slanted=\"yes\"/>");
    }

    @Test
    void whatHoldsMoreThanWordsIsRefusedInWordsAndNothingIsMade() throws IOException {
        byte[] a = Made.odt(CLAUSE, "x");
        byte[] noted = with(
                Made.odt(CHANGED, "x"),
                "content.xml",
                "winter.",
                "winter<text:note><text:note-body><text:p>a note</text:p></text:note-body></text:note>.");
        assertThatThrownBy(() -> back("a.odt", a, noted, 1)).hasMessageContaining("cannot be taken back alone");
        assertThat(compare("a.odt", a, noted).changes()).hasSize(2);
        assertThatThrownBy(() -> back("a.odt", a, noted, 2)).hasMessageContaining("Notes and comments");
        byte[] marked =
                with(Made.docx(CHANGED, "x"), "word/document.xml", "<w:r>", "<w:fldSimple w:instr=\"DATE\"/><w:r>");
        assertThatThrownBy(() -> back("a.docx", Made.docx(CLAUSE, "x"), marked, 1))
                .hasMessageContaining("cannot be taken back alone");
        assertThatThrownBy(() -> back("a.odt", Made.odt("x", "| a | b"), Made.odt("x"), 1))
                .hasMessageContaining("The table of this row");
    }

    @Test
    void itemsAndHeadingsThatComeBackBeforeAllThatIsLeftKeepTheirOrder() throws IOException {
        byte[] a = Made.odt("- mend the press before September", "# The year", "# The year", "- buy two new ladders");
        byte[] b = Made.odt("- buy two new ladders");
        assertThat(words("a.odt", back("a.odt", a, b, 1, 2, 3).content())).isEqualTo(words("a.odt", a));
    }

    private static final List<String> PARAGRAPHS = List.of(
            "# The year in the orchard",
            "Pruning went on until the end of February.",
            "- buy two new ladders for the pickers",
            "- mend the press before September",
            "The harvest was late and the fruit was small.",
            "Nobody was hurt when the cart fell over.");

    private static String[] some(List<Integer> numbers) {
        return numbers.stream().map(PARAGRAPHS::get).toArray(String[]::new);
    }

    private static void allBack(String name, List<Integer> x, List<Integer> y) throws IOException {
        byte[] a = made(name, some(x));
        byte[] b = made(name, some(y));
        List<Comparison.Change> changes = compare(name, a, b).changes();
        if (!changes.isEmpty()) {
            Integer[] all = IntStream.rangeClosed(1, changes.size()).boxed().toArray(Integer[]::new);
            List<String> back = words(name, back(name, a, b, all).content());
            assertThat(back).containsExactlyInAnyOrderElementsOf(words(name, a));
        }
    }

    @Property(tries = 40)
    void takingAllBackGivesTheParagraphsOfTheEarlierText(
            @ForAll @Size(min = 1, max = 7) List<@IntRange(max = 5) Integer> x,
            @ForAll @Size(min = 1, max = 7) List<@IntRange(max = 5) Integer> y)
            throws IOException {
        allBack("a.odt", x, y);
    }

    @Property(tries = 12)
    void takingAllBackGivesTheParagraphsOfTheEarlierWordText(
            @ForAll @Size(min = 1, max = 7) List<@IntRange(max = 5) Integer> x,
            @ForAll @Size(min = 1, max = 7) List<@IntRange(max = 5) Integer> y)
            throws IOException {
        allBack("a.docx", x, y);
    }
}
