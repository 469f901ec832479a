package org.mendedleaf.core.capture;

import java.time.Duration;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/**
 * Decides when heard changes are captured: once it has been quiet for a while, so that a program is through with saving,
 * but not later than a longest time after the first. Pure: moments are handed in, in nanoseconds of any clock.
 */
final class QuietTime {

    private final long quietNanos;
    private final long longestNanos;
    private final Set<String> folders = new HashSet<>();
    private boolean everything;
    private long first;
    private long last;

    QuietTime(Duration quiet, Duration longest) {
        this.quietNanos = quiet.toNanos();
        this.longestNanos = longest.toNanos();
    }

    void changed(String folder, long now) {
        note(now);
        folders.add(folder);
    }

    void lost(long now) {
        note(now);
        everything = true;
    }

    private void note(long now) {
        if (folders.isEmpty() && !everything) {
            first = now;
        }
        last = now;
    }

    /** What to capture now, if it is time; afterwards nothing is waiting. */
    Optional<CaptureScope> due(long now) {
        boolean waiting = everything || !folders.isEmpty();
        if (!waiting || (now - last < quietNanos && now - first < longestNanos)) {
            return Optional.empty();
        }
        CaptureScope scope = everything ? CaptureScope.WHOLE : new CaptureScope.Folders(folders);
        folders.clear();
        everything = false;
        return Optional.of(scope);
    }

    /** How long it takes from now, in nanoseconds, until something is due when nothing more is heard; no more than a given time. */
    long until(long now, long most) {
        if (!everything && folders.isEmpty()) {
            return most;
        }
        long left = Math.min(last + quietNanos, first + longestNanos) - now;
        return Math.max(0, Math.min(left, most));
    }

    /** Puts back what could not be captured. */
    void again(CaptureScope scope, long now) {
        if (scope instanceof CaptureScope.Folders some) {
            some.paths().forEach(p -> changed(p, now));
        } else {
            lost(now);
        }
    }
}
