package org.mendedleaf.desktop.files;

import java.io.File;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.SplitPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.look.Look;
import org.mendedleaf.desktop.look.Looking;
import org.mendedleaf.desktop.look.Pictures;
import org.mendedleaf.desktop.widgets.Ui;

/** A version large: the line as a stem at the side, and beside it what the version says, or what it changed. */
final class ReadingView extends BorderPane {

    /** From so much room on, two points stand side by side. */
    private static final double WIDE = 820;

    private static final int ZOOM_MOST = 4;
    private static final int VERSIONS_IN_MENU = 30;

    /** What takes longer is said to be on its way. */
    private static final Duration PATIENCE = Duration.millis(250);

    private final FilesModel model;
    private final LineModel line;
    private final ReadingStem stem;
    private final Label title = Ui.label("", "reading-title");
    private final Label point = Ui.label("", "dim");
    private final Label words = Ui.label("", "detail-words");
    private final Label place = Ui.label("", "dim");
    private final MenuButton against = new MenuButton();
    private final CheckBox only = new CheckBox(Words.of("reading.only"));
    private final CheckBox formulas = new CheckBox(Words.of("reading.formulas"));
    private final Button back;
    private final Button on;
    private final TextField find = new TextField();
    private final Button restore;
    private final Button export;
    private final StackPane body = new StackPane();
    private final HBox changeBar;
    private final NotesPane notes;
    private final PauseTransition waiting = new PauseTransition(PATIENCE);
    private Supplier<Optional<File>> fileAsk = Optional::empty;
    private @Nullable Look look;
    private Detail.@Nullable Mode shownMode;
    private int change;
    private int zoom;
    private String toFind = "";

