package org.mendedleaf.core.line;

/**
 * What the file system says of a file, beside its content.
 *
 * @param kind file, link or folder
 * @param size bytes
 * @param mtimeNanos modified time, nanoseconds since 1970
 * @param mode permission bits, as in POSIX
 * @param who its owner, as far as known
 */
public record FileAttributes(EntryKind kind, long size, long mtimeNanos, int mode, String who) {}
