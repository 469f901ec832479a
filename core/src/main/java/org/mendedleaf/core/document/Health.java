package org.mendedleaf.core.document;

import com.fasterxml.jackson.annotation.JsonIgnore;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Whether a content is what its name says, and whole.
 *
 * @param reason what was found
 * @param detail more of it, such as the name of a damaged part, or the size of a picture; empty when there is none
 * @param kind what the content is
 * @param amount how much of it there is: rows, paragraphs, slides, pages, members, lines, or bytes, by kind
 * @param mass how much it says: letters of text, pixels of a picture, bytes of anything else
 * @param noise how little structure its bytes have: their entropy in hundredths of a bit a byte, 0 to 800 (C. E. Shannon, "A
 *     mathematical theory of communication", 1948)
 * @param head its first four bytes, as hexadecimal digits
 */
public record Health(Reason reason, String detail, Kind kind, long amount, long mass, int noise, String head) {

    /** Good, or not. */
    public enum State {
        /** It is what its name says, and whole. */
        GOOD,
        /** It can be read, and is not what was to be expected. */
        DOUBTFUL,
        /** It cannot be used as what its name says. */
        BROKEN,
        /** Nobody can tell. */
        UNKNOWN;

        /** In words. */
        public String words() {
            return Words.of("health." + this);
        }
    }

    /** What was found. */
    public enum Reason {
        /** Nothing is wrong with it. */
        WELL(State.GOOD),
        /** Nothing is in it. */
        EMPTY(State.DOUBTFUL),
        /** It is of another kind than its name says; {@code detail} is which. */
        OTHER_KIND(State.DOUBTFUL),
        /** It is structured text that breaks its own rules; {@code detail} is where. */
        DOES_NOT_PARSE(State.DOUBTFUL),
        /** All its bytes are the same. */
        ONE_BYTE(State.BROKEN),
        /** It does not open. */
        DOES_NOT_OPEN(State.BROKEN),
        /** A part of it has another checksum than it should have; {@code detail} is which. */
        CHECKSUM(State.BROKEN),
        /** Its end is missing. */
        CUT_SHORT(State.BROKEN),
        /** It should be text, and is none. */
        NOT_TEXT(State.BROKEN),
        /** It was not looked into; {@code detail} is why. */
        NOT_READ(State.UNKNOWN);

        private final State state;

        Reason(State state) {
            this.state = state;
        }
    }

    /** What a content is. */
    public enum Kind {
        /** Nothing. */
        EMPTY,
        /** Lines. */
        TEXT,
        /** Rows. */
        SHEETS,
        /** Paragraphs. */
        PROSE,
        /** Slides. */
        SLIDES,
        /** Pages. */
        PAGES,
        /** A message. */
        MAIL,
        /** A picture. */
        PICTURE,
        /** Members. */
        ARCHIVE,
        /** Anything else. */
        DATA;

        /** In words, with its article. */
        public String words() {
            return Words.of("health.kind." + this);
        }
    }

    /** One that could not be told. */
    public static Health notRead(String why) {
        return new Health(Reason.NOT_READ, why, Kind.DATA, 0, 0, 0, "");
    }

    /** Good, or not. */
    @JsonIgnore
    public State state() {
        return reason.state;
    }

    /** Whether it can be used as what its name says. */
    @JsonIgnore
    public boolean isGood() {
        return reason.state == State.GOOD;
    }

    /** Why, as a message. */
    public String words() {
        return switch (reason) {
            case WELL -> proof();
            case OTHER_KIND ->
                Words.of("health.reason.OTHER_KIND", Kind.valueOf(detail).words());
            default -> Words.of("health.reason." + reason, Words.told(detail));
        };
    }

    /** What shows that it can be used: {@code opens, 32 rows}. */
    public String proof() {
        return switch (kind) {
            case PICTURE -> Words.of("health.proof.PICTURE", detail);
            case DATA -> Words.of("health.proof.DATA", Formats.size(amount));
            default -> Words.of("health.proof." + kind, amount);
        };
    }
}
