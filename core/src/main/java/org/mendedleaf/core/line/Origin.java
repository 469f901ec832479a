package org.mendedleaf.core.line;

/** How a version came into its line. */
public enum Origin {
    /** It was there when its folder was first captured. */
    FOUND(1),
    /** Somebody saved it in the folder. */
    SAVED(2),
    /** An earlier version was made the current one again. */
    RESTORED(3),
    /** The file came back to the folder after it had been gone. */
    RETURNED(4),
    /** It was put into another system. */
    UPLOADED(5),
    /** A backup run copied it. */
    BACKED_UP(6),
    /** It was found on a server when that was looked at. */
    SERVED(7),
    /** It was the content of a scattered copy that was folded into this line. */
    FOLDED(8),
    /** It was the content of a safety copy that a program had left. */
    ADOPTED(9);

    private final int code;

    Origin(int code) {
        this.code = code;
    }

    /** The number that stands for it in the catalogue. */
    public int code() {
        return code;
    }

    /** The origin with this number. */
    public static Origin of(int code) {
        return values()[code - 1];
    }
}
