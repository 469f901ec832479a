package org.mendedleaf.core.line;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class RhythmTest {

    private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");

    @Provide
    Arbitrary<Rhythm> rhythms() {
        return Arbitraries.oneOf(
                Arbitraries.of(Rhythm.ON_SAVE, Rhythm.BY_HAND),
                Arbitraries.integers().between(10, 720).map(Rhythm::every),
                Arbitraries.integers().between(0, 1439).map(m -> Rhythm.daily(LocalTime.of(m / 60, m % 60))),
                Arbitraries.integers()
                        .between(0, 10_079)
                        .map(m -> Rhythm.weekly(DayOfWeek.of(m / 1440 + 1), LocalTime.of(m % 1440 / 60, m % 60))));
    }

    @Property
    void whatIsWrittenIsReadAsTheSame(@ForAll("rhythms") Rhythm rhythm) {
        assertThat(Rhythm.parse(rhythm.text())).isEqualTo(rhythm);
    }

    @Property
    void theNextOneIsAtItsTimeAndNeverFurtherThanTheLongestAway(
            @ForAll("rhythms") Rhythm rhythm, @ForAll @LongRange(min = 0, max = 4_000_000_000L) long seconds) {
        Instant last = Instant.ofEpochSecond(seconds);
        rhythm.next(last, ZoneOffset.UTC).ifPresent(next -> {
            assertThat(next)
                    .isAfter(last)
                    .isBeforeOrEqualTo(last.plus(rhythm.longest().orElseThrow()));
            if (rhythm.kind() != Rhythm.Kind.EVERY) {
                assertThat(next.atZone(ZoneOffset.UTC).toLocalTime()).isEqualTo(rhythm.at());
            }
            if (rhythm.kind() == Rhythm.Kind.WEEKLY) {
                assertThat(next.atZone(ZoneOffset.UTC).getDayOfWeek()).isEqualTo(rhythm.day());
            }
        });
    }

    @Property
    void whoeverIsCapturedAtItsTimeIsCapturedOnEveryDay(@ForAll @IntRange(min = 0, max = 1439) int minute) {
        Rhythm daily = Rhythm.daily(LocalTime.of(minute / 60, minute % 60));
        Instant at = Instant.parse("2026-03-20T12:00:00Z");
        for (int day = 0; day < 20; day++) {
            Instant next = daily.next(at, BERLIN).orElseThrow();
            // On 29 March the clocks are put forward in Berlin.
            assertThat(next.atZone(BERLIN).toLocalDate())
                    .isEqualTo(daily.next(Instant.parse("2026-03-20T12:00:00Z"), BERLIN)
                            .orElseThrow()
                            .atZone(BERLIN)
                            .toLocalDate()
                            .plusDays(day));
            at = next;
        }
    }

    @Test
    void peopleWriteItInSeveralWays() {
        assertThat(Rhythm.parse("daily")).isEqualTo(Rhythm.daily(LocalTime.of(18, 0)));
        assertThat(Rhythm.parse("daily 7.05")).isEqualTo(Rhythm.daily(LocalTime.of(7, 5)));
        assertThat(Rhythm.parse("Weekly")).isEqualTo(Rhythm.weekly(DayOfWeek.FRIDAY, LocalTime.of(18, 0)));
        assertThat(Rhythm.parse("weekly wednesday")).isEqualTo(Rhythm.weekly(DayOfWeek.WEDNESDAY, LocalTime.of(18, 0)));
        assertThat(Rhythm.parse("weekly 9")).isEqualTo(Rhythm.weekly(DayOfWeek.FRIDAY, LocalTime.of(9, 0)));
        assertThat(Rhythm.parse("weekly tu 23:59")).isEqualTo(Rhythm.weekly(DayOfWeek.TUESDAY, LocalTime.of(23, 59)));
    }

    @Test
    void whatCannotBeReadIsRefusedInWords() {
        for (String wrong :
                new String[] {"", "often", "daily fri", "weekly 9 fri", "daily 9 10", "save now", "weekly t"}) {
            assertThatThrownBy(() -> Rhythm.parse(wrong))
                    .as(wrong)
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("How often");
        }
        assertThatThrownBy(() -> Rhythm.parse("daily 25:00")).hasMessageContaining("18:00");
        assertThatThrownBy(() -> Rhythm.parse("9")).hasMessageContaining("10 to 720");
        assertThatThrownBy(() -> new Rhythm(Rhythm.Kind.DAILY, 1440)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Rhythm(Rhythm.Kind.BY_HAND, 1)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void itIsSaidInWordsAndInMinutes() {
        assertThat(Rhythm.parse("weekly mon 8").words()).isEqualTo("every Monday at 08:00");
        assertThat(Rhythm.parse("daily 8").longWords()).isEqualTo("every day at 08:00");
        assertThat(Rhythm.parse("weekly").intervalMinutes()).isEqualTo(7 * 24 * 60);
        assertThat(Rhythm.parse("daily").intervalMinutes()).isEqualTo(24 * 60);
        assertThat(Rhythm.ON_SAVE.intervalMinutes()).isZero();
        assertThat(Rhythm.ON_SAVE.longest()).contains(Duration.ZERO);
        assertThat(Rhythm.BY_HAND.longest()).isEmpty();
    }
}
