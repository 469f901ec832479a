package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Sheet;

/** Sheets, rows, columns and cells, change by change. */
class SheetCompareTest {

    private static Row row(String line) {
        return new Row(
                Arrays.stream(line.split(",", -1)).map(c -> new Cell(c, "", "")).toList());
    }

    private static Sheet sheet(String name, String... rows) {
        return new Sheet(name, Arrays.stream(rows).map(SheetCompareTest::row).toList(), List.of());
    }

    private static Document.Sheets book(Sheet... sheets) {
        return new Document.Sheets(List.of(sheets), false);
    }

    private static Comparison.SheetChanges compare(Document.Sheets a, Document.Sheets b) {
        return (Comparison.SheetChanges) SheetCompare.compare(a, b);
    }

    private static Comparison.SheetChanges compare(Sheet a, Sheet b) {
        return compare(book(a), book(b));
    }

    private static List<String> told(Comparison.SheetChanges c) {
        return c.changes().stream()
                .map(x -> x.mark() + " " + x.where() + ": " + x.before() + " > " + x.after())
                .toList();
    }

    private static final Sheet FEES = sheet("Fees", "Kind,Kilos,By", "Bramley,736,Ines", "Egremont,332,Wilma");

    @Test
    void aSheetThatCameIsOneChangeWithAllItsRows() {
        Comparison.SheetChanges c = compare(book(FEES), book(FEES, sheet("Notes", "a,b", "c,d")));
        assertThat(told(c)).containsExactly("ADDED sheet Notes:  > Notes");
        Comparison.SheetChange notes = c.sheets().get(1);
        assertThat(notes.mark()).isEqualTo(Mark.ADDED);
        assertThat(notes.columns()).hasSize(2);
        assertThat(notes.rows()).hasSize(2).allSatisfy(r -> {
            assertThat(r.before()).isEqualTo(-1);
            assertThat(r.from()).isNull();
            assertThat(r.to()).isNotNull();
            assertThat(r.change()).isEqualTo(1);
        });
        assertThat(notes.rows().get(1).after()).isEqualTo(1);
    }

    @Test
    void aSheetThatWentStandsBehindThoseThatStayed() {
        Comparison.SheetChanges c = compare(book(sheet("Notes", "a,b", "c,d"), FEES), book(FEES));
        assertThat(told(c)).containsExactly("REMOVED sheet Notes: Notes > ");
        assertThat(c.sheets()).extracting(Comparison.SheetChange::name).containsExactly("Fees", "Notes");
        assertThat(c.sheets().get(1).rows()).allSatisfy(r -> {
            assertThat(r.after()).isEqualTo(-1);
            assertThat(r.to()).isNull();
            assertThat(r.from()).isNotNull();
        });
        assertThat(c.sheets().get(1).rows().get(1).before()).isEqualTo(1);
    }

    @Test
    void aSheetThatSaysTheSameUnderAnotherNameWasRenamed() {
        Sheet renamed = new Sheet("Prices", FEES.rows(), List.of());
        Comparison.SheetChanges c = compare(book(FEES, sheet("Notes", "a")), book(renamed, sheet("Notes", "a")));
        assertThat(told(c)).containsExactly("CHANGED name of the sheet: Fees > Prices");
        assertThat(c.sheets().get(0).mark()).isEqualTo(Mark.CHANGED);
        assertThat(c.sheets().get(1).mark()).isEqualTo(Mark.SAME);
    }

    @Test
    void theOnlySheetWithoutACounterpartIsTakenForTheOnlyNewOne() {
        Sheet other = sheet("Prices", "Kind,Kilos,By", "Bramley,736,Ines", "Egremont,400,Wilma");
        assertThat(told(compare(FEES, other)))
                .containsExactlyInAnyOrder(
                        "CHANGED name of the sheet: Fees > Prices", "CHANGED B3, Kilos of Egremont: 332 > 400");
        Comparison.SheetChanges two = compare(book(FEES), book(other, sheet("More", "x")));
        assertThat(two.sheets())
                .as("of two nobody knows which")
                .extracting(Comparison.SheetChange::mark)
                .containsExactly(Mark.ADDED, Mark.ADDED, Mark.REMOVED);
    }

    @Test
    void whereThereAreSeveralSheetsEachChangeSaysInWhich() {
        Sheet changed = sheet("Fees", "Kind,Kilos,By", "Bramley,740,Ines", "Egremont,332,Wilma");
        assertThat(told(compare(book(FEES, sheet("Notes", "a")), book(changed, sheet("Notes", "a")))))
                .containsExactly("CHANGED Fees, B2, Kilos of Bramley: 736 > 740");
        assertThat(told(compare(FEES, changed))).containsExactly("CHANGED B2, Kilos of Bramley: 736 > 740");
    }

    @Test
    void aColumnThatCameWentOrMovedIsOneChangeWithItsHead() {
        Sheet more = sheet("Fees", "Kind,Crates,Kilos,By", "Bramley,22,736,Ines", "Egremont,19,332,Wilma");
        assertThat(told(compare(FEES, more))).containsExactly("ADDED column B Crates:  > Crates");
        assertThat(told(compare(more, FEES))).containsExactly("REMOVED column B Crates: Crates > ");
        Sheet moved = sheet("Fees", "By,Kind,Kilos", "Ines,Bramley,736", "Wilma,Egremont,332");
        assertThat(told(compare(FEES, moved))).containsExactly("MOVED column A By: By > By");
        assertThat(compare(FEES, more).sheets().get(0).columns())
                .extracting(Comparison.Column::after)
                .containsExactly(0, 1, 2, 3);
    }

