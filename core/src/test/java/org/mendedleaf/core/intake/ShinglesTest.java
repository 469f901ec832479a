package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** A text by its runs of words is the same whether all of it is at hand or it is taken word by word, however long. */
class ShinglesTest {

    private static final Pattern WORD = Pattern.compile("[\\p{L}\\p{Nd}]+");
    private final Random random = new Random(11);

    private static List<String> words(String text) {
        List<String> words = new ArrayList<>();
        Matcher m =
                WORD.matcher(Normalizer.normalize(text, Normalizer.Form.NFKC).toLowerCase(Locale.ROOT));
        while (m.find()) {
            words.add(m.group());
        }
        return words;
    }

    /** How many different runs of so many words there are. */
    private static int different(List<String> words, int length) {
        TreeSet<String> runs = new TreeSet<>();
        for (int i = 0; i + length <= words.size(); i++) {
            runs.add(String.join(" ", words.subList(i, i + length)));
        }
        return runs.size();
    }

    private String text(int words, int vocabulary) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < words; i++) {
            all.append(i == 0 ? "" : random.nextInt(20) == 0 ? ",\n" : " ")
                    .append(random.nextInt(9) == 0 ? "Ünïcode\uFB01" : "Word")
                    .append(random.nextInt(vocabulary));
        }
        return all.toString();
    }

    @Test
    void eachRunCountsOnce() {
        for (int tried = 0; tried < 20; tried++) {
            String text = text(random.nextInt(3000), 1 + random.nextInt(50));
            Shingles.OfText found = Shingles.of(text, 3, 12);
            List<String> words = words(text);
            assertThat(found.words()).isEqualTo(words.size());
            if (words.size() >= 12) {
                assertThat(found.near().size()).isEqualTo(different(words, 3));
                assertThat(found.far().size()).isEqualTo(different(words, 12));
            } else {
                assertThat(found.far().size()).isEqualTo(words.isEmpty() ? 0 : 1);
            }
        }
    }

    @Test
    void ofALongTextThoseRunsStandWhoseHashesEndAlike() {
        String text = text(150_000, 1_000_000);
        Shingles near = Shingles.of(text, 3, 12).near();
        assertThat(near.level()).isPositive();
        assertThat(near.size()).isBetween(5_000, 20_000);
        assertThat(Arrays.stream(near.hashes()).allMatch(h -> Long.numberOfTrailingZeros(h) >= near.level()))
                .isTrue();
        Shingles half = Shingles.of(text.substring(0, text.length() / 2), 3, 12).near();
        assertThat(half.containment(near)).isGreaterThan(0.99);
    }

    @Test
    void theSameWordsInOtherLinesAreTheSameText() {
        String text = text(40_000, 5_000);
        Shingles.OfText lines = Shingles.of(text.replace(' ', '\n'), 3, 12);
        Shingles.OfText spaced = Shingles.of(text.replace(" ", " \t "), 3, 12);
        assertThat(lines.near().hashes()).isEqualTo(spaced.near().hashes());
        assertThat(lines.words()).isEqualTo(spaced.words());
    }

    @Test
    void aSignThatStandsForMuchDoesNotMakeATextEndless() {
        Shingles.OfText found = Shingles.of("\uFDFA".repeat(2_000_000), 3, 12);
        assertThat(found.words()).isBetween(1, 5_000_000);
        assertThat(found.near().size()).isPositive();
    }
}
