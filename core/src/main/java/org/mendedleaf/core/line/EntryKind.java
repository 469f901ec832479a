package org.mendedleaf.core.line;

/** What a name in a folder stands for. */
public enum EntryKind {
    /** An ordinary file with content. */
    FILE(1),
    /** A symbolic link; its content is the target as text, and it is never followed. */
    LINK(2),
    /** A folder. */
    FOLDER(3);

    private final int code;

    EntryKind(int code) {
        this.code = code;
    }

    /** The number that stands for it in the catalogue. */
    public int code() {
        return code;
    }

    /** The kind with this number. */
    public static EntryKind of(int code) {
        return values()[code - 1];
    }
}
