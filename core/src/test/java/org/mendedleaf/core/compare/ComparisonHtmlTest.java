package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import javax.xml.parsers.DocumentBuilderFactory;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.report.CsvTable;
import org.xml.sax.InputSource;

/** A comparison as a page, and as a table and a map for other programs. */
class ComparisonHtmlTest {

    private static Comparison compare(String name, String a, String b) {
        byte[] x = a.getBytes(StandardCharsets.UTF_8);
        byte[] y = b.getBytes(StandardCharsets.UTF_8);
        return Compare.compare(Documents.read(name, x, false), x, Documents.read(name, y, false), y);
    }

    private static String page(Comparison c) {
        return ComparisonHtml.page("fees.csv", "version 1", "now", c);
    }

    /** As XML, but for what HTML lets stand open. */
    private static org.w3c.dom.Document parsed(String html) throws Exception {
        String xml = html.replace("<!DOCTYPE html>\n", "").replace("<meta charset=\"utf-8\">", "");
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
        return factory.newDocumentBuilder().parse(new InputSource(new StringReader(xml)));
    }

    @Test
    void whatIsGoneAndWhatCameIsMarked() throws Exception {
        String html = page(compare("a.txt", "one\nthe rent is 400\n", "one\nthe rent is 450\n"));
        assertThat(html).contains("<del>400</del>").contains("<ins>450</ins>").contains("version 1, then now");
        assertThat(parsed(html).getElementsByTagName("tr").getLength()).isEqualTo(3);
    }

    @Test
    void longRunsOfTheSameAreFoldedAndCounted() {
        String many = "line\n".repeat(50);
        String html = page(compare("a.txt", many + "x\n" + many, many + "y\n" + many));
        assertThat(html).contains("… 47 are the same");
        assertThat(html.split("<pre>line</pre>", -1)).hasSize(7);
    }

    @Test
    void cellsRowsAndTotalsOfASheetAreShown() throws Exception {
        String html = page(compare("a.csv", "k,v\na,1\nb,2\n", "k,v\na,1\nb,5\nd,4\n"));
        assertThat(html).contains("<del>2</del> <ins>5</ins>").contains("<tr class=\"added\">");
        parsed(html);
    }

    @Test
    void nothingInADocumentBecomesAPartOfThePage() throws Exception {
        String evil = "<script>alert(1)</script> & \"quoted\" <img src=x>\n";
        String html = page(compare("a.txt", "one\n", evil));
        assertThat(html).doesNotContain("<script>").doesNotContain("<img src=x");
        assertThat(parsed(html).getElementsByTagName("script").getLength()).isZero();
        String titled =
                ComparisonHtml.page("</title><script>x</script>", "<b>", "\"now\"", compare("a.txt", "1\n", "2\n"));
        assertThat(parsed(titled).getElementsByTagName("script").getLength()).isZero();
    }

    @Property(tries = 60)
    void whateverTextsSayThePageHolds(
            @ForAll @StringLength(max = 80) String a, @ForAll @StringLength(max = 80) String b) throws Exception {
        // What XML itself cannot hold is left out here; HTML takes it.
        String x = a.replaceAll("[^\\x20-\\x7E\\n]", "?");
        String y = b.replaceAll("[^\\x20-\\x7E\\n]", "?");
        parsed(page(compare("a.txt", x + "\nsame\n", y + "\nsame\n")));
    }

    @Test
    void otherKindsHaveABarOfWhatIsTheSame() {
        byte[] a = new byte[4000];
        new java.util.Random(1).nextBytes(a);
        byte[] b = a.clone();
        b[2000] ^= 5;
        String html = page(ByteCompare.compare(a, b, ""));
        assertThat(html)
                .contains("flex:2000")
                .contains("flex:1\" class=\"changed\"")
                .contains("flex:1999");
    }

    @Test
    void asATableEachChangeIsARow() throws Exception {
        Comparison c = compare("a.csv", "k,v\na,1\nb,2\n", "k,v\na,1\n\"b, or \"\"c\"\"\",2\nd,4\n");
        String csv = ComparisonReport.csv(c, CsvTable.Cells.TEXT);
        assertThat(csv).startsWith("number,change,where,before,after\r\n");
        assertThat(csv.lines().count()).isEqualTo(1L + c.changes().size());
        assertThat(csv).contains("\"b, or \"\"c\"\", 2\"");
    }

    @Test
    void asAMapItSaysTheKindAndEachChange() {
        Comparison c = compare("a.txt", "one\ntwo\n", "one\n2\nthree\n");
        assertThat(ComparisonReport.json(c))
                .containsEntry("equal", false)
                .containsEntry("kind", "text")
                .containsEntry("words", "+2 lines, −1 line");
        byte[] bytes = {1, 2, 3};
        assertThat(ComparisonReport.json(ByteCompare.compare(bytes, bytes, "")))
                .containsKeys("equalShare", "ranges")
                .containsEntry("kind", "byte");
        assertThat(ComparisonReport.json(new Comparison.Equal())).containsEntry("equal", true);
    }
}
