package org.mendedleaf.core.line;

import java.util.Optional;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

/**
 * What a file was at some moment: its content and what the file system says of it.
 *
 * @param kind file or link
 * @param size bytes
 * @param mtimeNanos modified time of the file, nanoseconds since 1970
 * @param mode permission bits, as in POSIX
 * @param digest of the content, see {@code ContentDigest}
 * @param sha256 plain SHA-256, when it was computed already
 * @param recipe where the bytes are
 */
public record FileState(
        EntryKind kind, long size, long mtimeNanos, int mode, Digest digest, Optional<Digest> sha256, Recipe recipe) {

    /** The same content with another modified time and other permissions. */
    public FileState with(long otherMtimeNanos, int otherMode) {
        return new FileState(kind, size, otherMtimeNanos, otherMode, digest, sha256, recipe);
    }

    /** Whether the contents are known to be the same. */
    public boolean sameContent(FileState other) {
        return digest.equals(other.digest) || (sha256.isPresent() && sha256.equals(other.sha256));
    }
}
