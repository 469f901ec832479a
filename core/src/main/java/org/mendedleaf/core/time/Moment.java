package org.mendedleaf.core.time;

import java.time.Instant;
import java.time.temporal.ChronoUnit;

/**
 * Moments as the catalogue keeps them: microseconds since 1970-01-01T00:00Z. An interval holds its first moment and not
 * its last; the last of an open one is {@link #OPEN}.
 */
public final class Moment {

    /** Later than anything that happens: what is there then is what is there now, whatever clocks say. */
    public static final Instant FAR = Instant.parse("9999-01-01T00:00:00Z");

    /** The end of what has not ended. */
    public static final long OPEN = Long.MAX_VALUE;

    private Moment() {}

    /** Microseconds of an instant, rounded down. */
    public static long micros(Instant instant) {
        return Math.addExact(Math.multiplyExact(instant.getEpochSecond(), 1_000_000L), instant.getNano() / 1000);
    }

    /** The instant of microseconds. */
    public static Instant instant(long micros) {
        return Instant.EPOCH.plus(micros, ChronoUnit.MICROS);
    }
}
