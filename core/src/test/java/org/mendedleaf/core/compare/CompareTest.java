package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.core.document.Made.rows;

import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.AlphaChars;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.document.Made;

class CompareTest {

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static Comparison compare(String name, byte[] a, byte[] b) {
        return Compare.compare(Documents.read(name, a, false), a, Documents.read(name, b, false), b);
    }

    private static Comparison compare(String name, String a, String b) {
        return compare(name, utf8(a), utf8(b));
    }

    @Test
    void equalContentsHaveNoDifference() throws InterruptedIOException {
        assertThat(Compare.compare("a.bin", utf8("\u0000x"), utf8("\u0000x"))).isInstanceOf(Comparison.Equal.class);
    }

    @Test
    void textsAreComparedByLineAndWithinTheLineByWord() {
        Comparison c = compare("a.txt", "one\nthe rent is 400\nthree\n", "one\nthe rent is 450\nthree\nfour\n");
        assertThat(c.words()).isEqualTo("+2 lines, −1 line");
        assertThat(c.changes()).extracting(Comparison.Change::where).containsExactly("line 2", "line 4");
        Comparison.TextChanges t = (Comparison.TextChanges) c;
        assertThat(t.lines().get(1).pieces())
                .containsExactly(
                        new Comparison.Piece(Mark.SAME, "the rent is "), new Comparison.Piece(Mark.REMOVED, "400"));
        assertThat(t.lines().get(2).pieces()).contains(new Comparison.Piece(Mark.ADDED, "450"));
    }

    @Test
    void tablesAreComparedByRowAndCell() {
        Comparison c = compare("a.csv", "k,v\na,1\nb,2\nc,3\n", "k,v\na,1\nb,5\nc,3\nd,4\n");
        assertThat(c.words()).isEqualTo("1 cell, +1 row");
        assertThat(c.changes())
                .extracting(x -> x.mark() + " " + x.where() + ": " + x.before() + " > " + x.after())
                .containsExactly("CHANGED B3, v of b: 2 > 5", "ADDED row 5:  > d, 4");
    }

    @ParameterizedTest
    @ValueSource(strings = {"xlsx", "ods", "xls"})
    void whatWasPutIntoASheetIsOneChangeAndTotalsAreToldApart(String format) {
        List<List<String>> a = rows("Kind,Kilos,By", "Bramley,736,Ines", "Egremont,332,Wilma", "Foxwhelp,204,Jory");
        List<List<String>> b =
                rows("Kind,Crates,Kilos,By", "Bramley,22,763,Ines", "Egremont,19,332,Wilma", "Foxwhelp,8,204,Jory");
        List<List<String>> before = new ArrayList<>(a);
        List<List<String>> after = new ArrayList<>(b);
        if (!format.equals("ods")) {
            before.add(List.of("Total", "=SUM(B2:B4)", ""));
            after.add(List.of("Total", "", "=SUM(C2:C4)", ""));
        }
        Comparison c = compare("fees." + format, made(format, before), made(format, after));
        assertThat(c.words()).isEqualTo("1 cell, +1 column" + (format.equals("ods") ? "" : ", total +27"));
        assertThat(c.changes())
                .extracting(Comparison.Change::where)
                .contains("column B Crates", "C2, Kilos of Bramley");
    }

    private static byte[] made(String format, List<List<String>> rows) {
        return switch (format) {
            case "xlsx" -> Made.xlsx(rows);
            case "xls" -> Made.xls(rows);
            default -> Made.ods(rows);
        };
    }

    @Test
    void rowsAndColumnsThatWereMovedAreMovedAndNothingElse() {
        String a = "Kind,Kilos,By\nBramley,736,Ines\nEgremont,332,Wilma\nFoxwhelp,204,Jory\n";
        String rowsMoved = "Kind,Kilos,By\nFoxwhelp,204,Jory\nBramley,736,Ines\nEgremont,332,Wilma\n";
        assertThat(compare("a.csv", a, rowsMoved).words()).isEqualTo("1 row moved");
        String columnsMoved = "By,Kind,Kilos\nInes,Bramley,736\nWilma,Egremont,332\nJory,Foxwhelp,204\n";
        assertThat(compare("a.csv", a, columnsMoved).words()).isEqualTo("1 column moved");
    }

