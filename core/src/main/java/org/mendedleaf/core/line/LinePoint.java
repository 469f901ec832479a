package org.mendedleaf.core.line;

import java.time.Instant;

/** A point on a line: a version, or something that happened to the file. */
public sealed interface LinePoint permits Version, Event {

    /** When it happened, as exactly as capture knows. */
    Instant at();

    /** Who did it, as far as known. */
    String who();
}
