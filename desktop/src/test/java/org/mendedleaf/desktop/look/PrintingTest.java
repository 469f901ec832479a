package org.mendedleaf.desktop.look;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PrintingTest {

    @Test
    void linesGoOnBelowWhereTheyAreLongerThanAPageIsWide() {
        assertThat(Printing.pages("ledger.csv", "Katy\t421\nthe press was mended by Jory\n", 4, 12))
                .containsExactly(
                        List.of("ledger.csv", "", "Katy  421", "the press"), List.of("was mended", "by Jory", ""));
        assertThat(Printing.pages("t", "a-word-that-is-far-too-long", 10, 10).get(0))
                .containsExactly("t", "", "a-word-tha", "t-is-far-t", "oo-long");
        assertThat(Printing.pages("t", "", 3, 10)).containsExactly(List.of("t", "", ""));
    }

    @Test
    void noLetterIsLostAndNoPageIsTooLong() {
        Random random = new Random(5);
        for (int i = 0; i < 500; i++) {
            StringBuilder text = new StringBuilder();
            for (int c = 0; c < random.nextInt(200); c++) {
                text.append("ab c\td\né ".charAt(random.nextInt(9)));
            }
            int lines = 1 + random.nextInt(9);
            int letters = 1 + random.nextInt(30);
            List<List<String>> pages = Printing.pages("t", text.toString(), lines, letters);
            assertThat(pages).allSatisfy(p -> {
                assertThat(p).hasSizeLessThanOrEqualTo(lines);
                assertThat(p).allSatisfy(l -> assertThat(l.length()).isLessThanOrEqualTo(letters));
            });
            String printed =
                    String.join("", pages.stream().flatMap(List::stream).toList());
            assertThat(printed.replaceAll("\\s", "")).isEqualTo(("t" + text).replaceAll("\\s", ""));
        }
    }
}
