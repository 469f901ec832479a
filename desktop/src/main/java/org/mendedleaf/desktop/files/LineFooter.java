package org.mendedleaf.desktop.files;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
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
import org.mendedleaf.desktop.widgets.Ui;

/** What can be done with the chosen version of a line, and what that would do. */
final class LineFooter extends VBox {

    private final FilesModel model;
    private final LineModel line;
    private final Button restore = new Button();
    private final Label consequence = Ui.label("", "consequence");
    private final Button copy;
    private final Button put;
    private final Button remove;
    private final MenuButton more = new MenuButton();

    /** Asks for a folder; tests put an answer in its place. */
    private Supplier<Optional<File>> folderAsk = Optional::empty;

    private Function<String, Optional<String>> noteAsk = words -> Optional.of("");

    /** Asks for a name; it is given the one that is. */
    private Function<String, Optional<String>> nameAsk = name -> Optional.empty();

    private Consumer<Path> opener = path -> {};

    /** Asks for a file to write; it is given a name to begin with. */
    private Function<String, Optional<File>> saveAsk = name -> Optional.empty();

    LineFooter(FilesModel model) {
        super(6);
        this.model = model;
        this.line = model.line();
        restore.setId("restore");
        restore.getStyleClass().add("accent");
        restore.setOnAction(e -> restoreChosen());
        copy = Ui.button("line.copy", this::copyChosen);
        copy.setId("copy");
        put = Ui.button("line.put", model.intake()::open);
        put.setId("put");
        remove = Ui.button("line.remove", model::remove, "danger-text");
        remove.setId("remove");
        more.setId("more");
        more.setText(Words.of("line.more"));
        more.getStyleClass().add("flat");
        ActionRow buttons = new ActionRow(restore, put, copy, more).right(remove);
        buttons.getStyleClass().add("line-buttons");
        getChildren().addAll(consequence, buttons);
        getStyleClass().add("sheet-footer");
    }

    void setFolderAsk(Supplier<Optional<File>> ask) {
        folderAsk = ask;
    }

    /** Asks for words, with this question; empty when they do not want to after all. */
    void setNoteAsk(Function<String, Optional<String>> ask) {
        noteAsk = ask;
    }

    /** Asks for another name than this one; empty when it stays. */
    void setNameAsk(Function<String, Optional<String>> ask) {
        nameAsk = ask;
    }

    void setSaveAsk(Function<String, Optional<File>> ask) {
        saveAsk = ask;
    }

    void setOpener(Consumer<Path> with) {
        opener = with;
    }

    /** Shows what can be done with the version that is chosen now. */
    void show() {
        Version v = line.chosenProperty().get();
        Line l = line.lineProperty().get();
        if (v == null || l == null) {
            restore.setDisable(true);
            return;
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
        Ui.refill(more, () -> more(l, v, foreign, writing));
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
        item(
                "line.report",
                () -> saveAsk.apply(Words.of("report.lineName", l.name()))
                        .ifPresent(f -> model.lineActions().report(f.toPath())));
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
