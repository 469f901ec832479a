package org.mendedleaf.cli.base;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.NoSuchFileException;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** How a command that failed says so. */
class OutcomeTest {

    @Test
    void tooLittleMemoryIsNoDefect() {
        Outcome.Failure failure = Outcome.of(new IllegalStateException("x", new OutOfMemoryError("Java heap space")));
        assertThat(failure.outcome()).isEqualTo(Outcome.SOME_FAILED);
        assertThat(failure.words()).startsWith("There was not enough memory").doesNotContain("should not");
    }

    @Test
    void whatNobodyExpectedIsToldAsADefectWithTheWayToLearnMore() {
        Outcome.Failure failure = Outcome.of(new IllegalStateException("x"));
        assertThat(failure.outcome()).isEqualTo(Outcome.SOME_FAILED);
        assertThat(failure.words()).contains("should not have happened", "MENDED_LEAF_LOG");
    }

    @Test
    void aFileThatIsNotThereIsGivenByItsPathToo() {
        Outcome.Failure failure = Outcome.of(new NoSuchFileException("a/b.txt"));
        assertThat(failure.path()).isEqualTo(Optional.of("a/b.txt"));
        assertThat(Outcome.of(new IllegalArgumentException("No such moment.")).outcome())
                .isEqualTo(Outcome.WRONG_USE);
    }
}
