package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.TextChanges.Line;
import org.mendedleaf.core.document.Documents;

/** Texts, line by line: numbers, places and what belongs to one change. */
class TextCompareTest {

    private static Comparison.TextChanges compare(String a, String b) {
        byte[] x = a.getBytes(StandardCharsets.UTF_8);
        byte[] y = b.getBytes(StandardCharsets.UTF_8);
        return (Comparison.TextChanges)
                Compare.compare(Documents.read("a.txt", x, false), x, Documents.read("a.txt", y, false), y);
    }

    private static List<String> told(Comparison.TextChanges c) {
        return c.changes().stream()
                .map(x -> x.number() + " " + x.mark() + " " + x.where() + ": " + x.before() + " > " + x.after())
                .toList();
    }

    private static List<String> lines(Comparison.TextChanges c) {
        return c.lines().stream()
                .map(l -> l.mark() + " " + l.before() + "/" + l.after() + " " + l.text() + " " + l.change())
                .toList();
    }

    @Test
    void eachLineHasItsNumberInBothTexts() {
        assertThat(lines(compare("one\ntwo\nthree\n", "one\nthree\nfour\n")))
                .containsExactly("SAME 1/1 one 0", "REMOVED 2/0 two 1", "SAME 3/2 three 0", "ADDED 0/3 four 2");
    }

    @Test
    void linesThatFollowEachOtherAreOneChangeWithItsPlace() {
        Comparison.TextChanges c = compare("a\nb\nc\nd\ne\n", "a\nx\ny\nz\ne\nf\n");
        assertThat(c.changes()).extracting(Comparison.Change::where).containsExactly("lines 2 to 4", "line 6");
        assertThat(c.changes()).extracting(Comparison.Change::mark).containsExactly(Mark.CHANGED, Mark.ADDED);
        assertThat(c.changes()).extracting(Comparison.Change::number).containsExactly(1, 2);
        assertThat(c.lines()).filteredOn(l -> l.change() == 1).hasSize(6);
        assertThat(c.count(Mark.ADDED)).isEqualTo(4);
        assertThat(c.count(Mark.REMOVED)).isEqualTo(3);
    }

    @Test
    void linesThatCameOrWentHaveThePlaceWhereTheyStandOrStood() {
        assertThat(told(compare("a\nd\n", "a\nb\nc\nd\n"))).containsExactly("1 ADDED lines 2 to 3:  > b\nc");
        assertThat(told(compare("a\nb\nc\nd\n", "a\nd\n"))).containsExactly("1 REMOVED lines 2 to 3: b\nc > ");
        assertThat(told(compare("a\n", "a\nb\n"))).containsExactly("1 ADDED line 2:  > b");
    }

    @Test
    void aLineThatSaysNearlyTheSameIsComparedByItsWords() {
        Comparison.TextChanges c =
                compare("the rent is 400 a month\nsomething else entirely\n", "a new line\nthe rent is 450 a month\n");
        Line was = c.lines().stream()
                .filter(l -> l.text().contains("400"))
                .findFirst()
                .orElseThrow();
        assertThat(was.pieces()).contains(new Comparison.Piece(Mark.REMOVED, "400"));
        Line other = c.lines().stream()
                .filter(l -> l.text().equals("a new line"))
                .findFirst()
                .orElseThrow();
        assertThat(other.pieces())
                .as("nothing like it")
                .containsExactly(new Comparison.Piece(Mark.ADDED, "a new line"));
    }

    @Test
    void thousandsOfOtherLinesAreStillComparedByLine() {
        StringBuilder a = new StringBuilder();
        StringBuilder b = new StringBuilder();
        for (int i = 0; i < 3000; i++) {
            a.append("before ").append(i).append('\n');
            b.append("after ").append(i).append('\n');
        }
        Comparison.TextChanges c = compare(a.toString(), b.toString());
        assertThat(c.count(Mark.REMOVED)).isEqualTo(3000);
        assertThat(c.count(Mark.ADDED)).isEqualTo(3000);
        assertThat(c.changes()).hasSize(1);
    }
}
