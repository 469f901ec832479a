/**
 * Whether a vault is whole: packs, chunks, versions and catalogue are held against each other ({@link VaultCheck}), what is
 * damaged is named with the versions it costs ({@link DamagedChunks}), and a catalogue is made again from the packs ({@link
 * Rebuild}). It repairs no packs: that is {@code systems}, which knows the copies. Start reading at {@link VaultCheck}.
 */
package org.mendedleaf.core.check;
