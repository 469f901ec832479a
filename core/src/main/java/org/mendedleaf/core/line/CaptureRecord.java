package org.mendedleaf.core.line;

import java.time.Instant;

/**
 * A capture that changed something.
 *
 * @param started when it began
 * @param ended when it was through
 * @param first whether it was the first of its place
 * @param changes number of points it added
 * @param bytes of the contents it read
 */
public record CaptureRecord(Instant started, Instant ended, boolean first, long changes, long bytes) {}
