package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import org.junit.jupiter.api.Test;

class RepeatsTest {

    private final Repeats repeats = new Repeats();

    private static String fresh(String text) {
        return new String(text.toCharArray());
    }

    @Test
    void aTextThatCameBeforeIsThatOne() {
        String first = repeats.text(fresh("Ines"));
        assertThat(repeats.text(fresh("Tomas"))).isEqualTo("Tomas");
        assertThat(repeats.text(fresh("Ines"))).isSameAs(first);
    }

    @Test
    void ofVeryManyDifferentTextsEachIsStillItself() {
        for (int i = 0; i < 5000; i++) {
            assertThat(repeats.text("note " + i)).isEqualTo("note " + i);
        }
        assertThat(repeats.text(fresh("note 0"))).isSameAs(repeats.text(fresh("note 0")));
    }

    @Test
    void aMomentIsKeptUntilAnotherComes() {
        Instant first = repeats.moment(1_700_000_000_000_001L);
        assertThat(first).isEqualTo(Instant.parse("2023-11-14T22:13:20.000001Z"));
        assertThat(repeats.moment(1_700_000_000_000_001L)).isSameAs(first);
        assertThat(repeats.moment(0)).isEqualTo(Instant.EPOCH);
        assertThat(repeats.moment(1_700_000_000_000_001L)).isEqualTo(first);
    }
}
