package org.mendedleaf.desktop.files;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.SplitPane;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.ActionRow;
import org.mendedleaf.desktop.widgets.LazyView;
import org.mendedleaf.desktop.widgets.Ui;

/** The Files screen. */
public final class FilesView extends BorderPane {

    private final FilesModel model;
    private final SplitPane split = new SplitPane();
    private final LineView line;
    private final LazyView<ReadingView> reading;
    private final ListingTable table;
    private final Label counts = Ui.label("", "dim");
    private final CheckBox removed = new CheckBox();
    private final CheckBox added = new CheckBox();
    private Supplier<Optional<List<File>>> filesAsk = Optional::empty;
    private Supplier<Optional<File>> folderAsk = Optional::empty;
    private java.util.function.Function<String, Optional<File>> saveAsk = name -> Optional.empty();

    /**
     * The screen over this model.
     *
     * @param protect leads to protecting another folder
     */
    public FilesView(FilesModel model, Runnable protect) {
        this.model = model;
        getStyleClass().add("files");
        RulerView ruler = new RulerView(model);
        VBox top = new VBox(new CoordinateBar(model, protect), ruler, new PastBar(model));
        top.getStyleClass().add("files-top");
        setTop(top);

        table = new ListingTable(model);
        VBox.setVgrow(table, Priority.ALWAYS);
        removed.setId("show-removed");
        removed.selectedProperty().bindBidirectional(model.showRemovedProperty());
        added.setId("show-added");
        added.selectedProperty().bindBidirectional(model.showAddedProperty());
        ActionRow foot = new ActionRow(counts, removed, added).right(putIn());
        foot.getStyleClass().add("listing-foot");
        VBox left = new VBox(table, new TicksBar(model), foot);
        left.getStyleClass().add("sheet");
        line = new LineView(model);
        split.getItems().addAll(left, line);
        split.setDividerPositions(0.56);
        split.getStyleClass().add("files-split");
        SplitPane.setResizableWithParent(line, true);
        reading = new LazyView<>(
                () -> new ReadingView(model, line.footer()::restoreChosen, line.footer()::copyChosen, this::export));
        StackPane middle = new StackPane(split);
        reading.whenMade(view -> {
            Ui.visible(view, false);
            middle.getChildren().add(view);
        });
        model.reading().openProperty().addListener((o, a, is) -> read(is));
        setCenter(middle);

        model.listingProperty().addListener((o, a, l) -> count(l));
        model.momentProperty().addListener((o, a, at) -> Ui.style(this, "past", at != null));
        addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        count(model.listingProperty().get());
    }

    /** The large view of a version takes the place of the listing and the line; where and when stay. */
    private void read(boolean is) {
        // The keys go over while both are there, so that none is lost.
        Ui.visible(is ? reading.get() : split, true);
        if (is) {
            reading.get().focus();
        } else {
            line.focusPoints();
        }
        Ui.visible(is ? split : reading.get(), false);
    }

    /** Reads the chosen version large, from where these words stand. */
    public void read(String words) {
        reading.get().find(words);
        model.line().modeProperty().set(Detail.Mode.CONTENT);
        model.reading().open();
    }

    /** Writes the difference that is shown into a file of its own. */
    private void export(String ending) {
        reading.get()
                .compared()
                .ifPresent(compared -> saveAsk.apply(model.reading().exportName(compared, ending))
                        .ifPresent(file -> model.reading()
                                .export(
                                        compared,
                                        file.toPath(),
                                        (words, trouble) -> model.say(words, false, trouble))));
    }

    /** Puts a way to ask where a new file shall be in place; it is given a name for it. */
    public void setSaveAsk(java.util.function.Function<String, Optional<File>> ask) {
        saveAsk = ask;
        line.setSaveAsk(ask);
    }

    /** Ways of putting in what is not for one file alone. */
    private MenuButton putIn() {
        MenuButton in = new MenuButton(Words.of("listing.in"));
        in.setId("listing-in");
        in.getStyleClass().addAll("flat", "text-button");
        MenuItem some = item(
                "listing.in.files",
                () -> filesAsk.get().ifPresent(f -> model.intake().comeIn(paths(f), null)));
        MenuItem whole = item(
                "listing.in.folder",
                () -> folderAsk.get().ifPresent(f -> model.intake().comeIn(List.of(f.toPath()), null)));
        in.getItems()
                .addAll(
                        some,
                        whole,
                        new SeparatorMenuItem(),
                        item("listing.in.fold", model.routes()::fold),
                        item("listing.in.strays", model.routes()::strays));
        model.placeProperty().addListener((o, a, openPlace) -> {
            boolean writing = model.can(Capability.WRITING);
            in.setDisable(!writing);
            in.getItems()
                    .get(4)
                    .setDisable(openPlace == null || openPlace.place().isOutside());
        });
        return in;
    }

    private static MenuItem item(String key, Runnable action) {
        MenuItem item = new MenuItem(Words.of(key));
        item.setId(key.replace('.', '-'));
        item.setOnAction(e -> action.run());
        return item;
    }

    private static List<Path> paths(List<File> files) {
        return files.stream().map(File::toPath).toList();
    }

    /** Puts what was copied elsewhere in: onto the selected file, else into the folder. */
    private boolean paste() {
        Clipboard board = Clipboard.getSystemClipboard();
        if (!board.hasFiles()) {
            return false;
        }
        model.intake().comeIn(paths(board.getFiles()), model.selectedProperty().get());
        return true;
    }

