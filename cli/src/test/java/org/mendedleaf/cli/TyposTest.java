package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.AlphaChars;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What may have been meant is offered, and what is only a little alike is not. */
class TyposTest {

    private static final List<String> COMMANDS = List.of("restore", "thin", "hold", "unhold", "line", "list", "status");

    @ParameterizedTest
    @CsvSource({
        "restroe, restore",
        "retsore, restore",
        "resto, restore",
        "stauts, status",
        "Hold, hold",
        "lnie, line",
        "unhodl, unhold"
    })
    void aSlipOfTheFingersIsUnderstood(String typed, String meant) {
        assertThat(Typos.near(typed, COMMANDS)).contains(meant);
    }

    @ParameterizedTest
    @CsvSource({"hilfe", "xyzzy", "protection", "q"})
    void anotherWordIsNot(String typed) {
        assertThat(Typos.near(typed, COMMANDS)).isEmpty();
    }

    @Property(tries = 200)
    void theDistanceIsNoneToItselfTheSameBothWaysAndNoLongerThanTheWords(
            @ForAll @AlphaChars @StringLength(max = 12) String a,
            @ForAll @AlphaChars @StringLength(max = 12) String b) {
        assertThat(Typos.distance(a, a)).isZero();
        assertThat(Typos.distance(a, b))
                .isEqualTo(Typos.distance(b, a))
                .isBetween(Math.abs(a.length() - b.length()), Math.max(a.length(), b.length()));
        assertThat(Typos.distance(a, a + b)).isEqualTo(b.length());
        assertThat(Typos.distance(a, b) == 0).isEqualTo(a.equals(b));
    }
}
