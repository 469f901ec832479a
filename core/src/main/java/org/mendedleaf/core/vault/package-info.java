/**
 * Bytes: how contents are cut, compressed, stored in packs, read, checked and healed, and the lock of the one who writes. The
 * format is in {@code docs/vault-format.md}. It knows nothing of files and people. Start reading at {@link VaultFolder} and
 * {@link ContentCutter}.
 */
package org.mendedleaf.core.vault;
