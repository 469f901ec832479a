package org.mendedleaf.desktop.document;

import javafx.scene.Node;

/** A document or a difference on the screen: where somebody is in it can be asked for and gone back to. */
public interface DocumentView {

    /** What is shown. */
    Node node();

    /** How many changes can be gone to. */
    default int changes() {
        return 0;
    }

    /** Goes to a change, by its number from 1. */
    default void goTo(int change) {
        // Nothing to go to.
    }

    /**
     * Where somebody is.
     *
     * @param section the sheet or the slide; empty where there is none
     * @param row the first row that is seen, from 0
     * @param words of that row, by which it is found where others came or went before it
     */
    record Position(String section, int row, String words) {
        /** The beginning. */
        public static final Position START = new Position("", 0, "");
    }

    /** Where somebody is. */
    default Position position() {
        return Position.START;
    }

    /** Goes back to where somebody was, or as near as there is. */
    default void position(Position position) {
        // There is one place only.
    }

    /**
     * Goes to the next place that holds these words, from where the last search ended; the search begins anew after the end.
     *
     * @return whether there is one
     */
    default boolean find(String words) {
        return false;
    }

    /** Marks these words wherever they stand, and goes nowhere. */
    default void mark(String words) {
        // Nothing to mark.
    }

    /** Larger or smaller letters: 0 as they are, up to 4. */
    default void zoom(int step) {
        // The style of what is around it does it.
    }

    /** Whether there are formulas that could be shown instead of what they give. */
    default boolean hasFormulas() {
        return false;
    }

    /** Whether it is of pages, which can be shown as they are printed. */
    default boolean hasPages() {
        return false;
    }

    /** All of it as text. */
    default String whole() {
        return text();
    }

    /** What is selected, as text; all of it where nothing is. */
    default String text() {
        return "";
    }
}
