package org.mendedleaf.core.line;

/** What happened to a file without giving it a new content. */
public enum EventKind {
    /** It got another name in the same folder. */
    RENAMED(1),
    /** It went to another folder. */
    MOVED(2),
    /** It is gone from its folder. */
    REMOVED(3),
    /** It is there, and no longer kept, since a pattern leaves it out. */
    LEFT_OUT(4),
    /** A draft became a published version. */
    PUBLISHED(5),
    /** Somebody took the file to work on it alone. */
    CHECKED_OUT(6),
    /** Who had it handed it back with what was done. */
    CHECKED_IN(7),
    /** Who had it gave it up; what was done stays as drafts. */
    GIVEN_UP(8),
    /** An owner ended it for who had it. */
    CHECK_OUT_ENDED(9);

    private final int code;

    EventKind(int code) {
        this.code = code;
    }

    /** The number that stands for it in the catalogue. */
    public int code() {
        return code;
    }

    /** The kind with this number. */
    public static EventKind of(int code) {
        return values()[code - 1];
    }
}