    private void count(Listing l) {
        counts.setText(Words.of(
                "listing.counts", Formats.number(l.files()), l.files(), Formats.number(l.folders()), l.folders()));
        removed.setText(Words.of("listing.removed", l.removed()));
        Ui.visible(removed, l.removed() > 0);
        added.setText(Words.of("listing.added", l.added()));
        Ui.visible(added, l.added() > 0);
    }

    private void key(KeyEvent e) {
        if (e.isControlDown() && e.getCode() == KeyCode.ENTER) {
            line.footer().restoreChosen();
        } else if (e.isControlDown() && e.getCode() == KeyCode.S) {
            line.footer().copyChosen();
        } else if (e.isControlDown() && e.getCode() == KeyCode.DIGIT1) {
            model.line().modeProperty().set(Detail.Mode.CHANGES);
        } else if (e.isControlDown() && e.getCode() == KeyCode.DIGIT2) {
            model.line().modeProperty().set(Detail.Mode.CONTENT);
        } else if (e.isControlDown() && e.getCode() == KeyCode.DIGIT3) {
            model.line().modeProperty().set(Detail.Mode.FACTS);
        } else if (e.isControlDown() && e.getCode() == KeyCode.DIGIT4) {
            model.line().modeProperty().set(Detail.Mode.NOTES);
        } else if (e.isControlDown() && e.getCode() == KeyCode.L) {
            model.reading().open();
        } else if (e.isControlDown() && e.getCode() == KeyCode.I) {
            model.intake().open();
        } else if (e.isControlDown() && e.getCode() == KeyCode.V && !isTyping() && paste()) {
            e.consume();
            return;
        } else if (e.isControlDown() && e.getCode() == KeyCode.C && (table.isFocused() || line.hasKeys())) {
            line.footer().copyToClipboard();
        } else if (e.getCode() == KeyCode.DELETE
                && table.isFocused()
                && model.selectedProperty().get() != null
                && !model.selectedProperty().get().isFolder()) {
            line.footer().removeFile();
        } else if (e.getCode() == KeyCode.F2
                && table.isFocused()
                && model.selectedProperty().get() != null
                && !model.selectedProperty().get().isRemoved()) {
            line.footer().rename(model.selectedProperty().get().path());
        } else if (e.getCode() == KeyCode.ESCAPE
                && model.intake().putting().openProperty().get()) {
            model.intake().putting().close();
        } else if (e.isControlDown() && e.getCode() == KeyCode.R) {
            model.routes().recover();
        } else if (e.isControlDown() && e.isShiftDown() && e.getCode() == KeyCode.B) {
            model.routes().rollBack();
        } else if (e.isControlDown() && e.getCode() == KeyCode.M) {
            model.routes().compare();
        } else if (e.isAltDown() && e.getCode() == KeyCode.LEFT) {
            model.steps().earlier();
        } else if (e.isAltDown() && e.getCode() == KeyCode.RIGHT) {
            model.steps().later();
        } else if (e.isAltDown()
                && e.getCode() == KeyCode.UP
                && !model.reading().openProperty().get()) {
            model.up();
        } else if (e.getCode() == KeyCode.ESCAPE
                && model.momentProperty().get() != null
                && !model.reading().openProperty().get()) {
            model.momentProperty().set(null);
        } else {
            return;
        }
        e.consume();
    }

    private boolean isTyping() {
        return getScene() != null
                && getScene().getFocusOwner() instanceof javafx.scene.control.TextInputControl text
                && text.isEditable();
    }

    /** Puts a way to ask for several files in place. */
    public void setFilesAsk(Supplier<Optional<List<File>>> ask) {
        filesAsk = ask;
    }

    /** Gives the large view a key, if it is open and something beside it has the keys, as after what had them is gone. */
    public void keyBesideReading(KeyEvent e) {
        if (!model.reading().openProperty().get() || isTyping()) {
            return;
        }
        for (Node at = getScene().getFocusOwner(); at != null; at = at.getParent()) {
            if (at == reading.get()) {
                return;
            }
        }
        reading.get().key(e);
        if (e.isConsumed() && model.reading().openProperty().get()) {
            reading.get().focus();
        }
    }

    /** Gives the listing the keys. */
    public void focusListing() {
        table.requestFocus();
    }

    /** Where copies are asked for. */
    public void setFolderAsk(Supplier<Optional<File>> ask) {
        folderAsk = ask;
        line.setFolderAsk(ask);
    }

    /** Puts a way to ask for words in place. */
    public void setNoteAsk(java.util.function.Function<String, java.util.Optional<String>> ask) {
        line.setNoteAsk(ask);
    }

    /** Puts a way to ask for another name in place. */
    public void setNameAsk(java.util.function.Function<String, java.util.Optional<String>> ask) {
        line.footer().setNameAsk(ask);
    }

    /** Puts a way to ask for a file in place. */
    public void setFileAsk(java.util.function.Supplier<java.util.Optional<java.io.File>> ask) {
        line.setFileAsk(ask);
        reading.whenMade(view -> view.setFileAsk(ask));
    }

    /** What opens copies in other programs. */
    public void setOpener(Consumer<Path> opener) {
        line.footer().setOpener(opener);
    }

    /** Where the divider stands, 0 to 1. */
    public double divider() {
        return split.getDividerPositions()[0];
    }

    /** Puts the divider. */
    public void divider(double position) {
        split.setDividerPositions(position);
    }

    /** Where the divider between a line and its content stands, 0 to 1. */
    public double contentDivider() {
        return line.divider();
    }

    /** Puts it. */
    public void contentDivider(double position) {
        line.divider(position);
    }

    /** How the columns of the listing stand. */
    public String columns() {
        return table.layoutOfColumns();
    }

    /** Puts the columns as they stood. */
    public void columns(String layout) {
        table.layoutColumns(layout);
    }
}
