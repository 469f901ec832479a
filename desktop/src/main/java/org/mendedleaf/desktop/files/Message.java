package org.mendedleaf.desktop.files;

/**
 * What is said below the screen after something was done.
 *
 * @param words what happened
 * @param offer what can be done about it
 * @param failed whether it is about something that did not work
 */
public record Message(String words, Offer offer, boolean failed) {
    static final Message NONE = new Message("", false, false);

    /** One that offers to undo, or nothing. */
    Message(String words, boolean undo, boolean failed) {
        this(words, undo ? Offer.UNDO : Offer.NOTHING, failed);
    }

    /** Whether it can be undone. */
    public boolean undo() {
        return offer == Offer.UNDO;
    }
}
