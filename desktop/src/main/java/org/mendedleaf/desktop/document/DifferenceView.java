package org.mendedleaf.desktop.document;

import java.io.IOException;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/**
 * What changed of one file after the other, large, as the view of a version shows it: for a plan before it is carried out,
 * for two moments, for what would come in. It stands over the screen that asked, and leaves it as it was.
 */
public final class DifferenceView extends BorderPane {

    private final BorderPane host;
    private final Files files;
    private final Work work;
    private final DocumentPane pane = new DocumentPane("difference");
    private final Label title = Ui.label("", "reading-title");
    private final Label where = Ui.label("", "dim");
    private final Label count = Ui.label("", "dim");
    private final Button back;
    private final Button on;
    private final @Nullable Node top;
    private final @Nullable Node center;
    private final @Nullable Node bottom;
    private final @Nullable Node hadKeys;
    private int at;
    private String member = "";

    /** The files that can be looked at, in the order in which they are listed. */
    public interface Files {
        /** How many. */
        int size();

        /** Where one is. */
        String path(int number);

        /** Its contents. Slow; not called on the thread of the screen. */
        Pair pair(int number) throws IOException;

        /** Called when somebody goes to another one. */
        default void went(int number) {
            // Nobody follows.
        }
    }

    /** Does work off the thread of the screen; of what is asked again and again only the newest answer counts. */
    public interface Work {
        /** What was found of a pair. */
        void pair(Callable<Pair.Seen> work, Consumer<Pair.Seen> done, Consumer<Exception> failed);

        /** Anything else; what fails does not come. */
        <T> void ask(Callable<T> work, Consumer<T> done);
    }

    private DifferenceView(BorderPane host, Files files, Work work) {
        this.host = host;
        this.files = files;
        this.work = work;
        this.top = host.getTop();
        this.center = host.getCenter();
        this.bottom = host.getBottom();
        this.hadKeys = host.getScene() == null ? null : host.getScene().getFocusOwner();
        setId("difference");
        getStyleClass().add("difference");
        back = Ui.iconButton(Feather.CHEVRON_LEFT, "difference.back", () -> go(at - 1));
        back.setId("difference-file-back");
        on = Ui.iconButton(Feather.CHEVRON_RIGHT, "difference.on", () -> go(at + 1));
        on.setId("difference-file-on");
        Button close = Ui.iconButton(Feather.X, "reading.close", this::leave);
        close.setId("difference-close");
        title.setMinWidth(0);
        where.setMinWidth(0);
        count.setId("difference-count");
        count.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(10, title, where, Ui.spacer(), count, back, on, pane.findField(), close);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("reading-head");
        BorderPane sheet = new BorderPane(pane);
        sheet.setTop(head);
        sheet.getStyleClass().addAll("sheet", "reading");
        setCenter(sheet);
        boolean several = files.size() > 1;
        for (Node node : new Node[] {count, back, on}) {
            Ui.visible(node, several);
        }
        VBox foot = new VBox(Ui.label(Words.of(several ? "difference.hint" : "difference.hintOne"), "dim"));
        foot.getStyleClass().add("sheet-footer");
        sheet.setBottom(foot);
        addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    }

    /** Opens over a screen, at one of these files. */
    public static void open(BorderPane host, Files files, int number, Work work) {
        DifferenceView view = new DifferenceView(host, files, work);
        host.setTop(null);
        host.setBottom(null);
        host.setCenter(view);
        view.setFocusTraversable(true);
        view.requestFocus();
        view.go(number);
    }

    /** Closes it where it stands over a screen; whether it did. */
    public static boolean leave(Node screen) {
        if (screen instanceof BorderPane pane && pane.getCenter() instanceof DifferenceView view) {
            view.leave();
            return true;
        }
        return false;
    }

    private void leave() {
        if (!member.isEmpty()) {
            go(at);
            return;
        }
        host.setCenter(center);
        host.setTop(top);
        host.setBottom(bottom);
        if (hadKeys != null) {
            hadKeys.requestFocus();
        }
    }

    private void key(KeyEvent e) {
        if (e.isShortcutDown() && e.getCode() == KeyCode.DOWN) {
            go(at + 1);
        } else if (e.isShortcutDown() && e.getCode() == KeyCode.UP) {
            go(at - 1);
        } else if (!pane.key(e)) {
            return;
        }
        e.consume();
    }

    private void go(int number) {
        if (number < 0 || number >= files.size()) {
            return;
        }
        at = number;
        member = "";
        files.went(number);
        String path = files.path(number);
        int slash = path.lastIndexOf('/');
        title.setText(path.substring(slash + 1));
        where.setText(slash < 0 ? "" : path.substring(0, slash).replace("/", " › "));
        count.setText(Words.of("difference.count", number + 1, files.size()));
        back.setDisable(number == 0);
        on.setDisable(number == files.size() - 1);
        pane.show(c -> DocumentPane.Shown.of(DocumentViews.message(Words.of("guard.reading")), ""), false);
        see(() -> files.pair(number));
    }

    private void see(Pair.Source source) {
        work.pair(
                () -> source.get().see(),
                seen -> pane.show(choices -> shown(seen, choices), false),
                e -> pane.show(c -> DocumentPane.Shown.of(DocumentViews.message(Failures.named(e)), ""), false));
    }

    /** Looks into a member of an archive; closing goes back to the archive. */
    private void into(Pair.Seen archive, String path) {
        member = path;
        where.setText(path);
        see(() -> archive.pair().member(path));
    }

    private DocumentPane.Shown shown(Pair.Seen seen, DocumentViews.Choices choices) {
        return shown(seen, choices, work, path -> into(seen, path));
    }

    /** What is to be shown of a pair; members of archives are opened by {@code open}. */
    public static DocumentPane.Shown shown(
            Pair.Seen seen, DocumentViews.Choices choices, Work work, Consumer<String> open) {
        Pictures pictures = new PairPictures(seen::pair, work::ask);
        if (seen.comparison().isPresent()) {
            DocumentViews.Titles titles =
                    new DocumentViews.Titles(Words.of("difference.before"), Words.of("difference.after"));
            return DocumentPane.Shown.compared(
                    DocumentViews.of(seen.comparison().get(), choices, titles, pictures, open), seen.words());
        }
        DocumentView look = seen.document().isPresent()
                ? DocumentViews.of(seen.document().get(), choices, pictures, open)
                : DocumentViews.message("");
        return DocumentPane.Shown.of(look, seen.words());
    }

    /** The file that is looked at, from 0; empty where the view is not open over this screen. */
    public static Optional<Integer> at(BorderPane screen) {
        return screen.getCenter() instanceof DifferenceView view ? Optional.of(view.at) : Optional.empty();
    }
}
