package org.mendedleaf.desktop.files;

import java.io.File;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.SplitMenuButton;
import javafx.scene.control.SplitPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.document.DocumentPane;
import org.mendedleaf.desktop.document.DocumentView;
import org.mendedleaf.desktop.document.DocumentViews;
import org.mendedleaf.desktop.document.PairPictures;
import org.mendedleaf.desktop.document.PairWork;
import org.mendedleaf.desktop.document.Pictures;
import org.mendedleaf.desktop.widgets.ActionRow;
import org.mendedleaf.desktop.widgets.Ui;

/** A version large: the line as a stem at the side, and beside it what the version says, or what it changed. */
final class ReadingView extends BorderPane {

    private static final int VERSIONS_IN_MENU = 30;

    /** What takes longer is said to be on its way. */
    private static final Duration PATIENCE = Duration.millis(250);

    private final FilesModel model;
    private final LineModel line;
    private final ReadingStem stem;
    private final Label title = Ui.label("", "reading-title");
    private final Label point = Ui.label("", "dim");
    private final MenuButton against = new MenuButton();
    private final Button restore;
    private final SplitMenuButton export = new SplitMenuButton();
    private final DocumentPane pane = new DocumentPane("reading");
    private final HBox parts = new HBox(4);
    private final Label partWords = Ui.label("", "dim");
    private final PairWork work;
    private final NotesPane notes;
    private final PauseTransition waiting = new PauseTransition(PATIENCE);
    private Supplier<Optional<File>> fileAsk = Optional::empty;
    private Detail.@Nullable Mode shownMode;
    private int shownPart;

