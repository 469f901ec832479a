package org.mendedleaf.core.vault;

import org.jspecify.annotations.Nullable;

/**
 * A content as it stands in the vault.
 *
 * @param recipe how it is put together
 * @param length bytes
 * @param digest its {@link ContentDigest}
 * @param sha256 its plain SHA-256, when that was known without further work; otherwise null and computed on demand
 * @param mayUnfold whether it is an archive that is stored as it is: it can perhaps be unfolded
 */
public record StoredContent(
        Recipe recipe, long length, Digest digest, @Nullable Digest sha256, boolean mayUnfold) {

    /** A content that was stored before. */
    public StoredContent(Recipe recipe, long length, Digest digest, @Nullable Digest sha256) {
        this(recipe, length, digest, sha256, Unfolder.mayUnfold(recipe, length));
    }
}