    @ParameterizedTest
    @ValueSource(strings = {"docx", "odt"})
    void documentsAreComparedByParagraphAndWord(String format) {
        String[] a = {
            "# The lease",
            "The rent is 400 a month.",
            "It begins on the first of May.",
            "The tenant keeps the orchard in order.",
            "| Month | Rent",
            "| May | 400"
        };
        String[] b = {
            "# The lease",
            "The tenant keeps the orchard in order.",
            "The rent is 450 a month.",
            "It begins on the first of May.",
            "A cat may be kept.",
            "| Month | Rent",
            "| May | 450"
        };
        Comparison c = compare(
                "lease." + format,
                format.equals("docx") ? Made.docx(a) : Made.odt(a),
                format.equals("docx") ? Made.docx(b) : Made.odt(b));
        assertThat(c.words()).isEqualTo("1 paragraph, +1 paragraph, one moved …");
        assertThat(c.changes()).extracting(Comparison.Change::where).containsOnly("under “The lease”");
        assertThat(c.changes())
                .extracting(Comparison.Change::mark)
                .containsExactlyInAnyOrder(Mark.MOVED, Mark.CHANGED, Mark.ADDED, Mark.CHANGED);
    }

    @Test
    void presentationsAreComparedBySlideAndPdfByPage() {
        assertThat(compare("a.odp", Made.odp("one", "two here", "three"), Made.odp("one", "two there", "three"))
                        .words())
                .isEqualTo("slide 2");
        String[] pages = {"first page of all", "second page with words", "third page at the end"};
        assertThat(compare("a.pdf", Made.pdf(pages), Made.pdf(pages[0], "a page put in between", pages[1], pages[2]))
                        .words())
                .isEqualTo("+1 page");
    }

    @Test
    void picturesAreComparedByPixel() {
        Comparison c = compare("a.png", Made.picture("png", 100, 100, 10), Made.picture("png", 100, 100, 30));
        assertThat(c.words()).isEqualTo("picture, 8 % of it");
        assertThat(compare("a.png", Made.picture("png", 100, 100, 10), Made.picture("png", 50, 100, 10))
                        .words())
                .isEqualTo("picture of 100 × 100, then 50 × 100");
    }

    @Test
    void archivesAreComparedByMember() {
        Map<String, String> a = new LinkedHashMap<>(Map.of("same.txt", "s", "old name.txt", "moved", "b.txt", "one"));
        Map<String, String> b =
                new LinkedHashMap<>(Map.of("same.txt", "s", "new name.txt", "moved", "b.txt", "two", "c.txt", "c"));
        Comparison c = compare("x.zip", Made.zip(a), Made.zip(b));
        assertThat(c.words()).isEqualTo("2 members, +1 member");
        assertThat(c.changes())
                .extracting(x -> x.mark() + " " + x.where())
                .containsExactlyInAnyOrder("CHANGED b.txt", "MOVED new name.txt", "ADDED c.txt");
    }

    @Test
    void anythingElseIsComparedByEqualRangesOfBytes() {
        byte[] a = new byte[100_000];
        new Random(3).nextBytes(a);
        byte[] b = new byte[110_000];
        System.arraycopy(a, 0, b, 0, 50_000);
        System.arraycopy(a, 50_000, b, 60_000, 50_000);
        Comparison.ByteChanges c = (Comparison.ByteChanges) compare("a.bin", a, b);
        assertThat(c.ranges())
                .containsExactly(
                        new Comparison.Range(0, 0, 50_000),
                        new Comparison.Range(-1, 50_000, 10_000),
                        new Comparison.Range(50_000, 60_000, 50_000));
        assertThat(c.words()).isEqualTo("90 % the same bytes, +10.0 kB");
    }

    @Test
    void whatBecameOfAnotherKindOrEmptySaysSo() {
        assertThat(compare("ledger.ods", Made.ods(rows("a,1")), Made.odt("Dear Ines"))
                        .words())
                .isEqualTo("a table, then a document");
        assertThat(compare("a.txt", utf8("words"), new byte[0]).words()).isEqualTo("emptied");
    }