    /** Shows what the line of this model shows; restoring and copying are those of the line's own pane. */
    ReadingView(FilesModel model, Runnable restoring, Runnable copying, Consumer<String> exporting) {
        this.model = model;
        this.line = model.line();
        this.stem = new ReadingStem(model.context(), line);
        this.work = new PairWork(model.context().background());
        this.notes = new NotesPane(model.lineActions());
        setId("reading");
        getStyleClass().addAll("sheet", "reading");
        restore = Ui.button("line.restore", restoring, "accent");
        restore.setId("reading-restore");
        Button copy = Ui.button("line.copy", copying);
        export.setText(Words.of("reading.export"));
        export.setId("reading-export");
        export.setOnAction(e -> {
            if (compared().isPresent()) {
                exporting.accept("html");
            } else {
                pane.print(line.name());
            }
        });
        MenuItem print = new MenuItem(Words.of("reading.print"));
        print.setId("reading-print");
        print.setOnAction(e -> pane.print(line.name()));
        for (String ending : List.of("html", "patch", "csv")) {
            MenuItem item = new MenuItem(Words.of("reading.export." + ending));
            item.setId("reading-export-" + ending);
            item.setOnAction(e -> exporting.accept(ending));
            export.getItems().add(item);
        }
        export.getItems().addAll(new SeparatorMenuItem(), print);

        ToggleGroup group = new ToggleGroup();
        HBox modes = new HBox(
                toggle(group, "detail.changes", Detail.Mode.CHANGES, "left-pill"),
                toggle(group, "detail.content", Detail.Mode.CONTENT, "center-pill"),
                toggle(group, "detail.facts", Detail.Mode.FACTS, "center-pill"),
                toggle(group, "detail.notes", Detail.Mode.NOTES, "right-pill"));
        against.setId("reading-against");
        against.getStyleClass().addAll("flat", "text-button");
        against.setOnShowing(e -> fillAgainst());
        modes.setAlignment(Pos.CENTER_LEFT);
        modes.setFillHeight(false);
        Button partBack = Ui.iconButton(Feather.CHEVRON_LEFT, "reading.partBack", () -> toPart(-1));
        partBack.setId("reading-part-back");
        Button partOn = Ui.iconButton(Feather.CHEVRON_RIGHT, "reading.partOn", () -> toPart(1));
        partOn.setId("reading-part-on");
        parts.getChildren().addAll(partBack, partWords, partOn);
        parts.setAlignment(Pos.CENTER_LEFT);
        partWords.setId("reading-part");
        partWords.setMinWidth(USE_PREF_SIZE);
        HBox tools = new HBox(12, modes, against, parts);
        tools.setAlignment(Pos.CENTER_LEFT);
        Button close = Ui.iconButton(Feather.X, "reading.close", this::close);
        close.setId("reading-close");
        against.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(10, title, point, Ui.spacer(), pane.findField(), close);
        head.setAlignment(Pos.CENTER_LEFT);
        title.setMinWidth(0);
        VBox top = new VBox(8, head, tools);
        top.getStyleClass().add("reading-head");
        BorderPane content = new BorderPane(pane);
        content.setTop(top);
        PickPane pick = new PickPane(model.picking());
        Ui.visible(pick, false);
        ToggleButton picking = new ToggleButton(Words.of("pick.open"));
        picking.setId("reading-pick");
        picking.selectedProperty().addListener((o, a, is) -> Ui.visible(pick, is && !picking.isDisabled()));
        model.picking().offerProperty().subscribe(offer -> {
            boolean compared = line.detailProperty().get() instanceof Detail.Compared;
            picking.setDisable(!compared);
            Ui.visible(pick, picking.isSelected() && compared);
        });
        ActionRow buttons = new ActionRow(restore, copy, export, picking);
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

        waiting.setOnFinished(e -> pane.say(Words.of("reading.slow")));
        line.chosenProperty().addListener((o, a, v) -> {
            if (isVisible()) {
                waiting.playFromStart();
                about();
            }
        });
        line.detailProperty().addListener((o, a, d) -> show());
        line.againstProperty().addListener((o, a, b) -> about());
        model.reading().canRestoreProperty().subscribe(can -> restore.setDisable(!can));
        visibleProperty().addListener((o, a, is) -> {
            if (is) {
                show();
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
        pane.find(text);
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

    /** What a key does here. */
    void key(KeyEvent e) {
        boolean control = e.isShortcutDown();
        if (e.getCode() == KeyCode.ESCAPE) {
            close();
        } else if (control && e.getCode() == KeyCode.DOWN) {
            line.step(1);
        } else if (control && e.getCode() == KeyCode.UP) {
            line.step(-1);
        } else if (control && e.getCode() == KeyCode.P) {
            pane.print(line.name());
        } else if (control && e.getCode() == KeyCode.E) {
            export.fire();
        } else if (!pane.key(e)) {
            return;
        }
        e.consume();
    }

    private void fillAgainst() {
        against.getItems().clear();
        item(Words.of("against.before"), new CompareTarget.Before());
        Line l = line.lineProperty().get();
        Version chosen = line.chosenProperty().get();
        if (l == null || chosen == null) {
            return;
        }
        if (!l.place().isOutside() && l.removed().isEmpty()) {
            item(Words.of("against.now"), new CompareTarget.Now());
        }
        against.getItems().add(new SeparatorMenuItem());
        l.versions().stream()
                .filter(v -> v.number() != chosen.number())
                .limit(VERSIONS_IN_MENU)
                .forEach(v -> item(
                        Words.of(
                                "against.version",
                                v.label(),
                                Formats.moment(
                                        v.saved(),
                                        model.context().clock().instant(),
                                        model.context().zone())),
                        new CompareTarget.OfVersion(v.number())));
        against.getItems().add(new SeparatorMenuItem());
        MenuItem file = new MenuItem(Words.of("against.file"));
        file.setOnAction(e -> fileAsk.get().ifPresent(f -> choose(new CompareTarget.OfFile(f.toPath()))));
        against.getItems().add(file);
    }

    private void item(String text, CompareTarget to) {
        MenuItem item = new MenuItem(text);
        item.setOnAction(e -> choose(to));
        against.getItems().add(item);
    }

    private void choose(CompareTarget to) {
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
        String when = Formats.moment(
                v.saved(), model.context().clock().instant(), model.context().zone());
        point.setText(Words.of(v.who().isEmpty() ? "reading.point" : "reading.pointBy", v.label(), when, v.who()));
        CompareTarget to = line.againstProperty().get();
        String said = to instanceof CompareTarget.Now
                ? Words.of("against.now")
                : to instanceof CompareTarget.OfVersion o
                        ? Words.of("compare.side.version", labelOf(o.number()))
                        : to instanceof CompareTarget.OfFile f
                                ? String.valueOf(f.file().getFileName())
                                : Words.of("against.before");
        against.setText(Words.of("reading.against", said));
    }

    private String labelOf(int number) {
        Line l = line.lineProperty().get();
        return l == null ? "" : l.label(number);
    }

    private void show() {
        if (!isVisible()) {
            return;
        }
        waiting.stop();
        about();
        Detail.Mode mode = line.modeProperty().get();
        Detail detail = line.detailProperty().get();
        int part = detail instanceof Detail.Seen at ? at.part() : 0;
        boolean stay = shownMode == mode && shownPart == part;
        shownPart = part;
        shownMode = mode;
        pane.show(choices -> made(detail, choices), stay);
        Ui.visible(against, mode == Detail.Mode.CHANGES);
        boolean large = detail instanceof Detail.Seen seen && seen.parts() > 1 && mode == Detail.Mode.CONTENT;
        Ui.visible(parts, large);
        if (large && detail instanceof Detail.Seen seen) {
            partWords.setText(Words.of("reading.part", seen.part() + 1, seen.parts()));
            parts.getChildren().get(0).setDisable(seen.part() == 0);
            parts.getChildren().get(2).setDisable(seen.part() == seen.parts() - 1);
        }
        Comparison shown = detail instanceof Detail.Compared c ? c.comparison() : new Comparison.Equal();
        // Printing is for everything; a comparison is exported where there is one.
        export.getItems().get(0).setDisable(!(detail instanceof Detail.Compared));
        export.getItems().get(1).setDisable(!(shown instanceof Comparison.TextChanges));
        boolean table = shown instanceof Comparison.SheetChanges || shown instanceof Comparison.TextChanges;
        export.getItems().get(2).setDisable(!table);
        Version v = line.chosenProperty().get();
        restore.setText(v == null ? "" : Words.of("line.restore", v.label()));
        restore.setDisable(v == null || !model.reading().canRestoreProperty().get());
    }

    /** Goes on in a text that is too large to be shown whole. */
    private void toPart(int by) {
        if (line.detailProperty().get() instanceof Detail.Seen seen) {
            line.partProperty().set(Math.max(0, Math.min(seen.parts() - 1, seen.part() + by)));
        }
    }

    private DocumentPane.Shown made(Detail detail, DocumentViews.Choices choices) {
        if (detail instanceof Detail.Compared compared) {
            DocumentView look = DocumentViews.of(
                    compared.comparison(),
                    choices,
                    new DocumentViews.Titles(compared.before(), compared.after()),
                    new PairPictures(compared.contents(), work::ask),
                    path -> line.memberProperty().set(path));
            String what = compared.comparison().words();
            return DocumentPane.Shown.compared(
                    look,
                    Words.of(
                            "reading.between",
                            compared.before(),
                            compared.after(),
                            compared.member().isEmpty()
                                    ? what
                                    : Words.of("reading.inMember", compared.member(), what)));
        }
        if (detail instanceof Detail.Seen seen) {
            DocumentView look = DocumentViews.of(
                    seen.document(),
                    choices,
                    seen.member().isEmpty() ? line.pictures() : Pictures.NONE,
                    path -> line.memberProperty().set(path));
            return DocumentPane.Shown.of(look, about(seen));
        }
        if (detail instanceof Detail.Failed failed) {
            return DocumentPane.Shown.of(DocumentViews.message(failed.words()), "");
        }
        if (detail instanceof Detail.Away away) {
            return DocumentPane.Shown.of(DocumentViews.message(away.words()), "");
        }
        return new DocumentPane.Shown(null, other(detail), "", false);
    }

    private String about(Detail.Seen seen) {
        if (!seen.said().isEmpty()) {
            return seen.member().isEmpty() ? seen.said() : Words.of("reading.memberAlone", seen.member(), seen.said());
        }
        if (!seen.member().isEmpty()) {
            return seen.member();
        }
        if (line.modeProperty().get() == Detail.Mode.CHANGES) {
            return Words.of("reading.first");
        }
        return DocumentViews.isCut(seen.document()) && seen.parts() == 1 ? Words.of("detail.cut") : "";
    }

    private Node other(Detail detail) {
        if (detail instanceof Detail.Facts facts) {
            return DetailPane.facts(facts.facts());
        }
        if (detail instanceof Detail.Notes said) {
            return notes.show(said);
        }
        return DocumentViews.message("").node();
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
