package org.mendedleaf.standins;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SettingsTest {

    @ParameterizedTest
    @CsvSource({
        "1-month, 2026-02-28T08:00:00Z",
        "3-months, 2026-04-30T08:00:00Z",
        "6-months, 2026-07-31T08:00:00Z",
        "9-months, 2026-10-31T08:00:00Z",
        "1-year, 2027-01-31T08:00:00Z",
        "2-years, 2028-01-31T08:00:00Z"
    })
    void whatIsKeptForATimeIsKeptUntilItIsOverInTheCalendar(String keep, String until) {
        assertThat(Settings.keptUntil(Instant.parse("2026-01-31T08:00:00Z"), keep))
                .contains(Instant.parse(until));
    }

    @Test
    void whatHasNoTimeHasNoEnd() {
        assertThat(Settings.keptUntil(Instant.EPOCH, "for-good")).isEmpty();
        assertThat(Settings.keptUntil(Instant.EPOCH, Settings.UNTIL_FULL)).isEmpty();
        assertThat(Settings.isUntilFull("room")).as("as it was called first").isTrue();
        assertThat(Settings.isUntilFull("for-good")).isFalse();
    }

    @ParameterizedTest
    @CsvSource({"hour, PT1H", "day, PT24H", "week, PT168H", "hand, ", "'', "})
    void aScheduleIsSoFarApart(String text, Duration apart) {
        assertThat(Settings.every(text)).isEqualTo(Optional.ofNullable(apart));
    }

    @Test
    void whatIsNewGoesOverWhatWasAndNothingElseChanges() throws IOException {
        var before = Book.JSON.readTree("{\"a\":\"1\",\"b\":\"2\"}");
        assertThat(Settings.merge(before, Book.JSON.readTree("{\"b\":\"3\",\"c\":\"4\"}"))
                        .toString())
                .isEqualTo("{\"a\":\"1\",\"b\":\"3\",\"c\":\"4\"}");
        assertThat(before.path("b").asText()).isEqualTo("2");
        Settings settings = new Settings(before);
        assertThat(settings.text("a", "x")).isEqualTo("1");
        assertThat(settings.text("none", "x")).isEqualTo("x");
        assertThat(settings.number("b")).isEqualTo(2);
        assertThat(settings.number("none")).isZero();
    }

    @Test
    void aClockGoesOnFromWhereItWasSet() {
        OwnClock clock = new OwnClock();
        Instant set = Instant.parse("2030-01-01T00:00:00Z");
        clock.set(set);
        assertThat(clock.instant()).isBetween(set, set.plusSeconds(60));
        clock.offset(Duration.ofDays(1));
        assertThat(clock.offset()).isEqualTo(Duration.ofDays(1));
        assertThat(clock.instant()).isAfter(Instant.now());
    }
}
