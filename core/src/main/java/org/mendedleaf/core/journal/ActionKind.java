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
    SNAPSHOT(6);

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
