package org.mendedleaf.desktop.shell;

import java.io.IOException;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextInputDialog;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** Who works here, and who could: the person of this computer, members of its folders, whose addresses are known. */
final class WhoMenu extends MenuButton {

    private final AppContext context;
    private final Background.Newest question;
    private final Runnable tour;
    private Set<String> known = Set.of();

    /**
     * The menu.
     *
     * @param tour begins the tour once more
     */
    WhoMenu(AppContext context, Runnable tour) {
        this.context = context;
        this.tour = tour;
        this.question = context.background().new Newest();
        setId("who");
        setMinWidth(USE_PREF_SIZE);
        getStyleClass().addAll("flat", "text-button", "who");
        setAccessibleText(Words.of("who.menu"));
        setOnShowing(e -> fill());
        context.changesProperty().addListener((o, a, b) -> load());
        context.places().addListener((javafx.collections.ListChangeListener<OpenPlace>) c -> load());
        show(Set.of());
    }

    private void load() {
        java.util.List<OpenPlace> places = java.util.List.copyOf(context.places());
        question.ask(
                () -> {
                    Set<String> names = new TreeSet<>();
                    for (OpenPlace h : places) {
                        if (!h.place().isOutside()) {
                            try (Reading reading = h.vault().read()) {
                                PlaceRules.of(reading, h.place()).settings().members().stream()
                                        .map(Member::who)
                                        .forEach(names::add);
                            }
                        }
                    }
                    return names;
                },
                this::show,
                e -> org.slf4j.LoggerFactory.getLogger(WhoMenu.class).debug("no members", e));
    }

    private void show(Set<String> names) {
        known = names;
        setText(context.settings().who());
        // What is under the pointer is not taken away; it is filled anew when it is opened.
        if (!isShowing()) {
            fill();
        }
    }

    private void fill() {
        Set<String> names = new TreeSet<>(known);
        names.addAll(context.settings().addresses().keySet());
        names.add(context.settings().person());
        getItems().clear();
        for (String name : names) {
            MenuItem item = new MenuItem(
                    name.equals(context.settings().person()) ? Words.of("who.person", name) : Words.of("who.as", name));
            item.setDisable(name.equals(context.settings().who()));
            item.setOnAction(e -> workAs(name));
            getItems().add(item);
        }
        MenuItem other = new MenuItem(Words.of("who.other"));
        other.setOnAction(e -> {
            TextInputDialog dialog = new TextInputDialog();
            dialog.initOwner(getScene().getWindow());
            dialog.setTitle(Words.of("desktop.title"));
            dialog.setHeaderText(Words.of("who.ask"));
            dialog.setGraphic(null);
            dialog.showAndWait().map(String::strip).filter(n -> !n.isEmpty()).ifPresent(this::workAs);
        });
        MenuItem again = new MenuItem(Words.of("who.tour"));
        again.setId("tour-again");
        again.setDisable(context.places().stream().allMatch(h -> h.place().isOutside()));
        again.setOnAction(e -> tour.run());
        getItems()
                .addAll(new SeparatorMenuItem(), other, new SeparatorMenuItem(), again, cells(), scales(), languages());
    }

    /** The languages of the words; one that is chosen is spoken from the next start of the window. */
    private Menu languages() {
        Menu menu = new Menu(Words.of("who.language"));
        menu.setId("languages");
        String chosen = context.settings().language();
        menu.getItems().add(language(Words.of("who.language.system"), null, chosen == null));
        for (Locale each : Words.LANGUAGES) {
            String tag = each.toLanguageTag();
            menu.getItems().add(language(each.getDisplayLanguage(each), tag, tag.equals(chosen)));
        }
        return menu;
    }

    /** How large everything is; what is chosen counts from the next start of the window. */
    private Menu scales() {
        Menu menu = new Menu(Words.of("who.scale"));
        menu.setId("scales");
        int chosen = context.settings().scale();
        menu.getItems().add(scale(Words.of("who.scale.system"), 0, chosen));
        for (int percent : UserSettings.SCALES) {
            menu.getItems().add(scale(Words.of("who.scale.percent", percent), percent, chosen));
        }
        return menu;
    }

    private RadioMenuItem scale(String words, int percent, int chosen) {
        return choice(
                "scale-" + percent,
                words,
                percent == chosen,
                () -> context.settings().scale(percent),
                Words.of("who.scale.next"));
    }

    /** What writes a setting. */
    private interface Setting {
        void set() throws IOException;
    }

    private RadioMenuItem choice(String id, String words, boolean chosen, Setting setting, String next) {
        RadioMenuItem item = new RadioMenuItem(words);
        item.setId(id);
        item.setSelected(chosen);
        item.setOnAction(e -> {
            try {
                setting.set();
                context.tell(next);
            } catch (IOException failed) {
                org.slf4j.LoggerFactory.getLogger(WhoMenu.class).warn("{} is not remembered", id, failed);
                context.tell(Failures.words(failed));
            }
            fill();
        });
        return item;
    }

    /** Whether tables that are written for spreadsheets keep text that begins as a formula does from being computed. */
    private CheckMenuItem cells() {
        CheckMenuItem item = new CheckMenuItem(Words.of("who.cells"));
        item.setId("safe-cells");
        item.setSelected(context.settings().cells() == CsvTable.Cells.TEXT);
        item.setOnAction(e -> {
            try {
                context.settings().cells(item.isSelected() ? CsvTable.Cells.TEXT : CsvTable.Cells.AS_IS);
                context.tell(Words.of("who.cells.next"));
            } catch (IOException failed) {
                org.slf4j.LoggerFactory.getLogger(WhoMenu.class).warn("the choice is not remembered", failed);
                context.tell(Failures.words(failed));
            }
            fill();
        });
        return item;
    }

    private RadioMenuItem language(String words, @Nullable String tag, boolean chosen) {
        return choice(
                "language-" + (tag == null ? "system" : tag),
                words,
                chosen,
                () -> context.settings().language(tag),
                Words.of("who.language.next", words));
    }

    private void workAs(String name) {
        try {
            context.settings().workAs(name);
            setText(name);
            context.changed();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(WhoMenu.class).warn("who works here is not remembered", e);
        }
    }
}
