package org.mendedleaf.core.snapshots;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.SnapshotSchedule;

/**
 * A time of a schedule that has come and was not seen to. Pure.
 *
 * @param at the newest of such times
 * @param take whether a snapshot is to be taken; otherwise it was missed and is skipped
 */
public record Due(Instant at, boolean take) {

    /** From so much delay on a time counts as missed: nobody was there to see to it. */
    static final Duration LATE = Duration.ofMinutes(15);

    private static final int MOST = 20_000;

    /** What is due of a schedule. */
    public static Optional<Due> of(SnapshotSchedule schedule, Instant now) {
        if (schedule.ended()) {
            return Optional.empty();
        }
        List<Instant> times = Recurrence.of(schedule).between(schedule.handled(), now, MOST);
        if (times.isEmpty()) {
            return Optional.empty();
        }
        Instant last = times.get(times.size() - 1);
        boolean missed = Duration.between(last, now).compareTo(LATE) > 0;
        return Optional.of(new Due(last, !missed || schedule.missed() == SnapshotSchedule.Missed.CATCH_UP));
    }
}
