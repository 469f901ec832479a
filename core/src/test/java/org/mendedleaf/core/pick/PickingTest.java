package org.mendedleaf.core.pick;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.InterruptedIOException;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.AlphaChars;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Compare;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.document.Made;

class PickingTest {

    private static Comparison compare(String name, byte[] a, byte[] b) {
        return Compare.compare(Documents.read(name, a, false), a, Documents.read(name, b, false), b);
    }

    private static byte[] back(String name, byte[] a, byte[] b, Integer... numbers) {
        try {
            return Picking.back(name, a, b, compare(name, a, b), Set.of(numbers))
                    .content();
        } catch (InterruptedIOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String back(String name, String a, String b, Integer... numbers) {
        byte[] made = back(name, a.getBytes(StandardCharsets.UTF_8), b.getBytes(StandardCharsets.UTF_8), numbers);
        return new String(made, StandardCharsets.UTF_8);
    }

    @Test
    void oneOfSeveralChangesOfATextComesBackAndTheRestStays() {
        String a = "one\ntwo\nthree\nfour\nfive\n";
        String b = "one\n2\nthree\nfour\nfive\nsix\n";
        assertThat(back("a.txt", a, b, 1)).isEqualTo("one\ntwo\nthree\nfour\nfive\nsix\n");
        assertThat(back("a.txt", a, b, 2)).isEqualTo("one\n2\nthree\nfour\nfive\n");
        assertThat(back("a.txt", "one\ntwo", "one\ntwo\nthree", 1))
                .as("no end of line")
                .isEqualTo("one\ntwo");
        assertThat(back("a.txt", "x\r\ny\r\n", "x\r\nz\r\n", 1)).isEqualTo("x\r\ny\r\n");
    }

    @Test
    void theBytesOfTheRestStayAsTheyAreInWhateverEncoding() {
        Charset latin = Charset.forName("windows-1252");
        byte[] made = back("a.txt", "Äpfel\nBirnen\n".getBytes(latin), "Äpfel\nNüsse\nTee\n".getBytes(latin), 1);
        assertThat(made).isEqualTo("Äpfel\nBirnen\n".getBytes(latin));
        assertThatThrownBy(() ->
                        back("a.txt", "漢字\nx\n".getBytes(StandardCharsets.UTF_8), "Äpfel ß\nx\n".getBytes(latin), 1))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("cannot be written in");
    }

    @Test
    void cellsAndRowsOfATableComeBackAloneAsTheyWereWritten() {
        String a = "Kind;Kilos;By\n\"Bramley; red\";736;Ines\nEgremont;332;Wilma\nPerry pears;97;Tomas\n";
        String b = "Kind;Kilos;By\n\"Bramley; red\";763;Ines\nEgremont;332;Adele\nKaty;188;Adele\n";
        List<Comparison.Change> changes = compare(
                        "a.csv", a.getBytes(StandardCharsets.UTF_8), b.getBytes(StandardCharsets.UTF_8))
                .changes();
        assertThat(changes).hasSize(4);
        assertThat(back("a.csv", a, b, 1)).isEqualTo(b.replace("763", "736"));
        assertThat(back("a.csv", a, b, 2)).isEqualTo(b.replace("332;Adele", "332;Wilma"));
        assertThat(back("a.csv", a, b, 3)).contains("Perry pears;97;Tomas\n").contains("Katy");
        assertThat(back("a.csv", a, b, 1, 2, 3, 4)).isEqualTo(a);
    }

    @Test
    void aMovedRowGoesBackToItsPlace() {
        String a = "k,v\na,1\nb,2\nc,3\nd,4\n";
        String b = "k,v\nd,4\na,1\nb,2\nc,3\n";
        assertThat(back("a.csv", a, b, 1)).isEqualTo(a);
    }

    @Test
    void whatCannotBeDoneSafelyIsRefusedInWords() {
        byte[] a = Made.pdf("one");
        byte[] b = Made.pdf("two");
        assertThatThrownBy(() -> back("a.pdf", a, b, 1)).hasMessageContaining("cannot be taken back safely");
        assertThatThrownBy(() -> back("a.csv", "k,v\na,1\nb,2\n", "k,x,v\na,z,1\nb,y,2\n", 1))
                .hasMessageContaining("column");
        assertThatThrownBy(() -> back("a.txt", "a\n", "b\n", 7)).hasMessageContaining("There is no change 7");
    }

    @Property(tries = 200)
    void takingAllBackGivesTheEarlierTextAndNothingBackTheLater(
            @ForAll @Size(max = 20) List<@AlphaChars @StringLength(max = 2) String> a,
            @ForAll @Size(max = 20) List<@AlphaChars @StringLength(max = 2) String> b) {
        String left = String.join("\n", a) + "\nend\n";
        String right = String.join("\n", b) + "\nend\n";
        Comparison comparison =
                compare("x.txt", left.getBytes(StandardCharsets.UTF_8), right.getBytes(StandardCharsets.UTF_8));
        if (comparison.changes().isEmpty()) {
            return;
        }
        Integer[] all =
                IntStream.rangeClosed(1, comparison.changes().size()).boxed().toArray(Integer[]::new);
        assertThat(back("x.txt", left, right, all)).isEqualTo(left);
    }

    @Property(tries = 200)
    void takingAllRowsAndCellsBackGivesTheEarlierTable(
            @ForAll @Size(min = 1, max = 12)
                    List<@Size(value = 3) List<@AlphaChars @StringLength(min = 1, max = 1) String>> a,
            @ForAll @Size(min = 1, max = 12)
                    List<@Size(value = 3) List<@AlphaChars @StringLength(min = 1, max = 1) String>> b) {
        String left = "h,i,j\n" + a.stream().map(r -> String.join(",", r)).collect(Collectors.joining("\n")) + "\n";
        String right = "h,i,j\n" + b.stream().map(r -> String.join(",", r)).collect(Collectors.joining("\n")) + "\n";
        Comparison comparison =
                compare("x.csv", left.getBytes(StandardCharsets.UTF_8), right.getBytes(StandardCharsets.UTF_8));
        if (comparison.changes().isEmpty()) {
            return;
        }
        Integer[] all =
                IntStream.rangeClosed(1, comparison.changes().size()).boxed().toArray(Integer[]::new);
        String made = back("x.csv", left, right, all);
        assertThat(made.lines().sorted().toList())
                .isEqualTo(left.lines().sorted().toList());
    }
}
