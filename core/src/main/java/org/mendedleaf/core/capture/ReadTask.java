package org.mendedleaf.core.capture;

import java.io.IOException;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.vault.StoredContent;

/**
 * A file whose content has to be read.
 *
 * @param folder the folder's part of the work
 * @param seen what the scan saw
 * @param live what the catalogue holds under that name; null for a name that is new
 */
record ReadTask(FolderWork folder, SeenName seen, @Nullable LiveEntry live) {

    String path() {
        return org.mendedleaf.core.disk.RelativePath.child(folder.path(), seen.name());
    }

    /**
     * What came of reading it.
     *
     * @param task the task
     * @param outcome how it went
     * @param content what was stored; null unless it went well
     * @param entry what the file was when it was read
     * @param owner of the file
     * @param settled whether its time is old enough that a change right after the reading would show
     * @param error what went wrong; null when nothing did
     */
    record Result(
            ReadTask task,
            Outcome outcome,
            @Nullable StoredContent content,
            DiskEntry entry,
            String owner,
            boolean settled,
            @Nullable IOException error) {

        Optional<StoredContent> stored() {
            return Optional.ofNullable(content);
        }
    }

    /** How reading went. */
    enum Outcome {
        /** Its content is in the vault. */
        STORED,
        /** It was gone when its turn came. */
        VANISHED,
        /** It changed during each of three readings. */
        BUSY,
        /** We may not read it. */
        NO_PERMISSION,
        /** What it links to is no text. */
        NO_TEXT,
        /** The system reported an error about it. */
        UNREADABLE,
        /** The vault could not take it; the capture ends. */
        VAULT_FAILED
    }
}
