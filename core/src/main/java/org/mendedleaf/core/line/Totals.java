package org.mendedleaf.core.line;

/**
 * Sums over a folder and all below it, as it is now.
 *
 * @param files that are there
 * @param versions of them
 * @param size bytes of their current versions
 * @param versionBytes bytes of all their versions, each counted whole
 * @param newest when the last of them changed, microseconds; 0 when there are none
 */
public record Totals(long files, long versions, long size, long versionBytes, long newest) {}
