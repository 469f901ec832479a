package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import org.mendedleaf.core.time.Moment;

/**
 * The moment by which it is judged what may go: the clock, but not before the time up to it was lived through. A clock that
 * stands days ahead of what a vault has seen last may have been set wrong, or the computer may have been off for a month. Either
 * way nothing is lost by waiting: what the clock says counts when it has said so for a day. So a hold or a grace time does not
 * end because a clock once stood twenty years ahead.
 */
public final class TrustedTime {

    private static final String SEEN = "time-seen";
    private static final String JUMP = "time-jump";

    /** So much further than what was seen last, a clock is believed at once. */
    private static final Duration BELIEVED = Duration.ofDays(2);

    /** So long it must have stood further ahead than that. */
    private static final Duration PROVED = Duration.ofDays(1);

    private TrustedTime() {}

    /**
     * What is believed.
     *
     * @param seen the highest reading of the clock that was lived through, microseconds; 0 before the first
     * @param jump a reading further ahead that is not proved yet; 0 when there is none
     */
    private record State(long seen, long jump) {

        /** After the clock said this. */
        State after(long now) {
            if (isNear(now)) {
                return new State(Math.max(seen, now), 0);
            }
            if (jump != 0 && now - jump >= micros(PROVED)) {
                // That moment has passed. What the clock says now is another matter: it may have jumped again.
                State then = new State(jump, 0);
                return then.isNear(now) ? then.after(now) : new State(jump, now);
            }
            return new State(seen, jump == 0 ? now : Math.min(jump, now));
        }

        private boolean isNear(long now) {
            return seen == 0 || now - seen <= micros(BELIEVED);
        }

        Instant moment(Instant clock) {
            return jump == 0 ? clock : Moment.instant(seen);
        }
    }

    /** The moment, when the clock says this; what was seen is remembered with the session's commit. */
    public static Instant of(WriteSession session, Instant clock) throws IOException {
        State before = new State(session.note(SEEN), session.note(JUMP));
        State after = before.after(Moment.micros(clock));
        if (after.seen() != before.seen()) {
            session.note(SEEN, after.seen());
        }
        if (after.jump() != before.jump()) {
            session.note(JUMP, after.jump());
        }
        return after.moment(clock);
    }

    /** As a reader sees it. */
    public static Instant of(Reading reading, Instant clock) throws IOException {
        return new State(reading.note(SEEN), reading.note(JUMP))
                .after(Moment.micros(clock))
                .moment(clock);
    }

    private static long micros(Duration time) {
        return time.toNanos() / 1000;
    }
}
