package org.mendedleaf.core.capture;

import java.util.List;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What a capture did.
 *
 * @param added files that were not there before
 * @param changed files with a new version
 * @param moved files with a new name or folder
 * @param removed files that are gone
 * @param seen files that were looked at in all
 * @param bytes that were read
 * @param troubles what could not be captured, and why; chosen exclusions are not among them
 * @param cancelled whether somebody stopped it before its end
 * @param names of the first {@link #NAMED} files that got a point, as paths in their place
 */
public record CaptureResult(
        long added,
        long changed,
        long moved,
        long removed,
        long seen,
        long bytes,
        List<Skipped> troubles,
        boolean cancelled,
        List<String> names) {

    /** So many files are named. */
    public static final int NAMED = 20;

    /** Copies the lists. */
    public CaptureResult {
        troubles = List.copyOf(troubles);
        names = List.copyOf(names);
    }

    /** What was done, in one line. */
    public String words(Place place) {
        return points() == 0
                ? Words.of("cli.capture.same", place.name(), seen)
                : Words.of("cli.capture.done", place.name(), added, changed, moved, removed, Formats.size(bytes));
    }

    /** Number of points added to lines. */
    public long points() {
        return added + changed + moved + removed;
    }
}
