package org.mendedleaf.desktop.document;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** A document or a difference large, with the ways through it: change by change, words that are looked for, larger letters. */
public final class DocumentPane extends BorderPane {

    /** From so much space on, two points stand side by side. */
    private static final double WIDE = 820;

    private static final int ZOOM_MOST = 4;

    private final Label words = Ui.label("", "detail-words");
    private final Label place = Ui.label("", "dim");
    private final CheckBox only = new CheckBox(Words.of("reading.only"));
    private final CheckBox formulas = new CheckBox(Words.of("reading.formulas"));
    private final CheckBox pages = new CheckBox(Words.of("reading.pages"));
    private final Button back;
    private final Button on;
    private final TextField find = new TextField();
    private final StackPane body = new StackPane();
    private final HBox changeBar;
    private Maker maker = choices -> Shown.of(DocumentViews.message(""), "");
    private @Nullable DocumentView look;
    private int change;
    private int zoom;
    private String toFind = "";
    private String wordsOfShown = "";
    private String marked = "";

    /**
     * What is to be shown.
     *
     * @param look of it; null when {@code node} is all
     * @param node that is shown
     * @param words about it, above
     * @param compared whether it is a difference
     */
    public record Shown(@Nullable DocumentView look, Node node, String words, boolean compared) {

        /** A document, or a message. */
        public static Shown of(DocumentView look, String words) {
            return new Shown(look, look.node(), words, false);
        }

        /** A difference. */
        public static Shown compared(DocumentView look, String words) {
            return new Shown(look, look.node(), words, true);
        }
    }

    /** Makes what is to be shown, anew whenever somebody chooses to see it in another way. */
    @FunctionalInterface
    public interface Maker {
        /** What is shown, made anew whenever somebody chooses how. */
        Shown make(DocumentViews.Choices choices);
    }

    /** An empty pane; the ids of its parts begin with this word. */
    public DocumentPane(String id) {
        back = Ui.iconButton(Feather.CHEVRON_UP, "reading.back", () -> toChange(change - 1));
        back.setId(id + "-back");
        on = Ui.iconButton(Feather.CHEVRON_DOWN, "reading.on", () -> toChange(change + 1));
        on.setId(id + "-on");
        only.setId(id + "-only");
        only.setSelected(true);
        only.selectedProperty().addListener((o, a, b) -> again());
        formulas.setId(id + "-formulas");
        formulas.selectedProperty().addListener((o, a, b) -> again());
        pages.setId(id + "-pages");
        pages.selectedProperty().addListener((o, a, b) -> again());
        changeBar = new HBox(8, place, back, on, only);
        changeBar.setAlignment(Pos.CENTER_LEFT);
        HBox said = new HBox(12, words, Ui.spacer(), formulas, pages, changeBar);
        said.setAlignment(Pos.CENTER_LEFT);
        said.getStyleClass().add("look-bar");
        for (Region fixed : List.of(formulas, pages, only, place)) {
            fixed.setMinWidth(USE_PREF_SIZE);
        }
        words.setMinWidth(0);
        find.setId(id + "-find");
        find.setPromptText(Words.of("reading.find"));
        find.setAccessibleText(Words.of("reading.find"));
        find.setOnAction(e -> findNext());
        // Who types other words is not led to the earlier ones any more.
        find.setOnKeyTyped(e -> {
            toFind = "";
            marked = "";
        });
        find.setPrefColumnCount(16);
        body.setMinSize(0, 0);
        setTop(said);
        setCenter(body);
        body.widthProperty().addListener((o, a, w) -> {
            if ((a.doubleValue() > WIDE) != (w.doubleValue() > WIDE)) {
                again();
            }
        });
    }

    /** The box in which words are typed that shall be found in what is shown; it stands where its owner puts it. */
    public TextField findField() {
        return find;
    }

    /** Goes to these words in what is shown next. */
    public void find(String text) {
        find.setText(text);
        toFind = text;
    }

    /** Prints what is shown; what became of it is said above. */
    public void print(String title) {
        DocumentView shown = look;
        if (shown != null && getScene() != null) {
            String said = Printing.print(getScene().getWindow(), title, shown);
            say(said.isEmpty() ? words.getText() : said);
        }
    }

    /** Says something above what is shown, until something else is shown; the same that is shown anew is nothing else. */
    public void say(String text) {
        words.setText(text);
    }

