package org.mendedleaf.desktop.document;

import java.text.BreakIterator;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.shape.Path;
import javafx.scene.text.TextFlow;
import org.jspecify.annotations.Nullable;

/**
 * Selecting letters in a list of texts, over its rows: by dragging, by Shift and a click, a word by a double click, a paragraph by
 * three. What stands side by side is selected on one side, where the selection begins and ends on the same.
 *
 * @param <T> of the rows
 */
final class TextSelection<T> {

    /** A tab is as wide as so many letters, see {@link ChangeMarks#flow}. */
    private static final String TAB = "    ";

    private static final double EDGE = 16;

    private final ListView<T> list;
    private final Function<T, String> whole;
    private final Map<Integer, List<String>> seen = new HashMap<>();
    private @Nullable Place anchor;
    private @Nullable Place focus;
    private boolean dragging;

    /** Before a letter of a text: the row, which of its texts, and how many letters stand before it. */
    private record Place(int row, int text, int letter) {
        boolean isBefore(Place other) {
            return row != other.row ? row < other.row : text != other.text ? text < other.text : letter < other.letter;
        }
    }

    private TextSelection(ListView<T> list, Function<T, String> whole) {
        this.list = list;
        this.whole = whole;
    }

    /**
     * Lets letters be selected in a list whose cells hold texts made by {@link ChangeMarks#flow}.
     *
     * @param whole the words of a row that was never shown
     */
    static <T> TextSelection<T> in(ListView<T> list, Function<T, String> whole) {
        TextSelection<T> letters = new TextSelection<>(list, whole);
        list.addEventFilter(MouseEvent.MOUSE_PRESSED, letters::pressed);
        list.addEventFilter(MouseEvent.MOUSE_DRAGGED, letters::dragged);
        list.addEventFilter(MouseEvent.MOUSE_RELEASED, e -> letters.dragging = false);
        list.getSelectionModel().selectedIndexProperty().addListener((o, a, row) -> {
            if (row.intValue() >= 0 && !letters.dragging) {
                // Rows are selected now, by a key or by what was found.
                letters.clear();
            }
        });
        return letters;
    }

    /** What is selected; empty when no letters are. */
    String text() {
        Place from = first();
        Place to = last();
        if (from == null || to == null) {
            return "";
        }
        StringBuilder all = new StringBuilder();
        for (int row = from.row(); row <= to.row(); row++) {
            List<String> texts =
                    seen.getOrDefault(row, List.of(whole.apply(list.getItems().get(row))));
            List<String> parts = new ArrayList<>();
            for (int i = 0; i < texts.size(); i++) {
                int begin = begin(row, i, from, to);
                int end = end(row, i, from, to, shown(texts.get(i)).length());
                if (begin < end) {
                    parts.add(part(texts.get(i), begin, end));
                }
            }
            all.append(row == from.row() ? "" : "\n").append(String.join("\t", parts));
        }
        return all.toString();
    }

    private void clear() {
        anchor = null;
        focus = null;
        draw();
    }

    private @Nullable Place first() {
        return anchor == null || focus == null || anchor.equals(focus) ? null : anchor.isBefore(focus) ? anchor : focus;
    }

    private @Nullable Place last() {
        return anchor == null || focus == null || anchor.equals(focus) ? null : anchor.isBefore(focus) ? focus : anchor;
    }

    /** Of rows with a text on each side, only the side counts on which it begins and ends. */
    private static boolean counts(int row, int text, Place from, Place to) {
        boolean column = from.row() != to.row() && from.text() == to.text();
        return row >= from.row()
                && row <= to.row()
                && (!column || text == from.text())
                && (row != from.row() || text >= from.text())
                && (row != to.row() || text <= to.text());
    }

    private static int begin(int row, int text, Place from, Place to) {
        return !counts(row, text, from, to)
                ? Integer.MAX_VALUE
                : row == from.row() && text == from.text() ? from.letter() : 0;
    }

    private static int end(int row, int text, Place from, Place to, int length) {
        return !counts(row, text, from, to) ? 0 : row == to.row() && text == to.text() ? to.letter() : length;
    }

    private static String shown(String text) {
        return text.replace("\t", TAB);
    }