    @Property(tries = 300)
    void bothTextsCanBePutTogetherAgainFromTheirComparison(
            @ForAll @Size(max = 30) List<@AlphaChars @StringLength(max = 2) String> a,
            @ForAll @Size(max = 30) List<@AlphaChars @StringLength(max = 2) String> b) {
        String left = String.join("\n", a) + "\nend";
        String right = String.join("\n", b) + "\nend";
        if (compare("x.txt", left, right) instanceof Comparison.TextChanges t) {
            assertThat(side(t, Mark.ADDED)).isEqualTo(left);
            assertThat(side(t, Mark.REMOVED)).isEqualTo(right);
        } else {
            assertThat(left).isEqualTo(right);
        }
    }

    private static String side(Comparison.TextChanges t, Mark without) {
        return t.lines().stream()
                .filter(l -> l.mark() != without)
                .map(Comparison.TextChanges.Line::text)
                .collect(Collectors.joining("\n"));
    }

    private static Document.Sheets sheet(List<List<String>> rows) {
        List<Row> made = rows.stream()
                .map(r -> new Row(r.stream().map(c -> new Cell(c, "", "")).toList()))
                .toList();
        return new Document.Sheets(List.of(new Document.Sheet("", made, List.of())), false);
    }

    @Property(tries = 60)
    void bothSheetsCanBePutTogetherAgainFromTheirComparison(
            @ForAll @Size(max = 15) List<@Size(value = 3) List<@AlphaChars @StringLength(min = 1, max = 1) String>> a,
            @ForAll @Size(max = 15) List<@Size(value = 3) List<@AlphaChars @StringLength(min = 1, max = 1) String>> b) {
        Comparison.SheetChanges c = (Comparison.SheetChanges) SheetCompare.compare(sheet(a), sheet(b));
        Comparison.SheetChange s = c.sheets().get(0);
        assertThat(s.rows().stream()
                        .filter(r -> r.after() >= 0)
                        .map(r -> r.to().cells())
                        .toList())
                .isEqualTo(
                        sheet(b).sheets().get(0).rows().stream().map(Row::cells).toList());
        assertThat(s.rows().stream()
                        .filter(r -> r.before() >= 0)
                        .sorted((x, y) -> Integer.compare(x.before(), y.before()))
                        .map(r -> r.from().cells())
                        .toList())
                .isEqualTo(
                        sheet(a).sheets().get(0).rows().stream().map(Row::cells).toList());
    }

    @Property(tries = 40)
    void theOrderOfRowsDoesNotMatterToWhatIsAligned(@ForAll Random random) {
        List<List<String>> rows = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            rows.add(List.of("name " + i, "value " + i, "who " + i));
        }
        List<List<String>> shuffled = new ArrayList<>(rows);
        Collections.shuffle(shuffled, random);
        Comparison.SheetChanges c = (Comparison.SheetChanges) SheetCompare.compare(sheet(rows), sheet(shuffled));
        assertThat(c.sheets().get(0).rows())
                .allSatisfy(r -> assertThat(r.from()).isEqualTo(r.to()))
                .hasSize(20);
    }

    @Property(tries = 60)
    void anAlignmentPairsOnlyWhatIsEqualAndInOrder(
            @ForAll @Size(max = 40) List<@AlphaChars @StringLength(max = 1) String> a,
            @ForAll @Size(max = 40) List<@AlphaChars @StringLength(max = 1) String> b) {
        int[] to = Alignment.of(a, b);
        int last = -1;
        for (int i = 0; i < to.length; i++) {
            if (to[i] >= 0) {
                assertThat(b.get(to[i])).isEqualTo(a.get(i));
                assertThat(to[i]).isGreaterThan(last);
                last = to[i];
            }
        }
    }

    @Test
    void longSequencesAreAlignedByWhatIsThereOnce() {
        List<Integer> a = new ArrayList<>();
        for (int i = 0; i < 20_000; i++) {
            a.add(i);
        }
        List<Integer> b = new ArrayList<>(a);
        b.add(10_000, -1);
        b.remove(15_000);
        b.addAll(5000, Collections.nCopies(3000, -2));
        int[] to = Alignment.of(a, b);
        assertThat(java.util.Arrays.stream(to).filter(j -> j < 0).count()).isEqualTo(1);
    }
}
