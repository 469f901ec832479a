package org.mendedleaf.desktop.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.List;
import java.util.Random;
import javafx.scene.layout.Region;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.testfx.api.FxToolkit;

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

    @Test
    @EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
    void aFullPageIsNoHigherAndNoWiderThanThePaper() throws Exception {
        FxToolkit.registerPrimaryStage();
        for (double[] paper : new double[][] {{487, 734}, {300, 100}, {734, 487}}) {
            int lines = Printing.lines(paper[1]);
            int letters = Printing.letters(paper[0]);
            List<String> page = Collections.nCopies(lines, "W".repeat(letters));
            Region full = Printing.node(page);
            assertThat(full.prefHeight(-1)).isLessThanOrEqualTo(paper[1]);
            assertThat(full.prefWidth(-1)).isLessThanOrEqualTo(paper[0]);
            Region more = Printing.node(Collections.nCopies(lines + 1, "W"));
            assertThat(more.prefHeight(-1)).as("no space is left").isGreaterThan(paper[1]);
        }
    }
}
