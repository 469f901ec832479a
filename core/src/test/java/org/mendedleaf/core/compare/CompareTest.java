package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.AlphaChars;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;

class CompareTest {

    private static Comparison compare(String name, String a, String b) {
        return Compare.compare(name, a.getBytes(StandardCharsets.UTF_8), b.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void equalContentsHaveNoDifference() {
        assertThat(compare("a.bin", "\u0000x", "\u0000x")).isInstanceOf(Comparison.Equal.class);
    }

    @Test
    void textsAreComparedByLine() {
        Comparison c = compare("a.txt", "one\ntwo\nthree\n", "one\n2\nthree\nfour\n");
        assertThat(c.words()).isEqualTo("+2 lines, −1 line");
    }

    @Test
    void tablesAreComparedByRowAndCell() {
        Comparison c = compare("a.csv", "k,v\na,1\nb,2\nc,3\n", "k,v\na,1\nb,5\nc,3\nd,4\n");
        assertThat(c).isInstanceOfSatisfying(Comparison.TableChanges.class, t -> {
            assertThat(t.cells()).isEqualTo(1);
            assertThat(t.added()).isEqualTo(1);
            assertThat(t.rows().get(2).isChanged(1)).isTrue();
            assertThat(t.rows().get(2).isChanged(0)).isFalse();
        });
        assertThat(c.words()).isEqualTo("1 cell, +1 row");
    }

    @Test
    void otherContentsAreComparedBySize() {
        assertThat(compare("a.bin", "\u0000abc", "\u0001abcdef").words()).isEqualTo("other content, +3 B");
    }

    @Property
    void bothTextsCanBePutTogetherAgainFromTheirComparison(
            @ForAll @Size(max = 30) List<@AlphaChars @StringLength(max = 2) String> a,
            @ForAll @Size(max = 30) List<@AlphaChars @StringLength(max = 2) String> b) {
        String left = String.join("\n", a) + "\nend";
        String right = String.join("\n", b) + "\nend";
        if (compare("x.txt", left, right) instanceof Comparison.TextChanges t) {
            assertThat(side(t, Comparison.Mark.ADDED)).isEqualTo(left);
            assertThat(side(t, Comparison.Mark.REMOVED)).isEqualTo(right);
        } else {
            assertThat(left).isEqualTo(right);
        }
    }

    private static String side(Comparison.TextChanges t, Comparison.Mark without) {
        return t.lines().stream()
                .filter(l -> l.mark() != without)
                .map(Comparison.TextChanges.Line::text)
                .collect(Collectors.joining("\n"));
    }
}
