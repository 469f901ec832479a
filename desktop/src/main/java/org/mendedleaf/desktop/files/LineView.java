package org.mendedleaf.desktop.files;

import java.io.File;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.ObservableValue;
import javafx.geometry.Orientation;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SplitPane;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.ActionRow;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** The line of the selected file, what is known of the chosen version, and what can be done with it. */
final class LineView extends StackPane {

    private final FilesModel model;
    private final LineModel line;
    private final Label title = Ui.label("", "line-title");
    private final Label state = Ui.label("", "line-state");
    private final Label summary = Ui.label("", "line-summary");
    private final ListView<LineRow> points = new ListView<>();
    private final Button restore = new Button();
    private final Label consequence = Ui.label("", "consequence");
    private final Button copy;
    private final Button put;
    private final WorkBar work;
    private final PutPane putPane;
    private final Button remove;
    private final MenuButton more = new MenuButton();
    private final BorderPane content = new BorderPane();
    /** A pane that is lower has not been laid out yet. Pixels. */
    private static final double ROOM = 200;

    private final SplitPane split = new SplitPane();
    private final VBox nothing = new VBox(10);
    private boolean filling;

    /** Asks for a folder; tests put an answer in its place. */
    private Supplier<Optional<File>> folderAsk = Optional::empty;

    private Function<String, Optional<String>> noteAsk = words -> Optional.of("");

    /** Asks for a name; it is given the one that is. */
    private Function<String, Optional<String>> nameAsk = name -> Optional.empty();

    private Consumer<Path> opener = path -> {};

    LineView(FilesModel model) {
        this.model = model;
        this.line = model.line();
        getStyleClass().add("sheet");
        nothing.getStyleClass().add("nothing");
        nothing.setAlignment(Pos.CENTER);
        nothing.getChildren().addAll(Shapes.mark(), wrapped("line.nothing"));

        title.setId("line-title");
        HBox head = new HBox(8, title, Ui.spacer(), state);
        head.setAlignment(Pos.BASELINE_LEFT);
        work = new WorkBar(line, model.lineActions(), model.routes()::straysOfFile);
        VBox header = new VBox(4, head, summary, work);
        header.getStyleClass().add("sheet-header");
        summary.setWrapText(true);

        points.setId("points");
        points.getStyleClass().add("points");
        points.setFixedCellSize(LineCell.HEIGHT);
        points.setCellFactory(v -> new LineCell(model.context()));
        points.setAccessibleText(Words.of("line.name"));
        points.getSelectionModel().selectedItemProperty().addListener((o, a, row) -> chosen(row));
        points.setOnMouseClicked(e -> {
            unfold();
            if (e.getClickCount() == 2 && e.getButton() == javafx.scene.input.MouseButton.PRIMARY) {
                read();
            }
        });
        points.setOnKeyPressed(e -> {
            if (e.isControlDown() || e.isAltDown()) {
                return;
            }
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                unfold();
            }
            if (e.getCode() == KeyCode.ENTER) {
                read();
            }
        });

        DetailPane detail = new DetailPane(line, new NotesPane(model.lineActions()));
        split.getItems().addAll(points, detail);
        split.setOrientation(Orientation.VERTICAL);
        split.setDividerPositions(0.5);
        points.setMinHeight(2.6 * LineCell.HEIGHT);
        split.getStyleClass().add("line-split");

        restore.setId("restore");
        restore.getStyleClass().add("accent");
        restore.setOnAction(e -> restoreChosen());
        copy = Ui.button("line.copy", this::copyChosen);
        copy.setId("copy");
        put = Ui.button("line.put", model::openPut);
        put.setId("put");
        remove = Ui.button("line.remove", model::remove, "danger-text");
        remove.setId("remove");
        more.setId("more");
        more.setText(Words.of("line.more"));
        more.getStyleClass().add("flat");
        ActionRow buttons = new ActionRow(restore, put, copy, more).right(remove);
        buttons.getStyleClass().add("line-buttons");
        VBox actions = new VBox(6, consequence, buttons);
        actions.getStyleClass().add("sheet-footer");

        content.setTop(header);
        content.setCenter(split);
        content.setBottom(actions);
        putPane = new PutPane(model.putting(), model.hearer(), words -> model.say(words, false, true));
        putPane.visibleProperty().bind(model.putting().openProperty());
        putPane.managedProperty().bind(putPane.visibleProperty());
        model.putting()
                .openProperty()
                .addListener((o, a, is) -> show(line.lineProperty().get()));
        getChildren().addAll(nothing, content, putPane);
        takeDrops();

