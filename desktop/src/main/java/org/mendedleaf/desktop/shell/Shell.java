package org.mendedleaf.desktop.shell;

import java.io.File;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.event.EventHandler;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.guide.Guide;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.document.DifferenceView;
import org.mendedleaf.desktop.document.DocumentPane;
import org.mendedleaf.desktop.files.FilesModel;
import org.mendedleaf.desktop.files.FilesView;
import org.mendedleaf.desktop.find.FindModel;
import org.mendedleaf.desktop.find.FindView;
import org.mendedleaf.desktop.intake.FoldView;
import org.mendedleaf.desktop.intake.GuardView;
import org.mendedleaf.desktop.intake.IntakeView;
import org.mendedleaf.desktop.journal.JournalModel;
import org.mendedleaf.desktop.journal.JournalView;
import org.mendedleaf.desktop.mend.MendModel;
import org.mendedleaf.desktop.mend.MendView;
import org.mendedleaf.desktop.protection.ProtectModel;
import org.mendedleaf.desktop.protection.ProtectView;
import org.mendedleaf.desktop.protection.ProtectionModel;
import org.mendedleaf.desktop.protection.ProtectionView;
import org.mendedleaf.desktop.recovery.CompareView;
import org.mendedleaf.desktop.recovery.PlanView;
import org.mendedleaf.desktop.retention.RetentionModel;
import org.mendedleaf.desktop.retention.RetentionView;
import org.mendedleaf.desktop.snapshots.SnapshotsView;
import org.mendedleaf.desktop.widgets.LazyView;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** The frame around the screens: name and person above, what goes on below. */
public final class Shell extends BorderPane {

    private final AppContext context;
    private final Theme theme;
    private Function<File, Optional<File>> folderAsk;
    private final FilesModel files;
    private final FilesView filesView;
    private final TourModel tour;
    private final ProtectionModel protection;
    private final LazyView<ProtectionView> protectionView;
    private final LazyView<RetentionView> retentionView;
    private final LazyView<FindView> findView;
    private final MendModel mend;
    private final LazyView<MendView> mendView;
    private final JournalModel journal;
    private final LazyView<JournalView> journalView;
    private Button filesTab = new Button();
    private Button mendTab = new Button();
    private Button journalTab = new Button();
    private Button protectionTab = new Button();
    private Button retentionTab = new Button();
    private final Button findTab = new Button();
    private final StackPane middle = new StackPane();
    private final KeysSheet keys = new KeysSheet();
    private final ScreenNavigator navigator;
    private Function<String, Optional<File>> saveAsk = name -> Optional.empty();
    private Consumer<Path> opener = path -> {};
    private final Set<KeyCode> down = EnumSet.noneOf(KeyCode.class);

    /** A bar that is wider has space for everything. */
    private static final double WIDE = 1180;

    /** Two ways that people know for the same. */
    private static final List<KeyCombination> REDO =
            List.of(KeyCombination.valueOf("Ctrl+Shift+Z"), KeyCombination.valueOf("Ctrl+Y"));

