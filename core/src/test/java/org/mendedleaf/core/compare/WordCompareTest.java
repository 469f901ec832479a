package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.core.compare.WordCompare.Bag;

/** Lines and paragraphs are compared word by word, and nothing of them is lost by it. */
class WordCompareTest {

    private static String joined(List<Piece> pieces) {
        return pieces.stream().map(Piece::text).collect(Collectors.joining());
    }

    @Property(tries = 150)
    void eachSideCanBeReadFromThePiecesOfBoth(
            @ForAll @StringLength(max = 60) String before, @ForAll @StringLength(max = 60) String after) {
        List<Piece> both = WordCompare.pieces(before, after);
        assertThat(joined(WordCompare.side(both, Mark.REMOVED))).isEqualTo(before);
        assertThat(joined(WordCompare.side(both, Mark.ADDED))).isEqualTo(after);
        for (int i = 1; i < both.size(); i++) {
            assertThat(both.get(i).mark())
                    .as("what follows has another mark")
                    .isNotEqualTo(both.get(i - 1).mark());
        }
        assertThat(both).allSatisfy(p -> assertThat(p.text()).isNotEmpty());
    }

    @Test
    void aWordAmongOthersIsTheOnlyChange() {
        assertThat(WordCompare.pieces("The rent is 400 a month.", "The rent is 450 a month."))
                .containsExactly(
                        new Piece(Mark.SAME, "The rent is "),
                        new Piece(Mark.REMOVED, "400"),
                        new Piece(Mark.ADDED, "450"),
                        new Piece(Mark.SAME, " a month."));
        assertThat(WordCompare.pieces("same", "same")).containsExactly(new Piece(Mark.SAME, "same"));
        assertThat(WordCompare.pieces("", "new")).containsExactly(new Piece(Mark.ADDED, "new"));
        assertThat(WordCompare.pieces("", "")).isEmpty();
    }

    @Test
    void whatHasThousandsOfWordsIsOneChangeAsAWhole() {
        String before = "word ".repeat(5000);
        assertThat(WordCompare.pieces(before, before + "more"))
                .containsExactly(new Piece(Mark.REMOVED, before), new Piece(Mark.ADDED, before + "more"));
    }

    @ParameterizedTest
    @CsvSource({
        "the rent is 400, the rent is 400, 100",
        "the rent is 400, THE RENT IS 400!, 100",
        "one two three four, one two three five, 75",
        "one two, three four, 0",
        "'', '', 100",
        "'', word, 0",
        "a a a, a, 50"
    })
    void howMuchTextsHaveInCommonIsCountedInWords(String a, String b, int alike) {
        assertThat(new Bag(a).likeness(new Bag(b))).isEqualTo(alike);
        assertThat(new Bag(b).likeness(new Bag(a))).as("the same both ways").isEqualTo(alike);
    }

    @Property(tries = 60)
    void likenessIsAShare(@ForAll @StringLength(max = 40) String a, @ForAll @StringLength(max = 40) String b) {
        assertThat(new Bag(a).likeness(new Bag(b))).isBetween(0, 100);
        assertThat(new Bag(a).likeness(new Bag(a))).isEqualTo(100);
    }
}
