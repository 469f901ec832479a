package org.mendedleaf.desktop.files;

import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.line.CaptureRecord;

/** How many changes were captured within a while, and whether that is unusually many. Pure. */
final class CaptureCounts {

    /** A capture with this many changes at once is marked, when it also stands out from the others. */
    private static final int BURST = 40;

    private static final int BURST_FACTOR = 5;

    private CaptureCounts() {}

    /** All of them, from counts by hours. */
    static int sum(Map<Long, Integer> density, ZonedDateTime from, ZonedDateTime to) {
        int sum = 0;
        for (long hour = Math.floorDiv(from.toEpochSecond(), 3600);
                hour < Math.floorDiv(to.toEpochSecond(), 3600);
                hour++) {
            sum += density.getOrDefault(hour, 0);
        }
        return sum;
    }

    /** As many as a capture usually has: the median, without first ones. */
    static long usual(List<CaptureRecord> captures) {
        long[] counts = captures.stream()
                .filter(c -> !c.first())
                .mapToLong(CaptureRecord::changes)
                .sorted()
                .toArray();
        return counts.length == 0 ? 0 : counts[counts.length / 2];
    }

    /** The largest capture, where that is unusually large; 0 otherwise. */
    static long burst(List<CaptureRecord> captures, ZonedDateTime from, ZonedDateTime to, long usual) {
        long largest = 0;
        for (CaptureRecord c : captures) {
            boolean inside = !c.ended().isBefore(from.toInstant()) && c.ended().isBefore(to.toInstant());
            if (inside && !c.first()) {
                largest = Math.max(largest, c.changes());
            }
        }
        return largest >= BURST && largest >= usual * BURST_FACTOR ? largest : 0;
    }
}
