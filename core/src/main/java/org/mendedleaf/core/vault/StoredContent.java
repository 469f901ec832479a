package org.mendedleaf.core.vault;

import org.jspecify.annotations.Nullable;

/**
 * A content as it stands in the vault.
 *
 * @param recipe how it is put together
 * @param length bytes
 * @param digest its {@link ContentDigest}
 * @param sha256 its plain SHA-256, when that was known without further work; otherwise null and computed on demand
 */
public record StoredContent(
        Recipe recipe, long length, Digest digest, @Nullable Digest sha256) {}
