package org.mendedleaf.core.capture;

import java.time.Duration;
import java.time.Instant;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Versioning;

/** Whether a folder was captured as lately as its rhythm promises. Pure. */
public final class Lateness {

    /** While a folder is watched, it is written down at least so often that all of it is captured. */
    private static final Duration SAID_EVERY = Duration.ofMinutes(15);

    /** A little more than what a rhythm promises is no cause for alarm. */
    private static final Duration GRACE = Duration.ofMinutes(10);

    private Lateness() {}

    static boolean isToBeSaid(Instant last, Instant now) {
        return Duration.between(last, now).abs().compareTo(SAID_EVERY) > 0;
    }

    /** How old the last good capture of a place may be; never too old for one that is captured by hand. */
    static Duration allowed(Place place) {
        return place.rhythm().kind() == Rhythm.Kind.ON_SAVE
                ? SAID_EVERY.plus(GRACE)
                : place.rhythm().longest().map(d -> d.plus(GRACE)).orElse(Duration.ofDays(365_000));
    }

    /** Whether the last good capture is older than the rhythm allows, or there was none. */
    public static boolean isLate(Place place, PlaceState state, Instant now) {
        if (place.isOutside() || place.versioning() != Versioning.ON) {
            return false;
        }
        Instant last = state.lastGood().orElse(place.created());
        return Duration.between(last, now).compareTo(allowed(place)) > 0;
    }
}
