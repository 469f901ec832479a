package org.mendedleaf.core.line;

/**
 * Sums over a folder and all below it, as it was at a moment.
 *
 * @param files that were there
 * @param versions of them, all until today
 * @param size bytes of the versions that were current then
 * @param versionBytes bytes of all their versions until today, each counted whole
 * @param newest when the last of them had changed, microseconds; 0 when there are none
 */
public record Totals(long files, long versions, long size, long versionBytes, long newest) {}
