package org.mendedleaf.core.line;

import java.time.Instant;

/**
 * Something that happened to a file without giving it a new content.
 *
 * @param line the line it belongs to
 * @param at when
 * @param who did it, as far as known
 * @param kind what happened
 * @param from path before, from the place's root
 * @param to path after; the same as {@code from} when it was removed
 * @param number of the version that was current
 */
public record Event(long line, Instant at, String who, EventKind kind, String from, String to, int number)
        implements LinePoint {}