    Shell(AppContext context, Theme theme, Function<File, Optional<File>> folderAsk) {
        this.context = context;
        this.theme = theme;
        this.folderAsk = folderAsk;
        this.files = new FilesModel(context);
        this.filesView = new FilesView(files, () -> protect(false));
        this.tour = new TourModel(context, files);
        this.protection = new ProtectionModel(context);
        this.protectionView = new LazyView<>(() -> new ProtectionView(
                protection,
                start -> this.folderAsk.apply(start),
                openPlace -> {
                    files.open(openPlace, "");
                    showFiles();
                },
                (openPlace, lost) -> {
                    files.reveal(
                            openPlace, lost.version().path(), lost.version().line(), null);
                    showFiles();
                },
                () -> protect(false)));
        this.retentionView = new LazyView<>(() -> new RetentionView(new RetentionModel(context)));
        this.findView = new LazyView<>(() -> new FindView(new FindModel(context), this::lead));
        this.mend = new MendModel(context);
        this.mendView = new LazyView<>(
                () -> new MendView(mend, (words, undo) -> files.say(words, undo, false), this::showProtection));
        this.journal = new JournalModel(context);
        this.journalView = new LazyView<>(() -> new JournalView(
                journal,
                (openPlace, action) -> files.undoActions().undo(openPlace, action),
                (openPlace, item) -> {
                    files.reveal(
                            openPlace,
                            org.mendedleaf.core.disk.RelativePath.child(item.folder(), item.name()),
                            item.line(),
                            null);
                    showFiles();
                },
                name -> saveAsk.apply(name),
                words -> files.say(words, false, false)));
        context.changesProperty().addListener((o, a, b) -> {
            if (journalView.isIn(middle)) {
                journal.reload();
            }
        });
        context.looksProperty().addListener((o, a, b) -> {
            if (protectionView.isIn(middle)) {
                protection.reload();
            }
        });
        context.noticeProperty()
                .addListener((o, a, notice) -> files.say(notice.words(), false, notice.needsSomebody()));
        this.navigator =
                new ScreenNavigator(context, files, view -> middle.getChildren().setAll(view), this::showFiles);
        files.routes().setNavigator(navigator);
        getStyleClass().add("shell");
        Supplier<Optional<File>> fromHome =
                () -> folderAsk.apply(UserFolders.home().toFile());
        filesView.setFolderAsk(fromHome);
        navigator.setFolderAsk(fromHome);
        setTop(new VBox(bar(), new TourBar(tour)));
        Label opening = Ui.label(Words.of("shell.opening"), "dim");
        middle.getChildren().add(opening);
        setCenter(new StackPane(middle, keys));
        setBottom(new VBox(
                new JobRows(context.jobs()),
                new StatusBar(context, this::showProtection, new MessageBar(files, this::helpWith))));
        // Where what had the keys was taken away a moment ago, the scene alone hears of a key.
        EventHandler<KeyEvent> pressed = this::key;
        EventHandler<KeyEvent> released = e -> down.remove(e.getCode());
        sceneProperty().addListener((o, was, scene) -> {
            if (was != null) {
                was.removeEventFilter(KeyEvent.KEY_PRESSED, pressed);
                was.removeEventFilter(KeyEvent.KEY_RELEASED, released);
            }
            if (scene != null) {
                scene.addEventFilter(KeyEvent.KEY_PRESSED, pressed);
                scene.addEventFilter(KeyEvent.KEY_RELEASED, released);
            }
        });
        sceneProperty().flatMap(Scene::focusOwnerProperty).subscribe(owner -> {
            if (owner == null) {
                Platform.runLater(this::takeKeys);
            }
        });
    }

    /** When what had the keys is gone, as the button of a row that was dealt with, the screen has them. */
    private void takeKeys() {
        if (getScene() != null
                && getScene().getFocusOwner() == null
                && !middle.getChildren().isEmpty()) {
            middle.getChildren().get(0).requestFocus();
        }
    }

    private HBox bar() {
        HBox bar = new HBox(14);
        bar.getStyleClass().add("top-bar");
        bar.setAlignment(Pos.CENTER_LEFT);
        filesTab = tab("tab.files", this::showFiles);
        mendTab = tab("tab.mend", this::showMend);
        mend.openProperty().addListener((o, a, n) -> {
            mendTab.setText(n.intValue() == 0 ? Words.of("tab.mend") : Words.of("tab.mend.open", n.intValue()));
            Ui.style(mendTab, "tab-open", n.intValue() > 0);
        });
        protectionTab = tab("tab.protection", this::showProtection);
        retentionTab = tab("tab.retention", this::showRetention);
        journalTab = tab("tab.journal", this::showJournal);
        Label brand = Ui.label(Words.of("desktop.title"), "brand");
        bar.widthProperty().addListener((o, a, width) -> {
            // The way round comes before the name of the program.
            Ui.visible(brand, width.doubleValue() >= WIDE);
            Ui.style(bar, "narrow", width.doubleValue() < WIDE);
        });
        bar.getChildren()
                .addAll(
                        Shapes.mark(),
                        brand,
                        filesTab,
                        mendTab,
                        protectionTab,
                        retentionTab,
                        journalTab,
                        Ui.spacer(),
                        findButton(),
                        new WhoMenu(context, tour::again),
                        new UndoMenu(context, files),
                        Ui.iconButton(Feather.MOON, "shell.theme", theme::toggle),
                        Ui.iconButton(Feather.HELP_CIRCLE, "shell.keys", keys::toggle));
        return bar;
    }

