package org.mendedleaf.core.line;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import org.mendedleaf.core.words.Words;

/**
 * When snapshots of a folder are taken by themselves.
 *
 * @param id in its vault; 0 before it is stored
 * @param place id of the place
 * @param path of the folder, from the place's root
 * @param label what people call it; its snapshots go by it too
 * @param rule recurrence rule, as the value of RRULE in RFC 5545
 * @param start the first time, on the clock of the zone
 * @param zone whose clock counts
 * @param keep how many of its snapshots are kept; 0 for all
 * @param missed what becomes of a time at which no program was running
 * @param handled the last due time that was seen to
 * @param ended whether somebody ended it
 */
public record SnapshotSchedule(
        long id,
        long place,
        String path,
        String label,
        String rule,
        LocalDateTime start,
        ZoneId zone,
        int keep,
        Missed missed,
        Instant handled,
        boolean ended) {

    /** The most that can be kept. */
    public static final int MOST = 10_000;

    /** What becomes of a time that was missed. */
    public enum Missed {
        /** One snapshot is taken as soon as it can be, however many were missed. */
        CATCH_UP,
        /** None is taken; the next one comes at its time. */
        SKIP
    }

    /** Checks how many are kept. */
    public SnapshotSchedule {
        if (keep < 0 || keep > MOST) {
            throw new IllegalArgumentException(Words.of("schedule.badKeep", MOST, keep));
        }
    }

    /** The same, with due times seen to up to this one. */
    public SnapshotSchedule handled(Instant due) {
        return new SnapshotSchedule(id, place, path, label, rule, start, zone, keep, missed, due, ended);
    }

    /** The same, ended. */
    public SnapshotSchedule end() {
        return new SnapshotSchedule(id, place, path, label, rule, start, zone, keep, missed, handled, true);
    }
}
