package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Set;
import org.junit.jupiter.api.Test;

class QuietTimeTest {

    private static final long SECOND = Duration.ofSeconds(1).toNanos();

    private final QuietTime waiting = new QuietTime(Duration.ofSeconds(2), Duration.ofSeconds(30));

    @Test
    void nothingHeardIsNothingDue() {
        assertThat(waiting.due(100 * SECOND)).isEmpty();
    }

    @Test
    void itWaitsUntilItHasBeenQuiet() {
        waiting.changed("a", 0);
        waiting.changed("b", SECOND);
        assertThat(waiting.due(2 * SECOND)).isEmpty();
        assertThat(waiting.due(3 * SECOND)).contains(new CaptureScope.Folders(Set.of("a", "b")));
        assertThat(waiting.due(9 * SECOND)).as("only once").isEmpty();
    }

    @Test
    void itDoesNotWaitForEver() {
        for (int s = 0; s < 30; s++) {
            waiting.changed("a", s * SECOND);
            assertThat(waiting.due(s * SECOND)).isEmpty();
        }
        waiting.changed("a", 30 * SECOND);
        assertThat(waiting.due(30 * SECOND)).isPresent();
    }

    @Test
    void whoWaitsKnowsHowLongAndNeverLongerThanWanted() {
        assertThat(waiting.until(0, SECOND)).as("nothing is heard").isEqualTo(SECOND);
        waiting.changed("a", 0);
        assertThat(waiting.until(0, SECOND)).as("due later than that").isEqualTo(SECOND);
        assertThat(waiting.until(SECOND + SECOND / 2, SECOND)).isEqualTo(SECOND / 2);
        assertThat(waiting.until(9 * SECOND, SECOND)).as("overdue").isZero();
        for (int s = 0; s < 30; s++) {
            waiting.changed("a", s * SECOND);
        }
        assertThat(waiting.until(29 * SECOND + SECOND / 2, 5 * SECOND))
                .as("the longest time ends first")
                .isEqualTo(SECOND / 2);
    }

    @Test
    void lostEventsLeadToALookAtEverything() {
        waiting.changed("a", 0);
        waiting.lost(0);
        assertThat(waiting.due(2 * SECOND)).contains(CaptureScope.WHOLE);
    }

    @Test
    void whatCouldNotBeCapturedIsTriedAgain() {
        waiting.again(new CaptureScope.Folders(Set.of("a")), 0);
        assertThat(waiting.due(2 * SECOND)).contains(new CaptureScope.Folders(Set.of("a")));
    }
}