    /** It looks like the box that it leads to. */
    private Button findButton() {
        Button find = Ui.button("find.button", this::showFind, "find-button");
        find.setId("find-open");
        find.setGraphic(new org.kordamp.ikonli.javafx.FontIcon(Feather.SEARCH));
        return find;
    }

    private void showFind() {
        here(findTab);
        middle.getChildren().setAll(findView.get());
        findView.get().begin();
    }

    /** Leads to what was found: a point on its line, read large, at the words; or the moment of a snapshot. */
    private void lead(FindModel.Hit hit) {
        if (hit instanceof FindModel.OfSnapshot of) {
            files.open(of.openPlace(), of.snapshot().path());
            files.momentProperty().set(of.snapshot().at());
            showFiles();
        } else if (hit instanceof FindModel.OfFile of) {
            files.lead(of.openPlace(), of.file().line(), of.file().version().orElse(null));
            showFiles();
            if (!of.file().spans().isEmpty()) {
                filesView.read(findView.get().words());
            }
        }
    }

    /** Opens the user's data: the place and folder that were looked at last, or the way to protect one. */
    void open() {
        open(null);
    }

    /** Opens the user's data, and the line of this file where one is named. */
    void open(@Nullable Path past) {
        context.open(() -> {
            UserSettings home = context.settings();
            openLast();
            if (files.placeProperty().get() != null) {
                showFiles();
            } else if (home.vaults().isEmpty()) {
                protect(true);
            } else {
                noVault();
            }
            filesView.columns(home.remembered("columns"));
            files.showRemovedProperty().set(!home.remembered("removed").equals("false"));
            String divider = home.remembered("divider");
            if (divider.matches("0\\.\\d+")) {
                filesView.divider(Double.parseDouble(divider));
            }
            String content = home.remembered("contentDivider");
            if (content.matches("0\\.\\d+")) {
                filesView.contentDivider(Double.parseDouble(content));
            }
            if (past != null && files.placeProperty().get() != null) {
                files.leadTo(past);
            }
        });
    }

    /** Goes to the place that was looked at last, or to any; stays nowhere while there is none. */
    private void openLast() {
        UserSettings home = context.settings();
        Optional<OpenPlace> last = context.places().stream()
                .filter(h -> h.place().where().equals(home.remembered("place")))
                .findFirst()
                .or(() -> context.places().stream().findFirst());
        if (last.isPresent()) {
            boolean same = last.get().place().where().equals(home.remembered("place"));
            files.open(last.get(), same ? home.remembered("folder") : "");
        }
    }

    /** There are vaults, and none of them can be opened: a disk is away, most likely. */
    private void noVault() {
        Label why = Ui.label(context.troubleProperty().get(), "dim", "centered");
        why.setId("no-vault");
        why.setWrapText(true);
        why.setMaxWidth(560);
        VBox sheet = new VBox(
                16,
                Ui.label(Words.of("shell.noVault"), "big-title"),
                why,
                Ui.button("shell.again", this::open, "accent"),
                Ui.button("mend.protection", this::showProtection, "flat"),
                Ui.button("where.protect", () -> protect(true), "flat"));
        sheet.setAlignment(Pos.CENTER);
        middle.getChildren().setAll(sheet);
    }

    private static Button tab(String key, Runnable show) {
        Button tab = Ui.button(key, show, "flat", "tab");
        tab.setId(key.replace('.', '-'));
        tab.setMinWidth(USE_PREF_SIZE);
        return tab;
    }

    private void here(Button tab) {
        Ui.style(filesTab, "tab-here", tab == filesTab);
        Ui.style(mendTab, "tab-here", tab == mendTab);
        Ui.style(protectionTab, "tab-here", tab == protectionTab);
        Ui.style(retentionTab, "tab-here", tab == retentionTab);
        Ui.style(journalTab, "tab-here", tab == journalTab);
    }

    private void showMend() {
        here(mendTab);
        middle.getChildren().setAll(mendView.get());
        mendView.get().begin();
    }

