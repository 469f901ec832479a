package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.line.Versioning;

class LatenessTest {

    private static final Instant NOW = Instant.parse("2026-05-04T12:00:00Z");

    private static boolean late(Rhythm rhythm, Duration ago) {
        Place place = new Place(1, Path.of("/desk"), "desk", rhythm, List.of(), NOW.minus(Duration.ofDays(100)));
        return Lateness.isLate(
                place, new PlaceState(Optional.empty(), Optional.of(NOW.minus(ago)), "", List.of(), 3), NOW);
    }

    @Test
    void aFolderIsLateWhenItsLastGoodCaptureIsOlderThanItsRhythmAllows() {
        assertThat(late(Rhythm.ON_SAVE, Duration.ofMinutes(20))).isFalse();
        assertThat(late(Rhythm.ON_SAVE, Duration.ofMinutes(30))).isTrue();
        assertThat(late(Rhythm.every(60), Duration.ofMinutes(65))).isFalse();
        assertThat(late(Rhythm.every(60), Duration.ofMinutes(75))).isTrue();
        assertThat(late(Rhythm.parse("daily 18:00"), Duration.ofHours(25))).isFalse();
        assertThat(late(Rhythm.parse("daily 18:00"), Duration.ofHours(26))).isTrue();
        assertThat(late(Rhythm.parse("weekly fri"), Duration.ofDays(7))).isFalse();
        assertThat(late(Rhythm.parse("weekly fri"), Duration.ofDays(8))).isTrue();
        assertThat(late(Rhythm.BY_HAND, Duration.ofDays(1000))).isFalse();
    }

    @Test
    void oneThatIsPausedOrEndedIsNeverLate() {
        Place place = new Place(1, Path.of("/desk"), "desk", Rhythm.ON_SAVE, List.of(), NOW.minus(Duration.ofDays(9)));
        PlaceState never = new PlaceState(Optional.empty(), Optional.empty(), "", List.of(), 0);
        assertThat(Lateness.isLate(place.with(Versioning.PAUSED), never, NOW)).isFalse();
        assertThat(Lateness.isLate(place.with(Versioning.OFF), never, NOW)).isFalse();
        assertThat(Lateness.isLate(place.with(Versioning.ON), never, NOW)).isTrue();
    }

    @Test
    void oneThatWasNeverCapturedIsLateByTheTimeSinceItWasProtected() {
        Place place = new Place(1, Path.of("/desk"), "desk", Rhythm.ON_SAVE, List.of(), NOW.minus(Duration.ofDays(1)));
        PlaceState never = new PlaceState(Optional.empty(), Optional.empty(), "", List.of(), 0);
        assertThat(Lateness.isLate(place, never, NOW)).isTrue();
        assertThat(Lateness.isLate(place, never, NOW.minus(Duration.ofDays(1)))).isFalse();
    }

    @Test
    void aPlaceInAnotherSystemHasItsOwnWayToSaySo() {
        Place place =
                new Place(1, new Source.Outside("Library", "Minutes"), "Minutes", Rhythm.every(10), List.of(), NOW);
        assertThat(Lateness.isLate(
                        place,
                        new PlaceState(Optional.empty(), Optional.empty(), "", List.of(), 0),
                        NOW.plus(Duration.ofDays(10))))
                .isFalse();
    }
}
