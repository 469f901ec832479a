package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Words;

/** What changed is said in a few words that fit the line. */
class ChangeWordsTest {

    @BeforeEach
    void english() {
        Words.use(Locale.ENGLISH);
    }

    @AfterEach
    void asBefore() {
        Words.use((String) null);
    }

    private static Row row(String... cells) {
        List<Cell> row = new ArrayList<>();
        for (String cell : cells) {
            row.add(new Cell(cell, cell, ""));
        }
        return new Row(row);
    }

    private static Sheet sheet(String name, Row... rows) {
        return new Sheet(name, List.of(rows), List.of());
    }

    private static String sheets(List<Sheet> a, List<Sheet> b) {
        return SheetCompare.compare(new Document.Sheets(a, false), new Document.Sheets(b, false))
                .words();
    }

    private static final Sheet FEES = sheet("Fees", row("Who", "Fee"), row("Ines", "40"), row("Jory", "25"));

    @Test
    void aCellIsOneCellAndSeveralSheetsAreNamed() {
        Sheet dearer = sheet("Fees", row("Who", "Fee"), row("Ines", "45"), row("Jory", "25"));
        assertThat(sheets(List.of(FEES), List.of(dearer))).isEqualTo("1 cell");
        Sheet other = sheet("Notes", row("x"));
        assertThat(sheets(List.of(FEES, other), List.of(dearer, other))).isEqualTo("1 cell in Fees");
    }

    @Test
    void rowsThatCameAndWentAreCounted() {
        Sheet more = sheet(
                "Fees", row("Who", "Fee"), row("Ines", "40"), row("Jory", "25"), row("Wilma", "30"), row("Ada", "10"));
        assertThat(sheets(List.of(FEES), List.of(more))).isEqualTo("+2 rows");
        assertThat(sheets(List.of(more), List.of(FEES))).isEqualTo("−2 rows");
    }

    @Test
    void sheetsThatCameAndWentAreNamed() {
        Sheet notes = sheet("Notes", row("call the press"));
        assertThat(sheets(List.of(FEES), List.of(FEES, notes))).isEqualTo("sheet Notes added");
        assertThat(sheets(List.of(FEES, notes), List.of(FEES))).isEqualTo("sheet Notes removed");
    }

    @Test
    void aSheetThatHasAnotherNameIsSaidAloneAndBesideCells() {
        Sheet renamed = new Sheet("Fees 2026", FEES.rows(), List.of());
        assertThat(sheets(List.of(FEES), List.of(renamed))).isEqualTo("a sheet renamed");
        Sheet both = sheet("Fees 2026", row("Who", "Fee"), row("Ines", "45"), row("Jory", "25"));
        assertThat(sheets(List.of(FEES), List.of(both))).isEqualTo("1 cell, a sheet renamed");
    }

    @Test
    void theSameCellsAreSavedAnew() {
        assertThat(sheets(List.of(FEES), List.of(FEES))).isEqualTo("the same cells, saved anew");
    }

    @Test
    void aTotalSaysByHowMuchAndSeveralHowMany() {
        Sheet a = new Sheet("", List.of(row("Ines", "40"), new Row(List.of(cell("Sum"), computed("40")))), List.of());
        Sheet b = new Sheet("", List.of(row("Ines", "45"), new Row(List.of(cell("Sum"), computed("45")))), List.of());
        assertThat(sheets(List.of(a), List.of(b))).isEqualTo("1 cell, total +5");
        assertThat(sheets(List.of(b), List.of(a))).isEqualTo("1 cell, total −5");
    }

    private static Cell cell(String text) {
        return new Cell(text, text, "");
    }

    private static Cell computed(String value) {
        return new Cell(value, value, "SUM(B1)");
    }

    private static Block paragraph(String text) {
        return new Block(Style.TEXT, 0, text, "");
    }

    private static String prose(Form form, List<Section> a, List<Section> b) {
        return ProseCompare.compare(new Document.Prose(form, a, false), new Document.Prose(form, b, false))
                .words();
    }

    private static List<Section> text(Block... blocks) {
        return List.of(new Section("", List.of(blocks)));
    }

    @Test
    void paragraphsThatChangedCameAndWentAreCounted() {
        Block one = paragraph("The rent is four hundred a month, to be paid on the first.");
        Block other = paragraph("The rent is five hundred a month, to be paid on the first.");
        Block two = paragraph("Bees are kept at the far end.");
        assertThat(prose(Form.DOCUMENT, text(one, two), text(other, two))).isEqualTo("1 paragraph");
        assertThat(prose(Form.DOCUMENT, text(one), text(one, two))).isEqualTo("+1 paragraph");
        assertThat(prose(Form.DOCUMENT, text(one, two), text(one))).isEqualTo("−1 paragraph");
        assertThat(prose(Form.DOCUMENT, text(one), text(one))).isEqualTo(Words.of("compare.sameWords"));
    }

    @Test
    void slidesAndPagesAreNamedWhileTheyAreFew() {
        List<Section> a = new ArrayList<>();
        for (int i = 1; i <= 6; i++) {
            a.add(new Section(
                    "Slide " + i, List.of(paragraph("This is what slide " + i + " of our talk says to all."))));
        }
        List<Section> one = new ArrayList<>(a);
        one.set(2, new Section("Slide 3", List.of(paragraph("This is what slide 3 of our talk shows to all."))));
        assertThat(prose(Form.SLIDES, a, one)).isEqualTo("slide 3");
        one.set(4, new Section("Slide 5", List.of(paragraph("This is what slide 5 of our talk shows to all."))));
        assertThat(prose(Form.SLIDES, a, one)).isEqualTo("slides 3, 5");
        one.set(5, new Section("Slide 6", List.of(paragraph("This is what slide 6 of our talk shows to all."))));
        assertThat(prose(Form.SLIDES, a, one)).isEqualTo("3 slides");
        assertThat(prose(Form.PAGES, a, one)).isEqualTo("3 pages");
        assertThat(prose(Form.SLIDES, a, a.subList(0, 5))).isEqualTo("−1 slide");
    }

    @Test
    void germanSaysTheSame() {
        Words.use(Locale.GERMAN);
        Sheet dearer = sheet("Fees", row("Who", "Fee"), row("Ines", "45"), row("Jory", "25"));
        assertThat(sheets(List.of(FEES), List.of(dearer))).isEqualTo("1 Zelle");
    }
}
