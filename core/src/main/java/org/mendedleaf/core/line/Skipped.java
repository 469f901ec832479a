package org.mendedleaf.core.line;

import java.time.Instant;
import org.mendedleaf.core.words.Words;

/**
 * Something in a protected folder that is not kept.
 *
 * @param path from the place's root
 * @param reason why not
 * @param detail the pattern, or what the system said; may be empty
 * @param since when this was first seen
 */
public record Skipped(String path, Reason reason, String detail, Instant since) {

    /** Why it is not kept, as a message. */
    public String words() {
        String words = Words.of("skipped." + reason.name());
        return detail.isEmpty() ? words : words + " (" + detail + ")";
    }

    /** Why something is not kept. */
    public enum Reason {
        /** A pattern leaves it out. */
        LEFT_OUT(1),
        /** We may not read it. */
        NO_PERMISSION(2),
        /** It changed each time it was read; the next capture tries again. */
        BUSY(3),
        /** It is no file, folder or link: a pipe, a socket, a device. */
        SPECIAL(4),
        /** The system reported an error. */
        UNREADABLE(5),
        /** Its name, or what it links to, is no text in UTF-8. */
        NAME(6),
        /** It lies deeper than folders are followed. */
        TOO_DEEP(7),
        /** It is a folder with more names than are followed. */
        TOO_MANY(8),
        /** Another system does not take it. */
        NOT_TAKEN(9);

        private final int code;

        Reason(int code) {
            this.code = code;
        }

        /** The number that stands for it in the catalogue. */
        public int code() {
            return code;
        }

        /** The reason with this number. */
        public static Reason of(int code) {
            return values()[code - 1];
        }

        /** Whether it is a gap that somebody should know of, not something that was chosen. */
        public boolean isTrouble() {
            return this != LEFT_OUT && this != SPECIAL;
        }
    }
}
