package org.mendedleaf.core.journal;

/** What somebody did. */
public enum ActionKind {
    /** Earlier versions, or removed files, were brought back. */
    RESTORED(1),
    /** Files were removed. */
    REMOVED(2),
    /** An earlier action was undone. */
    UNDONE(3),
    /** A content was put in. */
    PUT(4),
    /** Versions were erased in another system. */
    ERASED(5),
    /** A snapshot was taken. */
    SNAPSHOT(6),
    /** A folder or files were rolled back to a moment. */
    ROLLED_BACK(7),
    /** Snapshots were erased; the item's line is the snapshot. */
    SNAPSHOT_ERASED(8);

    private final int code;

    ActionKind(int code) {
        this.code = code;
    }

    /** The number that stands for it in the catalogue. */
    public int code() {
        return code;
    }

    /** The kind with this number. */
    public static ActionKind of(int code) {
        return values()[code - 1];
    }
}