    /** From a letter to another, counted as they are shown, with its tabs. */
    private static String part(String text, int begin, int end) {
        StringBuilder part = new StringBuilder();
        int at = 0;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (at >= begin && at < end) {
                part.append(c);
            }
            at += c == '\t' ? TAB.length() : 1;
        }
        return part.toString();
    }

    /** A cell shows a row now: what is selected in it is drawn, and drawn again when it gets another width. */
    void shows(ListCell<T> cell) {
        int row = cell.getIndex();
        List<TextFlow> flows = flows(cell);
        List<String> texts = new ArrayList<>();
        for (TextFlow flow : flows) {
            texts.add(String.valueOf(flow.getUserData()));
            flow.layoutBoundsProperty().addListener((o, a, b) -> draw(cell));
        }
        if (row >= 0 && !flows.isEmpty()) {
            seen.put(row, texts);
        }
        draw(cell);
    }

    private static List<TextFlow> flows(Parent within) {
        List<TextFlow> found = new ArrayList<>();
        for (Node child : within.getChildrenUnmodifiable()) {
            if (child instanceof TextFlow flow && flow.getStyleClass().contains(ChangeMarks.FLOW)) {
                found.add(flow);
            } else if (child instanceof Parent parent) {
                found.addAll(flows(parent));
            }
        }
        return found;
    }

    private void draw() {
        list.lookupAll(".list-cell").forEach(n -> {
            if (n instanceof ListCell<?> cell) {
                draw(cell);
            }
        });
    }

    private void draw(ListCell<?> cell) {
        List<TextFlow> flows = flows(cell);
        Place from = first();
        Place to = last();
        for (int i = 0; i < flows.size(); i++) {
            TextFlow flow = flows.get(i);
            flow.getChildren().removeIf(n -> n instanceof Path);
            if (from == null || to == null || cell.isEmpty()) {
                continue;
            }
            int begin = begin(cell.getIndex(), i, from, to);
            int end = end(cell.getIndex(), i, from, to, length(flow));
            if (begin < end) {
                Path shape = new Path(flow.rangeShape(begin, end));
                shape.setManaged(false);
                shape.setMouseTransparent(true);
                shape.getStyleClass().add("letters");
                flow.getChildren().add(0, shape);
            }
        }
    }

    private static int length(TextFlow flow) {
        return shown(String.valueOf(flow.getUserData())).length();
    }

    private static <N> @Nullable N above(@Nullable Node node, Class<N> kind) {
        Node at = node;
        while (at != null && !kind.isInstance(at)) {
            at = at.getParent();
        }
        return kind.cast(at);
    }

    /** Where the mouse is; null where there is no text. */
    private @Nullable Place place(MouseEvent e) {
        Node under = e.getPickResult().getIntersectedNode();
        ListCell<?> cell = above(under, ListCell.class);
        if (cell == null || cell.isEmpty() || cell.getListView() != list) {
            return null;
        }
        List<TextFlow> flows = flows(cell);
        TextFlow flow = above(under, TextFlow.class);
        int at = flow == null ? -1 : flows.indexOf(flow);
        for (int i = 0; at < 0 && i < flows.size(); i++) {
            // Beside the text: of the one that is nearest before.
            Point2D point = flows.get(i).sceneToLocal(e.getSceneX(), e.getSceneY());
            at = point.getX() >= 0 || i == 0 ? i : at;
        }
        if (at < 0) {
            return null;
        }
        TextFlow hit = flows.get(at);
        Point2D point = hit.sceneToLocal(e.getSceneX(), e.getSceneY());
        int letter = Math.max(0, Math.min(length(hit), hit.hitTest(point).getInsertionIndex()));
        return new Place(cell.getIndex(), at, letter);
    }

    private void pressed(MouseEvent e) {
        Place at = place(e);
        dragging = false;
        if (e.getButton() != MouseButton.PRIMARY || at == null) {
            return;
        }
        if (e.isShiftDown() && anchor != null) {
            focus = at;
            list.getSelectionModel().clearSelection();
            list.requestFocus();
            e.consume();
        } else if (e.getClickCount() == 1) {
            anchor = at;
            focus = at;
            dragging = true;
        } else {
            List<String> texts = seen.getOrDefault(at.row(), List.of());
            String text = at.text() < texts.size() ? shown(texts.get(at.text())) : "";
            boolean all = e.getClickCount() > 2;
            anchor = new Place(at.row(), at.text(), all ? 0 : wordBegin(text, at.letter()));
            focus = new Place(at.row(), at.text(), all ? text.length() : wordEnd(text, at.letter()));
        }
        draw();
    }

    private static int wordBegin(String text, int at) {
        BreakIterator words = BreakIterator.getWordInstance();
        words.setText(text);
        return at >= text.length()
                ? Math.max(0, words.preceding(text.length()))
                : words.isBoundary(at) ? at : Math.max(0, words.preceding(at));
    }

    private static int wordEnd(String text, int at) {
        BreakIterator words = BreakIterator.getWordInstance();
        words.setText(text);
        return at >= text.length() ? text.length() : words.following(at);
    }

    private void dragged(MouseEvent e) {
        if (!dragging || anchor == null) {
            return;
        }
        Place at = place(e);
        if (at != null) {
            focus = at;
        }
        if (e.getY() < EDGE) {
            list.scrollTo(Math.max(0, ScrollPosition.first(list) - 1));
        } else if (e.getY() > list.getHeight() - EDGE) {
            list.scrollTo(Math.min(list.getItems().size() - 1, ScrollPosition.first(list) + 1));
        }
        if (!anchor.equals(focus)) {
            list.getSelectionModel().clearSelection();
            list.requestFocus();
            e.consume();
        }
        draw();
    }
}
