package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;

/** Slides, pages and documents, section by section and paragraph by paragraph. */
class ProseCompareTest {

    private static Section section(String name, String... texts) {
        return new Section(
                name, Arrays.stream(texts).map(t -> Block.of(Style.TEXT, 0, t)).toList());
    }

    private static Document.Prose prose(Form form, Section... sections) {
        return new Document.Prose(form, List.of(sections), false);
    }

    private static Comparison.ProseChanges compare(Document.Prose a, Document.Prose b) {
        return (Comparison.ProseChanges) ProseCompare.compare(a, b);
    }

    private static List<String> told(Comparison.ProseChanges c) {
        return c.changes().stream()
                .map(x -> x.number() + " " + x.mark() + " " + x.where() + ": " + x.before() + " > " + x.after())
                .toList();
    }

    private static List<Mark> sections(Comparison.ProseChanges c) {
        return c.sections().stream().map(Comparison.SectionChange::mark).toList();
    }

    private static final String ONE = "The orchard was pruned in the first week of March by all of us.";
    private static final String TWO = "Cider is pressed from the end of September until the frost comes.";
    private static final String THREE = "Fees for storage are paid by the crate and by the month.";

    @ParameterizedTest
    @CsvSource({"SLIDES, slide 2", "PAGES, page 2"})
    void aSectionThatCameBetweenOthersIsTheOneAdded(Form form, String where) {
        Comparison.ProseChanges c = compare(
                prose(form, section("", ONE), section("", THREE)),
                prose(form, section("", ONE), section("", TWO), section("", THREE)));
        assertThat(sections(c)).containsExactly(Mark.SAME, Mark.ADDED, Mark.SAME);
        assertThat(told(c)).containsExactly("1 ADDED " + where + ":  > " + TWO);
    }

    @Test
    void aSlideThatWentIsTold() {
        Comparison.ProseChanges c = compare(
                prose(Form.SLIDES, section("", ONE), section("", TWO), section("", THREE)),
                prose(Form.SLIDES, section("", ONE), section("", THREE)));
        assertThat(sections(c)).containsExactly(Mark.SAME, Mark.REMOVED, Mark.SAME);
        assertThat(told(c)).containsExactly("1 REMOVED slide 2: " + TWO + " > ");
    }

    @Test
    void asManySlidesAsBeforeArePairedOneByOne() {
        Comparison.ProseChanges c = compare(
                prose(Form.SLIDES, section("", ONE), section("", "nothing like it"), section("", THREE)),
                prose(Form.SLIDES, section("", ONE), section("", "quite another thing"), section("", THREE)));
        assertThat(sections(c)).containsExactly(Mark.SAME, Mark.CHANGED, Mark.SAME);
        assertThat(c.changes()).allMatch(x -> x.where().equals("slide 2"));
    }

    @Test
    void slidesThatSayNearlyTheSameArePairedWhereTheirNumberChanged() {
        String edited = ONE.replace("March", "April");
        Comparison.ProseChanges c = compare(
                prose(Form.SLIDES, section("", ONE)), prose(Form.SLIDES, section("", TWO), section("", edited)));
        assertThat(sections(c)).containsExactly(Mark.ADDED, Mark.CHANGED);
        assertThat(told(c)).contains("2 CHANGED slide 2: " + ONE + " > " + edited);
    }

    @Test
    void theSectionsOfADocumentAreThoseOfTheSamePlace() {
        Comparison.ProseChanges c = compare(
                prose(Form.DOCUMENT, section("header", ONE), section("body", TWO)),
                prose(Form.DOCUMENT, section("header", ONE), section("body", TWO, THREE), section("notes", ONE)));
        assertThat(sections(c)).containsExactly(Mark.SAME, Mark.CHANGED, Mark.ADDED);
        assertThat(told(c)).containsExactly("1 ADDED body:  > " + THREE, "2 ADDED notes:  > " + ONE);
    }

    @Test
    void aParagraphThatMovedIsNoNewOneUnlessItIsShort() {
        Comparison.ProseChanges c = compare(
                prose(Form.DOCUMENT, section("", ONE, TWO, THREE)), prose(Form.DOCUMENT, section("", TWO, THREE, ONE)));
        assertThat(c.changes()).extracting(Comparison.Change::mark).containsExactly(Mark.MOVED);
        Comparison.ProseChanges small = compare(
                prose(Form.DOCUMENT, section("", "Hello", TWO, THREE)),
                prose(Form.DOCUMENT, section("", TWO, THREE, "Hello")));
        assertThat(small.changes())
                .extracting(Comparison.Change::mark)
                .containsExactlyInAnyOrder(Mark.REMOVED, Mark.ADDED);
    }

    @Test
    void withinAParagraphTheWordsAreToldThatOnlyOneHas() {
        Comparison.ProseChanges c = compare(
                prose(Form.DOCUMENT, section("", "The rent is 400 a month.")),
                prose(Form.DOCUMENT, section("", "The rent is 450 a month.")));
        assertThat(told(c)).hasSize(1);
        Comparison.BlockChange block = c.sections().get(0).blocks().get(0);
        assertThat(block.mark()).isEqualTo(Mark.CHANGED);
        assertThat(block.pieces())
                .contains(new Comparison.Piece(Mark.REMOVED, "400"), new Comparison.Piece(Mark.ADDED, "450"));
    }

    private static Block fact(String name, String value) {
        return Block.of(Style.FACT, 0, name + "\t" + value);
    }

    @Test
    void factsArePairedByTheirNamesHoweverTheyChange() {
        Document.Prose a =
                prose(Form.MAIL, new Section("header", List.of(fact("Subject", "Pressing"), fact("To", "Ines"))));
        Document.Prose b = prose(
                Form.MAIL,
                new Section("header", List.of(fact("Subject", "An altogether other thing"), fact("To", "Ines"))));
        assertThat(compare(a, b).changes()).singleElement().satisfies(x -> {
            assertThat(x.mark()).isEqualTo(Mark.CHANGED);
            assertThat(x.where()).startsWith("header");
        });
        Document.Prose c = prose(Form.MAIL, new Section("header", List.of(fact("Cc", "Pressing"), fact("To", "Ines"))));
        assertThat(compare(a, c).changes())
                .as("another fact with the same value")
                .extracting(Comparison.Change::mark)
                .containsExactlyInAnyOrder(Mark.REMOVED, Mark.ADDED);
    }

    @Test
    void aTextOfThousandsOfParagraphsIsComparedByWhatIsTheSame() {
        List<String> a = new ArrayList<>();
        List<String> b = new ArrayList<>();
        for (int i = 0; i < 3000; i++) {
            a.add("Paragraph number " + i + " of a very long report on trees.");
            b.add(
                    i == 1500
                            ? "Something else stands here now."
                            : "Paragraph number " + i + " of a very long report on trees.");
        }
        Comparison.ProseChanges c = compare(
                prose(Form.DOCUMENT, section("", a.toArray(String[]::new))),
                prose(Form.DOCUMENT, section("", b.toArray(String[]::new))));
        assertThat(c.changes()).hasSizeBetween(1, 2);
        assertThat(c.sections().get(0).blocks().stream()
                        .filter(x -> x.mark() == Mark.SAME)
                        .count())
                .isEqualTo(2999);
    }

    @Test
    void nothingIsTheSameAsNothing() {
        assertThat(compare(prose(Form.DOCUMENT), prose(Form.DOCUMENT)).changes())
                .isEmpty();
        assertThat(told(compare(prose(Form.PAGES), prose(Form.PAGES, section("", ONE)))))
                .containsExactly("1 ADDED page 1:  > " + ONE);
    }
}