    private void showProtection() {
        here(protectionTab);
        protection.reload();
        middle.getChildren().setAll(protectionView.get());
    }

    private void showRetention() {
        here(retentionTab);
        retentionView.get().reload();
        middle.getChildren().setAll(retentionView.get());
    }

    private void showJournal() {
        here(journalTab);
        middle.getChildren().setAll(journalView.get());
        journalView.get().begin();
    }

    private void showFiles() {
        if (files.placeProperty().get() == null) {
            // A vault may have been opened since.
            openLast();
        }
        if (files.placeProperty().get() == null) {
            protect(context.settings().vaults().isEmpty());
            return;
        }
        here(filesTab);
        middle.getChildren().setAll(filesView);
        javafx.application.Platform.runLater(filesView::focusListing);
    }

    private void protect(boolean first) {
        ProtectModel model = new ProtectModel(context);
        model.suggest();
        ProtectView view = new ProtectView(
                model,
                first,
                folderAsk,
                openPlace -> {
                    files.open(openPlace, "");
                    showFiles();
                    if (first) {
                        tour.begin();
                    }
                },
                this::showFiles);
        middle.getChildren().setAll(view);
    }

    private void key(KeyEvent e) {
        if (middle.getChildren().contains(filesView)) {
            filesView.keyBesideReading(e);
        }
        if (e.isConsumed()) {
            return;
        }
        if (e.isAltDown() && e.getCode() == KeyCode.DIGIT1) {
            showFiles();
        } else if (e.isAltDown() && e.getCode() == KeyCode.DIGIT2) {
            showMend();
        } else if (e.isAltDown() && e.getCode() == KeyCode.DIGIT3) {
            showProtection();
        } else if (e.isAltDown() && e.getCode() == KeyCode.DIGIT4) {
            showRetention();
        } else if (e.isAltDown() && e.getCode() == KeyCode.DIGIT5) {
            showJournal();
        } else if (e.isControlDown()
                && (e.getCode() == KeyCode.K || e.getCode() == KeyCode.F && !isReading())
                && !context.places().isEmpty()) {
            showFind();
        } else if (e.getCode() == KeyCode.ESCAPE && findView.isIn(middle)) {
            showFiles();
        } else if (e.getCode() == KeyCode.F1 && e.isShiftDown()) {
            keys.toggle();
        } else if (e.getCode() == KeyCode.F1) {
            help();
        } else if (e.getCode() == KeyCode.ESCAPE && keys.isVisible()) {
            keys.toggle();
        } else if (e.getCode() == KeyCode.ESCAPE && (navigator.leaveDifference() || leaveMendDifference())) {
            e.consume();
            return;
        } else if (e.getCode() == KeyCode.ESCAPE && navigator.leave()) {
            showFiles();
        } else if (REDO.stream().anyMatch(keys -> keys.match(e)) && !isTyping()) {
            once(e, files::redo);
        } else if (e.isControlDown() && e.getCode() == KeyCode.Z && !isTyping()) {
            once(e, files::undo);
        } else if (e.isControlDown() && e.getCode() == KeyCode.D) {
            theme.toggle();
        } else if (e.getCode() == KeyCode.F5 && files.placeProperty().get() != null) {
            context.captures()
                    .capture(
                            java.util.Objects.requireNonNull(
                                    files.placeProperty().get()),
                            r -> {});
        } else {
            return;
        }
        e.consume();
    }

    /** The page of the guide for the screen that is shown, in the browser. */
    private void help() {
        help(page());
    }

    /** What went wrong has a page, or the screen on which it is said has. */
    private void helpWith(String message) {
        help(Guide.pageFor(message).orElseGet(this::page));
    }

    private void help(String page) {
        Path into = context.settings().folder().resolve("guide");
        context.background()
                .run(
                        () -> Guide.here().write(into, page),
                        file -> {
                            opener.accept(file);
                            files.say(Words.of("guide.opened", file), false, false);
                        },
                        why -> files.say(Failures.named(why), false, true));
    }

