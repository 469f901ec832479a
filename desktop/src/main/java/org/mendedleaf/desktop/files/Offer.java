package org.mendedleaf.desktop.files;

/** What is offered beside a message. */
public enum Offer {
    /** Nothing. */
    NOTHING,
    /** To undo what was done. */
    UNDO,
    /** To take the undoing back. */
    REDO
}