    @ParameterizedTest
    @CsvSource({"0, A", "25, Z", "26, AA", "51, AZ", "52, BA", "701, ZZ", "702, AAA"})
    void columnsAreCalledByLetters(int column, String letters) {
        assertThat(SheetCompare.letters(column)).isEqualTo(letters);
    }

    private static String wide(int columns, String last) {
        return String.join(
                        ",", IntStream.range(0, columns).mapToObj(i -> "h" + i).toList()) + "\n"
                + String.join(
                        ",",
                        IntStream.range(0, columns - 1).mapToObj(i -> "v" + i).toList()) + "," + last;
    }

    @Test
    void sheetsOfMoreColumnsThanAreMatchedAreComparedPlaceByPlace() {
        Sheet a = sheet("Wide", wide(401, "old").split("\n"));
        Sheet b = sheet("Wide", wide(401, "new").split("\n"));
        Comparison.SheetChanges c = compare(a, b);
        assertThat(told(c)).containsExactly("CHANGED OK2, h400 of v0: old > new");
    }

    @Test
    void aRowThatMovedAndOneThatChangedAreToldApart() {
        Sheet a = sheet(
                "Fees",
                "Kind,Kilos,By",
                "Bramley,736,Ines",
                "Egremont,332,Wilma",
                "Foxwhelp,204,Jory",
                "Kingston,90,Ana");
        Sheet b = sheet(
                "Fees",
                "Kind,Kilos,By",
                "Egremont,332,Wilma",
                "Foxwhelp,210,Jory",
                "Kingston,90,Ana",
                "Bramley,736,Ines");
        Comparison.SheetChanges c = compare(a, b);
        assertThat(told(c))
                .containsExactlyInAnyOrder(
                        "CHANGED B3, Kilos of Foxwhelp: 204 > 210",
                        "MOVED row 2, now row 5: Bramley, 736, Ines > Bramley, 736, Ines");
        assertThat(c.words()).isEqualTo("1 cell, 1 row moved");
    }

    @Test
    void emptyRowsAreNeverMovedNorNamed() {
        Sheet a = sheet("Fees", "Kind,Kilos,By", ",,", "Bramley,736,Ines");
        Sheet b = sheet("Fees", "Kind,Kilos,By", "Bramley,736,Ines", ",,");
        assertThat(told(compare(a, b))).noneMatch(x -> x.startsWith("MOVED") && x.contains(": ,"));
    }

    @Test
    void whatOnlyTheComputerWorkedOutAnewIsNoChangeOfAnybody() {
        Sheet a = new Sheet(
                "Fees",
                List.of(
                        row("Kind,Kilos"),
                        row("Bramley,736"),
                        new Row(List.of(new Cell("Total", "", ""), new Cell("736", "736", "SUM(B2:B2)")))),
                List.of());
        Sheet b = new Sheet(
                "Fees",
                List.of(
                        row("Kind,Kilos"),
                        row("Bramley,763"),
                        new Row(List.of(new Cell("Total", "", ""), new Cell("763", "763", "SUM(B2:B2)")))),
                List.of());
        Comparison.SheetChanges c = compare(a, b);
        assertThat(told(c)).containsExactly("CHANGED B2, Kilos of Bramley: 736 > 763");
        assertThat(c.computed()).singleElement().satisfies(x -> {
            assertThat(x.number()).isEqualTo(1);
            assertThat(x.before()).isEqualTo("736");
            assertThat(x.after()).isEqualTo("763");
        });
    }

    @Test
    void aFormulaThatIsAnotherIsAChangeThoughItComesToTheSame() {
        Sheet a = new Sheet(
                "",
                List.of(row("Kind,Kilos"), new Row(List.of(new Cell("Sum", "", ""), new Cell("4", "4", "B1+2")))),
                List.of());
        Sheet b = new Sheet(
                "",
                List.of(row("Kind,Kilos"), new Row(List.of(new Cell("Sum", "", ""), new Cell("4", "4", "B1*2")))),
                List.of());
        assertThat(compare(a, b).changes()).hasSize(1);
        assertThat(compare(a, a).changes()).isEmpty();
    }

    @Test
    void aLargeTableWhoseRowsAllChangedIsPairedByItsFirstCells() {
        List<Row> a = new ArrayList<>(List.of(row("Name,One,Two,Three,Four")));
        List<Row> b = new ArrayList<>(List.of(row("Name,One,Two,Three,Four")));
        for (int i = 0; i < 1600; i++) {
            a.add(row("name " + i + ",a" + i + ",b" + i + ",same" + i + ",also" + i));
            b.add(row("name " + i + ",c" + i + ",d" + i + ",same" + i + ",also" + i));
        }
        Comparison.SheetChanges c = compare(new Sheet("", a, List.of()), new Sheet("", b, List.of()));
        assertThat(c.sheets().get(0).rows()).hasSize(1601).allMatch(r -> r.before() == r.after());
        assertThat(c.words()).isEqualTo("3,200 cells");
    }

    @Test
    void sheetsWithNothingInThemAreTheSame() {
        assertThat(compare(sheet("A"), sheet("A")).changes()).isEmpty();
        assertThat(told(compare(sheet("A"), sheet("A", "x,y")))).containsExactly("ADDED row 1:  > x, y");
        assertThat(told(compare(sheet("A", "x,y"), sheet("A")))).containsExactly("REMOVED row 1: x, y > ");
    }
}