    private String page() {
        if (findView.isIn(middle)) {
            return "find";
        }
        if (mendView.isIn(middle)) {
            return "damaged";
        }
        if (protectionView.isIn(middle)) {
            return "protect";
        }
        if (retentionView.isIn(middle)) {
            return retentionView.get().isSpace() ? "drive-full" : "how-long";
        }
        if (journalView.isIn(middle)) {
            return "undo";
        }
        if (middle.getChildren().contains(filesView)) {
            boolean reading = files.reading().openProperty().get();
            return reading ? "what-changed" : files.momentProperty().get() == null ? "saved-over" : "last-thursday";
        }
        for (Node shown : middle.getChildren()) {
            if (shown instanceof ProtectView) {
                return "protect";
            }
            if (shown instanceof PlanView || shown instanceof SnapshotsView) {
                return "last-thursday";
            }
            if (shown instanceof IntakeView || shown instanceof GuardView || shown instanceof FoldView) {
                return "revision";
            }
            if (shown instanceof CompareView) {
                return "what-changed";
            }
        }
        return "index";
    }

    /** Whether the keys are where something is read, in which can be found by itself. */
    private boolean isReading() {
        if (files.reading().openProperty().get() && middle.getChildren().contains(filesView)) {
            return true;
        }
        for (Node at = getScene().getFocusOwner(); at != null; at = at.getParent()) {
            if (at instanceof DocumentPane || at instanceof DifferenceView) {
                return true;
            }
        }
        return false;
    }

    private boolean leaveMendDifference() {
        return mendView.isIn(middle) && DifferenceView.leave(mendView.get());
    }

    /** A key that is held down repeats itself; one press undoes one thing. */
    private void once(KeyEvent e, Runnable deed) {
        if (down.add(e.getCode())) {
            deed.run();
        }
    }

    private boolean isTyping() {
        return getScene().getFocusOwner() instanceof javafx.scene.control.TextInputControl text && text.isEditable();
    }

    /** Puts a way to ask for another name in place. */
    public void setNameAsk(Function<String, Optional<String>> ask) {
        filesView.setNameAsk(ask);
    }

    /** Puts a way to ask for words in place. */
    public void setNoteAsk(Function<String, Optional<String>> ask) {
        filesView.setNoteAsk(ask);
        protectionView.whenMade(view -> view.setNoteAsk(ask));
        retentionView.whenMade(view -> view.setDayAsk(() -> ask.apply(Words.of("keeps.askDay"))));
    }

    /** Puts a way to ask for a file in place. */
    public void setFileAsk(java.util.function.Supplier<Optional<File>> ask) {
        filesView.setFileAsk(ask);
        navigator.setFileAsk(ask);
    }

    /** Puts a way to ask for several files in place. */
    public void setFilesAsk(java.util.function.Supplier<Optional<java.util.List<File>>> ask) {
        filesView.setFilesAsk(ask);
    }

    /** Puts a way to ask for a file to write in place; it is given a name to begin with. */
    public void setSaveAsk(Function<String, Optional<File>> ask) {
        saveAsk = ask;
        navigator.setSaveAsk(ask);
        filesView.setSaveAsk(ask);
        retentionView.whenMade(view -> view.setSaveAsk(ask));
        protectionView.whenMade(view -> view.setSaveAsk(ask));
    }

    void setOpener(Consumer<Path> opener) {
        this.opener = opener;
        filesView.setOpener(opener);
        navigator.setOpener(opener);
    }

    /** Puts another way to ask for a folder in place. */
    public void setFolderAsk(Supplier<Optional<File>> ask) {
        folderAsk = start -> ask.get();
        filesView.setFolderAsk(ask);
        navigator.setFolderAsk(ask);
    }

    void remember(UserSettings home) {
        OpenPlace openPlace = files.placeProperty().get();
        if (openPlace != null) {
            home.remember("place", openPlace.place().where());
            home.remember("folder", files.folderProperty().get());
        }
        home.remember("columns", filesView.columns());
        home.remember("removed", String.valueOf(files.showRemovedProperty().get()));
        home.remember("divider", String.format(java.util.Locale.ROOT, "%.3f", filesView.divider()));
        home.remember("contentDivider", String.format(java.util.Locale.ROOT, "%.3f", filesView.contentDivider()));
    }

    /** The Files screen without its scene. */
    public FilesModel files() {
        return files;
    }

    /** What all screens share. */
    public AppContext context() {
        return context;
    }
}
