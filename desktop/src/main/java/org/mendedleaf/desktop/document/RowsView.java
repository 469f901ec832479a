package org.mendedleaf.desktop.document;

import java.util.List;
import java.util.function.Function;
import java.util.function.ToIntFunction;
import javafx.scene.Node;
import javafx.scene.control.ListView;

/** A document or a difference whose rows stand in a list: its changes are gone to, its words looked for and given out. */
abstract class RowsView<R> implements DocumentView {

    final ListView<R> list;
    final RowWords<R> rowWords;
    private final ToIntFunction<R> change;
    private final int changes;

    /**
     * A list of these rows.
     *
     * @param style of the list
     * @param text what a row says
     * @param change the number of the change that a row belongs to, from 1; 0 for none
     * @param changes how many there are
     */
    RowsView(List<R> rows, String style, Function<R, String> text, ToIntFunction<R> change, int changes) {
        this.change = change;
        this.changes = changes;
        list = ScrollPosition.list(rows, style, "look-list");
        rowWords = new RowWords<>(list, text);
    }

    @Override
    public final Node node() {
        return list;
    }

    @Override
    public final int changes() {
        return changes;
    }

    @Override
    public final void goTo(int number) {
        for (int i = 0; i < list.getItems().size(); i++) {
            if (change.applyAsInt(list.getItems().get(i)) == number) {
                list.getSelectionModel().clearAndSelect(i);
                ScrollPosition.show(list, i, 2);
                return;
            }
        }
    }

    @Override
    public final boolean find(String words) {
        return rowWords.find(words);
    }

    @Override
    public final void mark(String words) {
        rowWords.mark(words);
    }

    @Override
    public final String whole() {
        return rowWords.whole();
    }

    @Override
    public final String text() {
        return rowWords.selected();
    }
}
