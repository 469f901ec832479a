package org.mendedleaf.desktop.document;

import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;

/** The words of a document or a difference whose rows stand in a list: looked for, marked, selected and given out. */
final class RowWords<R> {

    private final ListView<R> list;
    private final Function<R, String> text;
    private final TextSelection<R> letters;
    private String found = "";

    /**
     * The words of these rows.
     *
     * @param text what a row says
     */
    RowWords(ListView<R> list, Function<R, String> text) {
        this.list = list;
        this.text = text;
        this.letters = TextSelection.in(list, text);
    }

    /** What is marked where it stands, in small letters; empty for nothing. */
    String found() {
        return found;
    }

    /** A cell shows its row anew, and what is selected in it. */
    void shows(ListCell<R> cell) {
        letters.shows(cell);
    }

    /** Goes to the next row with these words, and marks them wherever they stand; whether there is one. */
    boolean find(String words) {
        boolean is = ScrollPosition.find(list, words, text);
        mark(words);
        return is;
    }

    /** Marks these words wherever they stand. */
    void mark(String words) {
        found = words.toLowerCase(Locale.ROOT);
        list.refresh();
    }

    /** All of it. */
    String whole() {
        return ScrollPosition.text(list.getItems(), List.of(), text);
    }

    /** What is selected: letters, or else rows; all of it when nothing is. */
    String selected() {
        String selected = letters.text();
        return !selected.isEmpty()
                ? selected
                : ScrollPosition.text(list.getItems(), list.getSelectionModel().getSelectedIndices(), text);
    }
}
