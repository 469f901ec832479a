package org.mendedleaf.core.line;

/**
 * What a vault holds and takes.
 *
 * @param lines files with a past
 * @param versions of all of them
 * @param versionBytes bytes of all versions, each counted whole
 * @param storedBytes bytes that the packs take
 */
public record Space(long lines, long versions, long versionBytes, long storedBytes) {}