    /**
     * Shows something.
     *
     * @param stay whether it is the same kind of thing as before, in which somebody stays where he is
     */
    public void show(Maker what, boolean stay) {
        maker = what;
        DocumentView before = look;
        DocumentView.Position at = before == null ? DocumentView.Position.START : before.position();
        Shown shown = what.make(new DocumentViews.Choices(
                body.getWidth() > WIDE, only.isSelected(), formulas.isSelected(), pages.isSelected()));
        look = shown.look();
        boolean hasKeys = hasKeys();
        body.getChildren().setAll(shown.node());
        if (hasKeys) {
            shown.node().requestFocus();
        }
        zoom(zoom);
        boolean somethingElse = !stay || !shown.words().equals(wordsOfShown);
        wordsOfShown = shown.words();
        if (somethingElse) {
            words.setText(wordsOfShown);
        }
        Ui.visible(formulas, look != null && look.hasFormulas());
        Ui.visible(pages, look != null && look.hasPages());
        Ui.visible(changeBar, shown.compared());
        change = 0;
        int all = look == null ? 0 : look.changes();
        Ui.visible(back, all > 0);
        Ui.visible(on, all > 0);
        Ui.visible(only, all > 0);
        place.setText(all == 0 ? "" : Words.of("reading.changes", all));
        boolean first = only.isSelected() || !stay || at.row() == 0;
        if (shown.compared() && all > 0 && first) {
            toChange(1);
        } else if (look != null && stay) {
            look.position(at);
        }
        if (look != null && !toFind.isEmpty() && !shown.compared()) {
            // What is shown may still be what was there before: the words are looked for until they are found.
            toFind = findNext() ? "" : toFind;
        } else if (look != null && !marked.isEmpty()) {
            // What was found stays marked when the same is shown anew, and in the next version.
            look.mark(marked);
        }
    }

    private void again() {
        show(maker, true);
    }

    /** Whether what is about to go has the keys, which would be lost with it. */
    private boolean hasKeys() {
        Node at = getScene() == null ? null : getScene().getFocusOwner();
        if (at == null) {
            return true;
        }
        while (at != null && at != body) {
            at = at.getParent();
        }
        return at == body;
    }

    private void toChange(int number) {
        DocumentView shown = look;
        if (shown == null || shown.changes() == 0) {
            return;
        }
        change = Math.max(1, Math.min(shown.changes(), number));
        shown.goTo(change);
        place.setText(Words.of("reading.change", change, shown.changes()));
        back.setDisable(change == 1);
        on.setDisable(change == shown.changes());
    }

    private boolean findNext() {
        DocumentView shown = look;
        if (shown == null || find.getText().isBlank()) {
            return false;
        }
        boolean found = shown.find(find.getText());
        marked = find.getText();
        Ui.style(find, "not-found", !found);
        words.setText(found ? words.getText() : Words.of("reading.notFound", find.getText()));
        return found;
    }

    private void zoom(int to) {
        zoom = Math.max(0, Math.min(ZOOM_MOST, to));
        for (int i = 1; i <= ZOOM_MOST; i++) {
            Ui.style(body, "zoom-" + i, i == zoom);
        }
        if (look != null) {
            look.zoom(zoom);
        }
    }

    private void copyText() {
        DocumentView shown = look;
        if (shown != null && !shown.text().isEmpty()) {
            ClipboardContent content = new ClipboardContent();
            content.putString(shown.text());
            Clipboard.getSystemClipboard().setContent(content);
        }
    }

    /** Does what a key means here; whether it means anything. */
    public boolean key(KeyEvent e) {
        boolean control = e.isShortcutDown();
        KeyCode code = e.getCode();
        if (e.isAltDown() && code == KeyCode.DOWN) {
            toChange(change + 1);
        } else if (e.isAltDown() && code == KeyCode.UP) {
            toChange(change - 1);
        } else if (control && code == KeyCode.F) {
            find.requestFocus();
            find.selectAll();
        } else if (control && (code == KeyCode.PLUS || code == KeyCode.EQUALS || code == KeyCode.ADD)) {
            zoom(zoom + 1);
        } else if (control && (code == KeyCode.MINUS || code == KeyCode.SUBTRACT)) {
            zoom(zoom - 1);
        } else if (control && code == KeyCode.DIGIT0) {
            zoom(0);
        } else if (control && code == KeyCode.C && !(e.getTarget() instanceof TextField)) {
            copyText();
        } else {
            return false;
        }
        return true;
    }
}
