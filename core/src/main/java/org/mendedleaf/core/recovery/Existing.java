package org.mendedleaf.core.recovery;

import java.util.Optional;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.vault.Digest;

/**
 * What is at a path before a restore.
 *
 * @param kind file, link or folder
 * @param digest of its content, when the vault has it; empty when nobody keeps it
 * @param line it belongs to; 0 when none
 */
public record Existing(EntryKind kind, Optional<Digest> digest, long line) {

    /** What stands for a path that cannot be, since something in it that should be a folder is none. */
    static final Existing BLOCKED = new Existing(EntryKind.FOLDER, Optional.empty(), -1);
}
