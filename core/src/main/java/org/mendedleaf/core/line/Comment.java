package org.mendedleaf.core.line;

import java.time.Instant;

/**
 * What somebody said of a version, beside its note.
 *
 * @param id in its vault; 0 before it is stored
 * @param line of the version
 * @param number of the version
 * @param at when it was said
 * @param who said it
 * @param words that were said
 */
public record Comment(long id, long line, int number, Instant at, String who, String words) {}