        line.lineProperty().addListener((o, a, l) -> {
            show(l);
            // The version of the moment that is looked at is chosen, once the model has chosen its newest.
            if (l != null && model.momentProperty().get() != null && (a == null || a.id() != l.id())) {
                javafx.application.Platform.runLater(this::followMoment);
            }
        });
        line.rowsProperty().addListener((o, a, rows) -> fill(rows));
        line.mergedProperty().addListener((o, a, m) -> {
            show(line.lineProperty().get());
            chosenChanged();
        });
        line.chosenProperty().addListener((o, a, v) -> chosenChanged());
        line.saidProperty().addListener((o, a, v) -> chosenChanged());
        model.momentProperty().addListener((o, a, b) -> followMoment());
        show(null);
    }

    /** A file dropped here is the next version of the file that is shown. */
    private void takeDrops() {
        setOnDragOver(e -> {
            if (e.getDragboard().hasFiles() && line.lineProperty().get() != null) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        setOnDragEntered(e -> Ui.style(this, "drop-here", e.getDragboard().hasFiles() && line.lineId() != 0));
        setOnDragExited(e -> Ui.style(this, "drop-here", false));
        setOnDragDropped(e -> {
            List<File> files = e.getDragboard().getFiles();
            boolean one = files.size() == 1 && files.get(0).isFile();
            e.setDropCompleted(one);
            e.consume();
            if (one) {
                model.putOnto(files.get(0).toPath(), line.path());
            } else {
                model.say(Words.of("line.dropOne"), false, true);
            }
        });
    }

    private static Label wrapped(String key) {
        Label label = Ui.label(Words.of(key), "dim", "centered");
        label.setWrapText(true);
        label.setMaxWidth(300);
        return label;
    }

    void setFolderAsk(Supplier<Optional<File>> ask) {
        putPane.setFolderAsk(ask);
        folderAsk = ask;
    }

    /** Asks for words, with this question; empty when they do not want to after all. */
    void setNoteAsk(Function<String, Optional<String>> ask) {
        work.setNoteAsk(ask);
        noteAsk = ask;
    }

    /** Asks for another name than this one; empty when it stays. */
    void setNameAsk(Function<String, Optional<String>> ask) {
        nameAsk = ask;
    }

    /** Asks for a file to put in. */
    void setFileAsk(Supplier<Optional<File>> ask) {
        putPane.setFileAsk(ask);
    }

    void setOpener(Consumer<Path> with) {
        opener = with;
    }

    private void show(@Nullable Line l) {
        Ui.visible(content, l != null && !model.putting().openProperty().get());
        Ui.visible(nothing, l == null);
        if (l == null) {
            return;
        }
        title.setText(l.name());
        Ui.tooltip(title, l.path());
        Instant now = model.context().clock().instant();
        boolean gone = l.removed().isPresent();
        state.setText(l.removed()
                .map(r -> Words.of(
                        "removed.when", Formats.moment(r, now, model.context().zone())))
                .orElse(""));
        Ui.style(state, "clay-text", gone);
        List<Version> versions = l.versions();
        String since = versions.isEmpty()
                ? ""
                : Formats.day(
                        versions.get(versions.size() - 1).captured(),
                        now,
                        model.context().zone());
        String facts = Words.of(
                l.place().isOutside() ? "line.factsOutside" : "line.facts",
                l.versionsHere(),
                since,
                Formats.size(l.bytes()),
                keptWords());
        List<String> others = line.mergedProperty().get() == null
                ? List.of()
                : line.mergedProperty().get().others().stream()
                        .map(o -> o.place().label())
                        .distinct()
                        .toList();
        summary.setText(others.isEmpty() ? facts : facts + " · " + Words.of("line.also", String.join(", ", others)));
    }

    /** What the rules say of the line as a whole. */
    private String keptWords() {
        LineRemarks said = line.saidProperty().get();
        return said == null ? "" : said.verdicts().summary();
    }

    private void fill(List<LineRow> rows) {
        filling = true;
        points.getItems().setAll(rows);
        select(line.chosenProperty().get());
        filling = false;
    }

    private void select(@Nullable Version version) {
        for (int i = 0; version != null && i < points.getItems().size(); i++) {
            if (points.getItems().get(i) instanceof LineRow.OfVersion v && same(v.version(), version)) {
                points.getSelectionModel().select(i);
                // In sight, with what came after it above.
                points.scrollTo(Math.max(0, i - 2));
                return;
            }
        }
        points.getSelectionModel().clearSelection();
    }

    private static boolean same(Version a, Version b) {
        return a.line() == b.line() && a.number() == b.number();
    }

    private void chosen(@Nullable LineRow row) {
        if (!filling && row instanceof LineRow.OfVersion v) {
            line.choose(v.version());
        }
    }

    private void read() {
        if (points.getSelectionModel().getSelectedItem() instanceof LineRow.OfVersion) {
            model.reading().open();
        }
    }

    /** Gives the points the keys. */
    void focusPoints() {
        points.requestFocus();
    }

    private void unfold() {
        if (points.getSelectionModel().getSelectedItem() instanceof LineRow.Folded f) {
            line.unfold(f.key());
        }
    }

    /** When the moment goes, the version that was current then is chosen. */
    private void followMoment() {
        Instant at = model.momentProperty().get();
        Line l = line.lineProperty().get();
        if (l == null) {
            return;
        }
        Optional<Version> then = l.versions().stream()
                .filter(v -> at == null || !v.saved().isAfter(at))
                .findFirst();
        then.ifPresent(line::choose);
    }

    private void chosenChanged() {
        Version v = line.chosenProperty().get();
        Line l = line.lineProperty().get();
        if (v == null || l == null) {
            restore.setDisable(true);
            return;
        }
        if (!(points.getSelectionModel().getSelectedItem() instanceof LineRow.OfVersion shown)
                || !same(shown.version(), v)) {
            filling = true;
            select(v);
            filling = false;
        }
        boolean gone = l.removed().isPresent();
        boolean foreign = v.line() != l.id();
        Version newestVersion = l.newest().orElse(v);
        boolean current = !foreign && !gone && v.number() == newestVersion.number();
        boolean writing = model.can(Capability.WRITING);
        MergedPoint point = line.chosenPoint().orElse(null);
        boolean lost =
                v.recipe().isElsewhere() && (point == null || point.copies().isEmpty());
        restore.setDisable(current || lost);
        restore.setText(
                foreign
                        ? Words.of("line.restoreForeign")
                        : Words.of(gone ? "line.bringBack" : "line.restore", line.labelOf(v)));
        String where = point == null ? "" : point.line().place().label();
        consequence.setText(
                lost
                        ? Words.of("detail.forgotten")
                        : !writing
                                ? Words.of("consequence.readOnly")
                                : !mayChangeNow()
                                        ? Words.of("consequence.reader")
                                        : foreign
                                                ? Words.of(
                                                        "consequence.foreign",
                                                        where,
                                                        v.label(),
                                                        next(newestVersion),
                                                        Formats.size(v.size()))
                                                : consequence(v, l.newest().orElse(v), gone, current));
        Ui.visible(restore, writing);
        copy.setDisable(lost);
        LineRemarks said = line.saidProperty().get();
        boolean mayChange = said == null || said.rights().may(Permission.CHANGE);
        Ui.visible(put, writing && !gone);
        put.setDisable(!mayChange);
        remove.setDisable(!mayChange);
        restore.setDisable(restore.isDisabled() || !mayChange);
        model.reading().canRestoreProperty().set(!restore.isDisabled() && writing);
        Ui.visible(remove, !gone && writing);
        more(l, v, foreign, writing);
    }

    /** What else can be done here: exactly what the system of this place can. */
    private void more(Line l, Version v, boolean foreign, boolean writing) {
        more.getItems().clear();
        item("line.open", this::openChosen).setId("open");
        if (model.canRename() && l.removed().isEmpty()) {
            item("line.rename", () -> rename(l.path()));
        }
        boolean canTake = model.can(Capability.CHECK_OUT) || !l.place().isOutside();
        LineRemarks said = line.saidProperty().get();
        boolean free = said != null && said.out().isEmpty() && l.removed().isEmpty();
        if (writing && canTake && free && said.rights().may(Permission.CHECK_OUT)) {
            item("work.checkOut", model.lineActions()::checkOut);
        }
        if (line.canTake()) {
            item("line.take", line::take);
        }
        if (model.can(Capability.SNAPSHOTS) && writing) {
            item(
                    "line.snapshot",
                    () -> model.beforeSnapshot(words -> noteAsk.apply(words).ifPresent(model::snapshot)));
        }
        if (model.can(Capability.ERASING) && !foreign) {
            MenuItem erase = item("line.erase", () -> model.erase(v));
            erase.getStyleClass().add("danger-text");
        }
        if (!foreign) {
            keeping(l, v, said);
        }
        Ui.visible(more, !more.getItems().isEmpty());
    }

    /** Holding and erasing; what would be lost is said on a screen of its own first. */
    private void keeping(Line l, Version v, @Nullable LineRemarks said) {
        boolean outside = l.place().isOutside();
        boolean here = outside || !v.recipe().isElsewhere();
        // A hold on what another system has is the vault's own, and asks for no right there.
        if (said != null && (outside || said.rights().may(Permission.NOTE))) {
            more.getItems().add(new javafx.scene.control.SeparatorMenuItem());
            if (here) {
                item("line.holdVersion", () -> model.routes().hold(v.number()))
                        .setText(Words.of("line.holdVersion", line.labelOf(v)));
            }
            item("line.holdFile", () -> model.routes().hold(0));
        }
        if (!outside && said != null && said.rights().may(Permission.ERASE)) {
            more.getItems().add(new javafx.scene.control.SeparatorMenuItem());
            boolean letGo = said.verdicts().letGo().containsKey(v.number());
            if (here && !letGo) {
                MenuItem one = item("line.eraseVersion", () -> model.routes().erase(Erasing.What.VERSION, v.number()));
                one.setText(Words.of("line.eraseVersion", line.labelOf(v)));
                one.getStyleClass().add("danger-text");
            }
            if (l.versions().size() > 1) {
                item("line.eraseOlder", () -> model.routes().erase(Erasing.What.OLDER, 0))
                        .getStyleClass()
                        .add("danger-text");
            }
            item("line.eraseAll", () -> model.routes().erase(Erasing.What.ALL, 0))
                    .getStyleClass()
                    .add("danger-text");
        }
    }

    private MenuItem item(String key, Runnable action) {
        MenuItem item = new MenuItem(Words.of(key));
        item.setId(key.replace('.', '-'));
        item.setOnAction(e -> action.run());
        more.getItems().add(item);
        return item;
    }

    private boolean mayChangeNow() {
        LineRemarks said = line.saidProperty().get();
        return said == null || said.rights().may(Permission.CHANGE);
    }

    private String consequence(Version v, Version newest, boolean gone, boolean current) {
        String label = line.labelOf(v);
        if (current) {
            return Words.of("consequence.current", label);
        }
        String next = next(newest);
        return gone
                ? Words.of("consequence.bringBack", label, next, Formats.size(v.size()), v.path())
                : Words.of("consequence.restore", label, next, Formats.size(v.size()), line.labelOf(newest));
    }

    /** What the version will be called that comes after the newest. */
    private String next(Version newest) {
        LineRemarks said = line.saidProperty().get();
        boolean drafts = said != null
                && (said.out().isPresent()
                        || said.rights().settings().get(Setting.NUMBERING).equals("drafts"));
        return (drafts ? newest.edition().nextDraft() : newest.edition().nextPublished()).label();
    }

    /** Where the divider between line and content stands, 0 to 1. */
    double divider() {
        return split.getDividerPositions()[0];
    }

    /** Puts it, once there is space to put it in: before that the layout would move it away again. */
    void divider(double position) {
        split.setDividerPositions(position);
        if (split.getHeight() < ROOM) {
            split.heightProperty().addListener(new ChangeListener<>() {
                @Override
                public void changed(ObservableValue<? extends Number> o, Number before, Number height) {
                    if (height.doubleValue() >= ROOM) {
                        split.heightProperty().removeListener(this);
                        Platform.runLater(() -> split.setDividerPositions(position));
                    }
                }
            });
        }
    }

    void restoreChosen() {
        Version v = line.chosenProperty().get();
        if (v != null && !restore.isDisabled()) {
            model.restore(v);
        }
    }

    void copyChosen() {
        Version v = line.chosenProperty().get();
        if (v != null) {
            folderAsk.get().ifPresent(folder -> model.copy(v, folder.toPath(), done -> {}));
        }
    }

    /** Asks for another name of what is at this path. */
    void rename(String path) {
        if (model.canRename()) {
            nameAsk.apply(RelativePath.name(path)).ifPresent(name -> model.rename(path, name));
        }
    }

    /** Removes the file from its folder where that is offered; undo brings it back. */
    void removeFile() {
        if (remove.isVisible() && !remove.isDisabled()) {
            remove.fire();
        }
    }

    /** Whether the keys are among the points of the line. */
    boolean hasKeys() {
        return points.isFocused();
    }

    /** Puts the chosen version on the clipboard, as a file that can be pasted into a folder or a message. */
    void copyToClipboard() {
        Version v = line.chosenProperty().get();
        if (v != null && !copy.isDisabled()) {
            model.openCopy(v, file -> {
                ClipboardContent content = new ClipboardContent();
                content.putFiles(List.of(file.toFile()));
                Clipboard.getSystemClipboard().setContent(content);
                model.say(Words.of("files.onClipboard", line.labelOf(v), line.name()), false, false);
            });
        }
    }

    private void openChosen() {
        Version v = line.chosenProperty().get();
        if (v != null) {
            model.openCopy(v, opener);
        }
    }
}