    /** Shows what the line of this model shows; restoring and copying are those of the line's own pane. */
    ReadingView(FilesModel model, Runnable restoring, Runnable copying, Runnable exporting) {
        this.model = model;
        this.line = model.line();
        this.stem = new ReadingStem(model.desk(), line);
        this.notes = new NotesPane(model.lineActions());
        setId("reading");
        getStyleClass().addAll("sheet", "reading");
        restore = Ui.button("line.restore", restoring, "accent");
        restore.setId("reading-restore");
        Button copy = Ui.button("line.copy", copying);
        export = Ui.button("reading.export", exporting);
        export.setId("reading-export");
        back = Ui.iconButton(Feather.CHEVRON_UP, "reading.back", () -> toChange(change - 1));
        back.setId("reading-back");
        on = Ui.iconButton(Feather.CHEVRON_DOWN, "reading.on", () -> toChange(change + 1));
        on.setId("reading-on");

        ToggleGroup group = new ToggleGroup();
        HBox modes = new HBox(
                toggle(group, "detail.changes", Detail.Mode.CHANGES, "left-pill"),
                toggle(group, "detail.content", Detail.Mode.CONTENT, "center-pill"),
                toggle(group, "detail.facts", Detail.Mode.FACTS, "center-pill"),
                toggle(group, "detail.notes", Detail.Mode.NOTES, "right-pill"));
        against.setId("reading-against");
        against.getStyleClass().addAll("flat", "text-button");
        against.setOnShowing(e -> fillAgainst());
        only.setId("reading-only");
        only.setSelected(true);
        only.selectedProperty().addListener((o, a, b) -> again());
        formulas.setId("reading-formulas");
        formulas.selectedProperty().addListener((o, a, b) -> again());
        changeBar = new HBox(8, place, back, on, only);
        changeBar.setAlignment(Pos.CENTER_LEFT);
        modes.setAlignment(Pos.CENTER_LEFT);
        modes.setFillHeight(false);
        HBox tools = new HBox(12, modes, against);
        tools.setAlignment(Pos.CENTER_LEFT);
        HBox said = new HBox(12, words, Ui.spacer(), formulas, changeBar);
        said.setAlignment(Pos.CENTER_LEFT);
        for (javafx.scene.layout.Region fixed : List.of(against, formulas, only, place)) {
            fixed.setMinWidth(USE_PREF_SIZE);
        }
        find.setId("reading-find");
        find.setPromptText(Words.of("reading.find"));
        find.setAccessibleText(Words.of("reading.find"));
        find.setOnAction(e -> findNext());
        find.setPrefColumnCount(16);
        Button close = Ui.iconButton(Feather.X, "reading.close", this::close);
        close.setId("reading-close");
        HBox head = new HBox(10, title, point, Ui.spacer(), find, close);
        head.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        title.setMinWidth(0);
        VBox top = new VBox(8, head, tools, said);
        top.getStyleClass().add("reading-head");
        BorderPane content = new BorderPane(body);
        content.setTop(top);
        body.setMinSize(0, 0);
        PickPane pick = new PickPane(model.picking());
        Ui.visible(pick, false);
        ToggleButton picking = new ToggleButton(Words.of("pick.open"));
        picking.setId("reading-pick");
        picking.selectedProperty().addListener((o, a, is) -> Ui.visible(pick, is && !picking.isDisabled()));
        model.picking().offerProperty().addListener((o, a, offer) -> {
            boolean compared = line.detailProperty().get() instanceof Detail.Compared;
            picking.setDisable(!compared);
            Ui.visible(pick, picking.isSelected() && compared);
        });
        HBox buttons = new HBox(8, restore, copy, export, picking);
        buttons.getStyleClass().add("line-buttons");
        VBox foot = new VBox(10, pick, buttons);
        foot.getStyleClass().add("sheet-footer");
        content.setBottom(foot);
        SplitPane split = new SplitPane(stem, content);
        split.getStyleClass().add("reading-split");
        SplitPane.setResizableWithParent(stem, false);
        stem.setMinWidth(236);
        stem.setPrefWidth(250);
        stem.setMaxWidth(420);
        split.setDividerPositions(0.19);
        setCenter(split);
        StackPane.setMargin(this, new javafx.geometry.Insets(0, 24, 14, 24));

        waiting.setOnFinished(e -> words.setText(Words.of("reading.slow")));
        line.chosenProperty().addListener((o, a, v) -> {
            if (isVisible()) {
                waiting.playFromStart();
                about();
            }
        });
        line.detailProperty().addListener((o, a, d) -> show());
        line.againstProperty().addListener((o, a, b) -> about());
        model.reading().canRestoreProperty().addListener((o, a, can) -> restore.setDisable(!can));
        visibleProperty().addListener((o, a, is) -> {
            if (is) {
                show();
            }
        });
        body.widthProperty().addListener((o, a, w) -> {
            if ((a.doubleValue() > WIDE) != (w.doubleValue() > WIDE)) {
                again();
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    }

    private ToggleButton toggle(ToggleGroup group, String key, Detail.Mode mode, String style) {
        ToggleButton button = new ToggleButton(Words.of(key));
        button.setToggleGroup(group);
        button.getStyleClass().addAll("small", style);
        button.setId("reading-" + mode.name().toLowerCase(java.util.Locale.ROOT));
        button.setSelected(line.modeProperty().get() == mode);
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(e -> {
            button.setSelected(true);
            line.modeProperty().set(mode);
        });
        line.modeProperty().addListener((o, a, m) -> button.setSelected(m == mode));
        return button;
    }

    /** Gives the stem the keys. */
    void focus() {
        stem.requestFocus();
    }

    /** Goes to these words in what is shown next. */
    void find(String text) {
        find.setText(text);
        toFind = text;
    }

    /** Puts a way to ask for a file in place. */
    void setFileAsk(Supplier<Optional<File>> ask) {
        fileAsk = ask;
    }

    private void close() {
        if (line.memberProperty().get().isEmpty()) {
            model.reading().openProperty().set(false);
        } else {
            line.memberProperty().set("");
        }
    }

    private void key(KeyEvent e) {
        boolean control = e.isShortcutDown();
        if (e.getCode() == KeyCode.ESCAPE) {
            close();
        } else if (e.isAltDown() && e.getCode() == KeyCode.DOWN) {
            toChange(change + 1);
        } else if (e.isAltDown() && e.getCode() == KeyCode.UP) {
            toChange(change - 1);
        } else if (control && e.getCode() == KeyCode.DOWN) {
            line.step(1);
        } else if (control && e.getCode() == KeyCode.UP) {
            line.step(-1);
        } else if (control && e.getCode() == KeyCode.F) {
            find.requestFocus();
            find.selectAll();
        } else if (control && e.getCode() == KeyCode.E) {
            export.fire();
        } else if (control
                && (e.getCode() == KeyCode.PLUS || e.getCode() == KeyCode.EQUALS || e.getCode() == KeyCode.ADD)) {
            zoom(zoom + 1);
        } else if (control && (e.getCode() == KeyCode.MINUS || e.getCode() == KeyCode.SUBTRACT)) {
            zoom(zoom - 1);
        } else if (control && e.getCode() == KeyCode.DIGIT0) {
            zoom(0);
        } else if (control && e.getCode() == KeyCode.C && !(e.getTarget() instanceof TextField)) {
            copyText();
        } else {
            return;
        }
        e.consume();
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
        Look shown = look;
        if (shown != null && !shown.text().isEmpty()) {
            ClipboardContent content = new ClipboardContent();
            content.putString(shown.text());
            Clipboard.getSystemClipboard().setContent(content);
        }
    }

    private void findNext() {
        Look shown = look;
        if (shown == null || find.getText().isBlank()) {
            return;
        }
        boolean found = shown.find(find.getText());
        Ui.style(find, "not-found", !found);
        words.setText(found ? words.getText() : Words.of("reading.notFound", find.getText()));
    }

    private void fillAgainst() {
        against.getItems().clear();
        item(Words.of("against.before"), new Against.Before());
        Line l = line.lineProperty().get();
        Version chosen = line.chosenProperty().get();
        if (l == null || chosen == null) {
            return;
        }
        if (!l.place().isOutside() && l.removed().isEmpty()) {
            item(Words.of("against.now"), new Against.Now());
        }
        against.getItems().add(new SeparatorMenuItem());
        l.versions().stream()
                .filter(v -> v.number() != chosen.number())
                .limit(VERSIONS_IN_MENU)
                .forEach(v -> item(
                        Words.of(
                                "against.version",
                                v.label(),
                                Say.moment(
                                        v.saved(),
                                        model.desk().clock().instant(),
                                        model.desk().zone())),
                        new Against.OfVersion(v.number())));
        against.getItems().add(new SeparatorMenuItem());
        MenuItem file = new MenuItem(Words.of("against.file"));
        file.setOnAction(e -> fileAsk.get().ifPresent(f -> choose(new Against.OfFile(f.toPath()))));
        against.getItems().add(file);
    }

    private void item(String text, Against to) {
        MenuItem item = new MenuItem(text);
        item.setOnAction(e -> choose(to));
        against.getItems().add(item);
    }

    private void choose(Against to) {
        line.modeProperty().set(Detail.Mode.CHANGES);
        line.againstProperty().set(to);
    }

    /** Who, when, and against what. */
    private void about() {
        Line l = line.lineProperty().get();
        Version v = line.chosenProperty().get();
        title.setText(l == null ? "" : l.name());
        if (v == null) {
            point.setText("");
            return;
        }
        String when = Say.moment(
                v.saved(), model.desk().clock().instant(), model.desk().zone());
        point.setText(Words.of(v.who().isEmpty() ? "reading.point" : "reading.pointBy", v.label(), when, v.who()));
        Against to = line.againstProperty().get();
        String said = to instanceof Against.Now
                ? Words.of("against.now")
                : to instanceof Against.OfVersion o
                        ? Words.of("compare.side.version", labelOf(o.number()))
                        : to instanceof Against.OfFile f
                                ? String.valueOf(f.file().getFileName())
                                : Words.of("against.before");
        against.setText(Words.of("reading.against", said));
    }

    private String labelOf(int number) {
        Line l = line.lineProperty().get();
        return l == null ? "" : l.label(number);
    }

    private void again() {
        if (isVisible()) {
            show();
        }
    }

    private void show() {
        if (!isVisible()) {
            return;
        }
        waiting.stop();
        about();
        Look before = look;
        Look.Position at = before == null ? Look.Position.START : before.position();
        boolean stay = shownMode == line.modeProperty().get();
        Detail detail = line.detailProperty().get();
        Looking.Choices choices = new Looking.Choices(body.getWidth() > WIDE, only.isSelected(), formulas.isSelected());
        boolean changes = detail instanceof Detail.Compared;
        words.setText("");
        Look made = null;
        if (detail instanceof Detail.Compared compared) {
            made = Looking.of(
                    compared.comparison(),
                    choices,
                    new Looking.Titles(compared.before(), compared.after()),
                    line.pictures());
            words.setText(Words.of(
                    "reading.between",
                    compared.before(),
                    compared.after(),
                    compared.comparison().words()));
        } else if (detail instanceof Detail.Seen seen) {
            made = Looking.of(
                    seen.document(),
                    choices,
                    seen.member().isEmpty() ? line.pictures() : Pictures.NONE,
                    path -> line.memberProperty().set(path));
            boolean first = line.modeProperty().get() == Detail.Mode.CHANGES;
            words.setText(
                    first
                            ? Words.of("reading.first")
                            : !seen.member().isEmpty()
                                    ? seen.member()
                                    : Looking.isCut(seen.document()) ? Words.of("detail.cut") : "");
        } else if (detail instanceof Detail.Failed failed) {
            made = Looking.message(failed.words());
        } else if (detail instanceof Detail.Away away) {
            made = Looking.message(away.words());
        }
        look = made;
        Node node = made != null ? made.node() : other(detail);
        boolean hasKeys = hasKeys();
        body.getChildren().setAll(node);
        if (hasKeys) {
            node.requestFocus();
        }
        zoom(zoom);
        shownMode = line.modeProperty().get();
        formulas.setVisible(made != null && made.hasFormulas());
        formulas.setManaged(formulas.isVisible());
        Ui.visible(changeBar, changes);
        Ui.visible(against, line.modeProperty().get() == Detail.Mode.CHANGES);
        export.setDisable(!changes);
        change = 0;
        int all = made == null ? 0 : made.changes();
        Ui.visible(back, all > 0);
        Ui.visible(on, all > 0);
        Ui.visible(only, all > 0);
        place.setText(all == 0 ? "" : Words.of("reading.changes", all));
        boolean few = only.isSelected() || !stay || at.row() == 0;
        if (changes && all > 0 && few) {
            toChange(1);
        } else if (made != null && stay) {
            made.position(at);
        }
        if (made != null && !toFind.isEmpty() && detail instanceof Detail.Seen) {
            findNext();
            toFind = "";
        }
        Version v = line.chosenProperty().get();
        restore.setText(v == null ? "" : Words.of("line.restore", v.label()));
        restore.setDisable(v == null || !model.reading().canRestoreProperty().get());
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

    private Node other(Detail detail) {
        if (detail instanceof Detail.Facts facts) {
            return DetailPane.facts(facts.facts());
        }
        if (detail instanceof Detail.Notes said) {
            return notes.show(said);
        }
        return Looking.message("").node();
    }

    private void toChange(int number) {
        Look shown = look;
        if (shown == null || shown.changes() == 0) {
            return;
        }
        change = Math.max(1, Math.min(shown.changes(), number));
        shown.goTo(change);
        place.setText(Words.of("reading.change", change, shown.changes()));
        back.setDisable(change == 1);
        on.setDisable(change == shown.changes());
    }

    /** What is exported: the difference that is shown. */
    Optional<Detail.Compared> compared() {
        return line.detailProperty().get() instanceof Detail.Compared c ? Optional.of(c) : Optional.empty();
    }

    /** The rows of the stem, for tests. */
    List<LineRow> rows() {
        return stem.getItems();
    }
}
