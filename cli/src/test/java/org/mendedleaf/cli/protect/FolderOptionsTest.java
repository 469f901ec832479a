package org.mendedleaf.cli.protect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.line.Rhythm;
import picocli.CommandLine;

/** How a folder is kept, as it is typed: what is not named stays, and what cannot be is refused in words. */
class FolderOptionsTest {

    private static final Rhythm SUNDAYS = Rhythm.weekly(DayOfWeek.SUNDAY, LocalTime.of(6, 0));

    private static Rhythm rhythm(Optional<Rhythm> before, String... typed) {
        return CommandLine.populateCommand(new FolderOptions(), typed)
                .change(before)
                .rhythm();
    }

    @Test
    void whatIsNotTypedChangesNothing() {
        assertThat(rhythm(Optional.of(SUNDAYS))).isNull();
        assertThat(rhythm(Optional.empty())).isNull();
    }

    @Test
    void howOftenCountsWithoutATimeToo() {
        assertThat(rhythm(Optional.of(SUNDAYS), "--every", "save")).isEqualTo(Rhythm.ON_SAVE);
        assertThat(rhythm(Optional.empty(), "--every", "30")).isEqualTo(Rhythm.every(30));
        assertThat(rhythm(Optional.empty(), "--every", "daily")).isEqualTo(Rhythm.daily(Rhythm.EVENING));
    }

    @Test
    void aTimeGoesWithADayOrAWeek() {
        assertThat(rhythm(Optional.empty(), "--every", "daily", "--at", "17:30"))
                .isEqualTo(Rhythm.daily(LocalTime.of(17, 30)));
        assertThat(rhythm(Optional.empty(), "--every", "weekly", "--at", "mon 7:15"))
                .isEqualTo(Rhythm.weekly(DayOfWeek.MONDAY, LocalTime.of(7, 15)));
    }

    @Test
    void aTimeAloneChangesTheTimeAndKeepsTheDay() {
        assertThat(rhythm(Optional.of(SUNDAYS), "--at", "20:00"))
                .isEqualTo(Rhythm.weekly(DayOfWeek.SUNDAY, LocalTime.of(20, 0)));
        assertThat(rhythm(Optional.of(Rhythm.daily(Rhythm.EVENING)), "--at", "9:00"))
                .isEqualTo(Rhythm.daily(LocalTime.of(9, 0)));
    }

    @Test
    void aTimeOfWhatHasNoneIsRefused() {
        assertThatThrownBy(() -> rhythm(Optional.of(Rhythm.ON_SAVE), "--at", "20:00"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("\"daily\" or \"weekly\"");
        assertThatThrownBy(() -> rhythm(Optional.empty(), "--every", "30", "--at", "20:00"))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"sometimes", "5", "721", "-1", ""})
    void howOftenThatCannotBeIsRefusedWithWhatCan(String every) {
        assertThatThrownBy(() -> rhythm(Optional.empty(), "--every", every))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageMatching("(?s).*(save|10 to 720).*");
    }

    @ParameterizedTest
    @ValueSource(strings = {"25:00", "noon", "", "fri"})
    void aTimeThatIsNoneIsRefused(String at) {
        assertThatThrownBy(() -> rhythm(Optional.empty(), "--every", "daily", "--at", at))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void patternsAreGivenOnceEach() {
        FolderOptions options = CommandLine.populateCommand(
                new FolderOptions(), "--exclude", "*.iso", "--exclude", "build/", "--include", "*.tmp");
        assertThat(options.change(Optional.empty()).excluded()).containsExactly("*.iso", "build/");
        assertThat(options.change(Optional.empty()).included()).containsExactly("*.tmp");
    }
}
