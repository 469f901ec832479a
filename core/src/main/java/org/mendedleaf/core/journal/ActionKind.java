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
    SNAPSHOT_ERASED(8),
    /** Scattered copies became versions of one file. */
    FOLDED(9),
    /** Safety copies that programs had left were taken in. */
    ADOPTED(10),
    /** A draft became a published version. */
    PUBLISHED(11),
    /** A file was checked out. */
    CHECKED_OUT(12),
    /** A file was checked in. */
    CHECKED_IN(13),
    /** A check-out was given up, or ended by an owner. */
    CHECK_OUT_ENDED(14),
    /** Notes of versions were changed. */
    NOTED(15),
    /** Settings or members of a place were changed. */
    SETTINGS(16),
    /** Versions that rules no longer keep were let go. */
    THINNED(17),
    /** Somebody let versions go. */
    LET_GO(18),
    /** An undoing was taken back. */
    REDONE(19),
    /** What a finding said was mended. */
    MENDED(20);

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
