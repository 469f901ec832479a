package org.mendedleaf.core.line;

import java.time.Instant;

/**
 * A file that somebody took to work on it alone.
 *
 * @param line the file's line
 * @param who has it
 * @param since when
 * @param number of the version that was current then
 */
public record CheckOut(long line, String who, Instant since, int number) {}
