package org.mendedleaf.desktop.shell;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.files.FilesModel;
import org.mendedleaf.desktop.widgets.Ui;

/** What can be undone, newest first, and the undoing that can be taken back: also what was done before the program was last started. */
final class UndoMenu extends MenuButton {

    private static final int MOST = 10;

    private final AppContext context;
    private final FilesModel files;
    private final Background.Newest question;

    /** What is done to which action, and what that action was. */
    private record Undoable(OpenPlace openPlace, Action action, Action shown) {
        boolean redo() {
            return shown.id() != action.id();
        }
    }

    UndoMenu(AppContext context, FilesModel files) {
        this.context = context;
        this.files = files;
        this.question = context.background().new Newest();
        setId("undo-menu");
        setGraphic(new FontIcon(Feather.ROTATE_CCW));
        getStyleClass().addAll("icon-button", "flat");
        setAccessibleText(Words.of("undo.menu"));
        Ui.tooltip(this, Words.of("undo.menu"));
        show(List.of());
        context.changesProperty().addListener((o, a, b) -> load());
        context.places().addListener((javafx.collections.ListChangeListener<OpenPlace>) c -> load());
    }

    private void load() {
        Map<java.nio.file.Path, OpenVault> vaults = context.vaults();
        List<OpenPlace> places = List.copyOf(context.places());
        question.ask(
                () -> find(vaults, places),
                this::show,
                e -> org.slf4j.LoggerFactory.getLogger(UndoMenu.class).debug("no actions", e));
    }

    private static List<Undoable> find(Map<java.nio.file.Path, OpenVault> vaults, List<OpenPlace> places)
            throws IOException {
        List<Undoable> found = new ArrayList<>();
        for (OpenVault vault : vaults.values()) {
            try (Reading reading = vault.read()) {
                for (Action a : JournalStore.of(reading).undoable(MOST)) {
                    Optional<OpenPlace> openPlace = places.stream()
                            .filter(h -> h.vault() == vault && h.place().id() == a.place())
                            .findFirst();
                    openPlace.ifPresent(h -> found.add(new Undoable(h, a, a)));
                }
                Optional<Action> undo = JournalStore.of(reading).lastRedoable();
                Optional<Action> was = undo.isEmpty()
                        ? Optional.empty()
                        : JournalStore.of(reading).get(undo.get().undoes());
                if (was.isPresent()) {
                    places.stream()
                            .filter(h -> h.vault() == vault
                                    && h.place().id() == undo.get().place())
                            .findFirst()
                            .ifPresent(h -> found.add(new Undoable(h, undo.get(), was.get())));
                }
            }
        }
        found.sort(Comparator.comparing((Undoable u) -> u.action().at()).reversed());
        return found.subList(0, Math.min(MOST, found.size()));
    }

    private void show(List<Undoable> all) {
        getItems().clear();
        if (all.isEmpty()) {
            MenuItem none = new MenuItem(Words.of("cli.undo.nothing"));
            none.setDisable(true);
            getItems().add(none);
        }
        for (Undoable u : all) {
            Action a = u.action();
            MenuItem item = new MenuItem(Words.of(
                    u.redo() ? "redo.item" : "undo.item",
                    u.shown().words(),
                    Formats.moment(a.at(), context.clock().instant(), context.zone()),
                    a.who()));
            item.setOnAction(e -> {
                if (u.redo()) {
                    files.undoActions().redo(u.openPlace(), a);
                } else {
                    files.undoActions().undo(u.openPlace(), a);
                }
            });
            getItems().add(item);
        }
    }
}
