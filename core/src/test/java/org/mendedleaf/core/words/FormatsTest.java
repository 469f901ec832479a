package org.mendedleaf.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class FormatsTest {

    private static final Instant NOW = Instant.parse("2026-11-20T09:45:00Z");

    private static String moment(String at) {
        return Formats.moment(Instant.parse(at), NOW, ZoneOffset.UTC);
    }

    @Test
    void aMomentIsSaidAsPeopleSayIt() {
        assertThat(moment("2026-11-20T08:05:00Z")).isEqualTo("today 08:05");
        assertThat(moment("2026-11-19T08:05:00Z")).isEqualTo("yesterday 08:05");
        assertThat(moment("2026-11-16T08:05:00Z")).isEqualTo("Mon 08:05");
        assertThat(moment("2026-05-04T08:05:00Z")).isEqualTo("4 May 08:05");
        assertThat(moment("2025-05-04T08:05:00Z")).isEqualTo("4 May 2025");
    }

    @Test
    void theHourThatIsThereTwiceSaysWhichOfTheTwoItIs() {
        ZoneId zone = ZoneId.of("Europe/Brussels");
        Instant first = Instant.parse("2026-10-25T00:30:00Z");
        assertThat(Formats.full(first, zone)).isEqualTo("Sun 25 Oct 2026, 02:30 CEST");
        assertThat(Formats.full(first.plus(Duration.ofHours(1)), zone)).isEqualTo("Sun 25 Oct 2026, 02:30 CET");
        assertThat(Formats.full(first.plus(Duration.ofHours(2)), zone)).isEqualTo("Sun 25 Oct 2026, 03:30");
        assertThat(Formats.moment(first, first.plusSeconds(86_400), zone)).isEqualTo("yesterday 02:30 CEST");
    }

    @Test
    void aSizeHasTwoOrThreeDigits() {
        assertThat(Formats.size(0)).isEqualTo("0 B");
        assertThat(Formats.size(999)).isEqualTo("999 B");
        assertThat(Formats.size(48_300)).isEqualTo("48.3 kB");
        assertThat(Formats.size(999_999)).isEqualTo("1.00 MB");
        assertThat(Formats.size(1_240_000_000)).isEqualTo("1.24 GB");
        assertThat(Formats.sizeChange(-45_200)).isEqualTo("−45.2 kB");
    }

    @Property(tries = 100)
    void noSizeIsLongerThanSevenLetters(@ForAll @LongRange(min = 0, max = Long.MAX_VALUE / 1000) long bytes) {
        assertThat(Formats.size(bytes)).matches("[\\d.]{1,4} (B|kB|MB|GB|TB|PB)|\\d{4} PB");
    }

    @Test
    void theEndOfADayIsThatDay() {
        assertThat(Formats.end(Instant.parse("2026-11-22T00:00:00Z"), NOW, ZoneOffset.UTC))
                .isEqualTo("21 Nov");
        assertThat(Formats.end(Instant.parse("2026-11-22T10:00:00Z"), NOW, ZoneOffset.UTC))
                .isEqualTo("Sun 22 Nov 10:00");
    }

    @Test
    void aWhileIsSaidInItsLargestUnits() {
        assertThat(Formats.duration(Duration.ZERO)).isEqualTo("1 s");
        assertThat(Formats.duration(Duration.ofSeconds(89))).isEqualTo("89 s");
        assertThat(Formats.duration(Duration.ofMinutes(80))).isEqualTo("80 min");
        assertThat(Formats.duration(Duration.ofMinutes(100))).isEqualTo("1 h 40 min");
        assertThat(Formats.ago(NOW.minusSeconds(30), NOW, ZoneOffset.UTC)).isEqualTo("just now");
        assertThat(Formats.ago(NOW.minusSeconds(600), NOW, ZoneOffset.UTC)).isEqualTo("10 min ago");
        assertThat(Formats.ago(NOW.minusSeconds(7200), NOW, ZoneOffset.UTC)).isEqualTo("2 h ago");
    }
}
