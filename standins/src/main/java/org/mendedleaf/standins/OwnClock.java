package org.mendedleaf.standins;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** A clock of its own: it goes on from wherever it was set. */
public final class OwnClock extends Clock {

    private volatile Duration offset = Duration.ZERO;

    /** Lets it go on from this moment. */
    public void set(Instant now) {
        offset = Duration.between(Clock.systemUTC().instant(), now);
    }

    /** How far it goes ahead of the machine's. */
    Duration offset() {
        return offset;
    }

    void offset(Duration by) {
        offset = by;
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return this;
    }

    @Override
    public Instant instant() {
        return Clock.systemUTC().instant().plus(offset).truncatedTo(java.time.temporal.ChronoUnit.MICROS);
    }
}
