package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Totals;

/**
 * One row of the listing.
 *
 * @param entry what the folder held
 * @param path from the place's root
 * @param totals sums of a folder and all below it; empty for a file
 * @param against how it stands to now, when the past is looked at
 * @param since what became since of the files of a folder, when the past is looked at
 */
public record FileRow(Entry entry, String path, Optional<Totals> totals, Change against, ChangesSince since) {

    /** How something of the past stands to now. */
    public enum Change {
        /** It is the same, or now is looked at. */
        SAME,
        /** The file has another content now. */
        CHANGED,
        /** It was removed since. */
        REMOVED,
        /** It was renamed or moved since. */
        MOVED,
        /** It was not there then. */
        ADDED
    }

    /** Whether it is a folder. */
    public boolean isFolder() {
        return entry.kind() == EntryKind.FOLDER;
    }

    /** Whether it was removed at the moment that is looked at. */
    public boolean isRemoved() {
        return entry.removed().isPresent();
    }

    /** Whether it was not there at the moment that is looked at. */
    public boolean isAdded() {
        return against == Change.ADDED;
    }

    long versions() {
        return totals.map(Totals::versions).orElse((long) entry.versions());
    }

    long size() {
        return totals.map(Totals::size).orElse(entry.size());
    }

    long versionBytes() {
        return totals.map(Totals::versionBytes).orElse(entry.versionBytes());
    }

    Instant changed() {
        if (isRemoved()) {
            return entry.removed().get().at();
        }
        return totals.map(Totals::newest)
                .filter(m -> m > 0)
                .map(org.mendedleaf.core.time.Moment::instant)
                .orElse(entry.changed());
    }
}
