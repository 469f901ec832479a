package org.mendedleaf.core.capture;

import org.mendedleaf.core.disk.DiskEntry;

/**
 * A name that a scan saw in a folder.
 *
 * @param name in the folder
 * @param entry what it was; for a name that is not kept, only the type means something
 * @param skip why it is not kept; {@link Skip#NONE} when it is
 */
record SeenName(String name, DiskEntry entry, Skip skip) {

    /**
     * Why a name is not kept.
     *
     * @param code of the reason as in {@code Skipped.Reason}, 0 for none
     * @param detail the pattern, or what the system said
     */
    record Skip(int code, String detail) {
        static final Skip NONE = new Skip(0, "");
    }

    boolean isKept() {
        return skip.code() == 0;
    }
}
