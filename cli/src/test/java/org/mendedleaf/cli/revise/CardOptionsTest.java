package org.mendedleaf.cli.revise;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.mendedleaf.core.line.FileProperties;
import picocli.CommandLine;

/** What is said of a file beside its content: each part by itself, and a wrong one before anything is done. */
class CardOptionsTest {

    private static final FileProperties BEFORE = new FileProperties("Letters", FileProperties.Visibility.EDITORS);

    private static CardOptions typed(String... arguments) {
        return CommandLine.populateCommand(new CardOptions(), arguments);
    }

    @Test
    void whatIsNotSaidStays() {
        assertThat(typed().isGiven()).isFalse();
        assertThat(typed().of(BEFORE)).isEqualTo(BEFORE);
        assertThat(typed("--category", "Leases").of(BEFORE))
                .isEqualTo(new FileProperties("Leases", FileProperties.Visibility.EDITORS));
        assertThat(typed("--visible", "owner").of(BEFORE))
                .isEqualTo(new FileProperties("Letters", FileProperties.Visibility.OWNER));
    }

    @Test
    void anEmptyCategoryTakesItAway() {
        CardOptions none = typed("--category", "");
        assertThat(none.isGiven()).isTrue();
        assertThat(none.of(BEFORE).category()).isEmpty();
    }

    @Test
    void whoSeesItIsCheckedBeforeAnythingIsDone() {
        typed().check();
        typed("--visible", "everybody").check();
        assertThatThrownBy(() -> typed("--visible", "nobody").check())
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("\"nobody\"")
                .hasMessageContaining("everybody, editors");
    }
}
