package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What may go is judged by a clock that was right for a while. */
class TrustedTimeTest {

    private static final Instant START = Instant.parse("2026-05-04T08:00:00Z");
    private static final Instant FAR = START.plus(Duration.ofDays(20 * 365));

    @TempDir
    Path temp;

    private OpenVault vault;

    @BeforeEach
    void open() throws IOException {
        vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofMillis(200));
        see(START);
    }

    @AfterEach
    void close() throws IOException {
        vault.close();
    }

    private Instant see(Instant clock) throws IOException {
        try (WriteSession session = vault.write()) {
            Instant lived = TrustedTime.of(session, clock);
            session.commit();
            return lived;
        }
    }

    private Instant read(Instant clock) throws IOException {
        try (Reading reading = vault.read()) {
            return TrustedTime.of(reading, clock);
        }
    }

    @Test
    void aClockThatGoesOnIsBelieved() throws IOException {
        assertThat(see(START.plus(Duration.ofHours(47)))).isEqualTo(START.plus(Duration.ofHours(47)));
        assertThat(read(START.plus(Duration.ofHours(90)))).isEqualTo(START.plus(Duration.ofHours(90)));
    }

    @Test
    void aClockTwentyYearsAheadDoesNotCountUntilItHasSaidSoForADay() throws IOException {
        assertThat(see(FAR)).isEqualTo(START);
        assertThat(read(FAR.plus(Duration.ofHours(23)))).isEqualTo(START);
        assertThat(see(FAR.plus(Duration.ofHours(23)))).isEqualTo(START);
        assertThat(see(FAR.plus(Duration.ofHours(24)))).isEqualTo(FAR.plus(Duration.ofHours(24)));
    }

    @Test
    void aClockThatWasSetRightAgainStartsItsProofAnew() throws IOException {
        see(FAR);
        Instant right = START.plus(Duration.ofHours(3));
        assertThat(see(right)).isEqualTo(right);
        assertThat(see(FAR.plus(Duration.ofDays(2)))).isEqualTo(right);
    }

    @Test
    void aClockThatStoodAheadEvenLongerAndCameBackIsBelievedAtOnce() throws IOException {
        see(FAR);
        see(FAR.plus(Duration.ofDays(1)));
        Instant right = START.plus(Duration.ofDays(1));
        assertThat(see(right)).isEqualTo(right);
    }

    @Test
    void aMachineThatWasOffForAMonthLetsNothingGoOnItsFirstDay() throws IOException {
        Instant back = START.plus(Duration.ofDays(31));
        assertThat(see(back)).isEqualTo(START);
        assertThat(see(back.plus(Duration.ofHours(8)))).isEqualTo(START);
        assertThat(see(back.plus(Duration.ofHours(25)))).isEqualTo(back.plus(Duration.ofHours(25)));
    }

    @Test
    void aSecondJumpIsNotProvedByTheFirst() throws IOException {
        Instant afterThreeDays = START.plus(Duration.ofDays(3));
        assertThat(see(afterThreeDays)).isEqualTo(START);
        assertThat(see(FAR)).isEqualTo(afterThreeDays);
        assertThat(see(afterThreeDays.plusSeconds(60))).isEqualTo(afterThreeDays.plusSeconds(60));
    }

    @Test
    void aProgramThatRunsOnceAWeekGoesOnByWeeks() throws IOException {
        for (int week = 1; week < 5; week++) {
            assertThat(see(START.plus(Duration.ofDays(7L * week))))
                    .isEqualTo(START.plus(Duration.ofDays(7L * (week - 1))));
        }
    }
}
