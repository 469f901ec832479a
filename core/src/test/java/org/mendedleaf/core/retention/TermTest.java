package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.time.Moment;

class TermTest {

    private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");

    private static String after(String from, String term, ZoneId zone) {
        return Moment.instant(Term.parse(term).after(Moment.micros(Instant.parse(from)), zone))
                .toString();
    }

    @ParameterizedTest
    @CsvSource({
        "PT36H, HOURS, 36, 36 hours, 1.5",
        "P30D, DAYS, 30, 30 days, 30",
        "P1D, DAYS, 1, 1 day, 1",
        "P12W, WEEKS, 12, 12 weeks, 84",
        "P6M, MONTHS, 6, 6 months, 182.64",
        "P2Y, YEARS, 2, 2 years, 730.5",
        "forever, FOREVER, 0, good, 36525"
    })
    void whatIsWrittenIsReadAndSaid(String text, Term.Unit unit, int count, String words, double days) {
        Term term = Term.parse(text);
        assertThat(term).isEqualTo(new Term(count, unit));
        assertThat(term.text()).isEqualTo(text);
        assertThat(term.words()).isEqualTo(words);
        assertThat(term.roughDays()).isCloseTo(days, within(0.001));
        assertThat(Term.parse(" " + text.toLowerCase(java.util.Locale.ROOT) + " "))
                .isEqualTo(term);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "30", "P", "P30", "PT30M", "P0D", "P-1D", "P1D2H", "P1234567D", "for ever", "P1.5D"})
    void whatIsNoTimeIsRefused(String text) {
        assertThatThrownBy(() -> Term.parse(text)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void foreverHasNoCountAndAllElseHasOne() {
        assertThatThrownBy(() -> new Term(1, Term.Unit.FOREVER)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Term(0, Term.Unit.DAYS)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Term(-1, Term.Unit.DAYS)).isInstanceOf(IllegalArgumentException.class);
        assertThat(Term.days(7)).isEqualTo(new Term(7, Term.Unit.DAYS));
    }

    @ParameterizedTest
    @CsvSource({
        "2026-05-04T08:00:00Z, PT36H, 2026-05-05T20:00:00Z",
        "2026-05-04T08:00:00Z, P30D, 2026-06-03T08:00:00Z",
        "2026-05-04T08:00:00Z, P2W, 2026-05-18T08:00:00Z",
        "2026-01-31T08:00:00Z, P1M, 2026-02-28T08:00:00Z",
        "2024-02-29T08:00:00Z, P1Y, 2025-02-28T08:00:00Z"
    })
    void aTermEndsSoLongAfter(String from, String term, String end) {
        assertThat(after(from, term, ZoneOffset.UTC)).isEqualTo(end);
    }

    @Test
    void monthsFollowTheClockOnTheWallAndDaysDoNot() {
        // Clocks go forward on 2026-03-29 in Berlin.
        assertThat(after("2026-03-01T11:00:00Z", "P1M", BERLIN)).isEqualTo("2026-04-01T10:00:00Z");
        assertThat(after("2026-03-01T11:00:00Z", "P31D", BERLIN)).isEqualTo("2026-04-01T11:00:00Z");
    }

    @Test
    void whatNeverBeginsToEndNeverEnds() {
        assertThat(Term.days(1).after(Moment.OPEN, ZoneOffset.UTC)).isEqualTo(Moment.OPEN);
        assertThat(Term.FOREVER.after(0, ZoneOffset.UTC)).isEqualTo(Moment.OPEN);
    }
}
