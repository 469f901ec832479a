package org.mendedleaf.desktop.protection;

import java.io.File;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.UserFolders;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.Ui;

/** The selected folder or place: how it stands, its settings with what they mean, its gaps, and what can be done. */
final class PlacePane extends BorderPane {

    private static final int GAPS_SHOWN = 12;

    private final ProtectionModel model;
    private final PlaceModel place;
    private final Function<File, Optional<File>> folderAsk;
    private final Consumer<OpenPlace> openFiles;
    private final Runnable protect;
    private final Runnable newPlace;
    private Function<String, Optional<String>> noteAsk = words -> Optional.of("");
    private final AheadPane ahead;
    private final ScrollPane scroll = new ScrollPane();
    private @Nullable FolderForm settings;
    private String shown = "";
    private final VBox forgets = new VBox(3);
    private final CutsBox cuts;
    private final GridPane form = new GridPane();
    /** A choice of a setting is at least so wide. Pixels. */
    static final double FIELD_LEAST = 130;

    private final Label problem = Ui.label("", "error-text");
    private final Button save = Ui.button("protection.save", () -> {}, "accent");
    private final Button reset = Ui.button("protection.reset", () -> {}, "flat");

    PlacePane(
            ProtectionModel model,
            Function<File, Optional<File>> folderAsk,
            Consumer<OpenPlace> openFiles,
            Runnable protect,
            Runnable newPlace) {
        this.model = model;
        this.place = model.place();
        this.cuts = new CutsBox(model.context());
        this.ahead = new AheadPane(model.ahead());
        this.folderAsk = folderAsk;
        this.openFiles = openFiles;
        this.protect = protect;
        this.newPlace = newPlace;
        getStyleClass().add("sheet");
        form.getStyleClass().add("form");
        forgets.setId("forgets");
        forgets.getStyleClass().add("outlook");
        problem.setWrapText(true);
        problem.setId("place-problem");
        save.setId("place-save");
        save.setOnAction(e -> place.save());
        reset.setOnAction(e -> {
            place.reset();
            show(model.selectedProperty().get());
        });
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("place-scroll");
        place.problemProperty().addListener((o, a, words) -> {
            problem.setText(words);
            Ui.visible(problem, !words.isEmpty());
        });
        Ui.visible(problem, false);
        place.forgetsNowProperty().addListener((o, a, words) -> showForgets());
        place.forgetsThenProperty().addListener((o, a, words) -> showForgets());
        place.cutsProperty().addListener((o, a, list) -> cuts.show(list));
        place.draftProperty().addListener((o, a, d) -> changed());
        model.selectedProperty().addListener((o, a, row) -> show(row));
        show(model.selectedProperty().get());
    }

    void setNoteAsk(Function<String, Optional<String>> ask) {
        noteAsk = ask;
    }

    private void show(Coverage.@Nullable Row row) {
        if (row == null) {
            setTop(null);
            setBottom(null);
            Label nothing = Ui.label(Words.of("protection.nothing"), "dim", "centered");
            nothing.setWrapText(true);
            setCenter(nothing);
            return;
        }
        setTop(header(row));
        VBox body = body(row);
        if (row.kind().isPresent()) {
            outside(row, body);
        } else if (row.place().isPresent()) {
            folder(row, body);
        } else {
            Label text = Ui.label(Words.of("protection.uncovered"), "dim");
            text.setWrapText(true);
            body.getChildren().add(text);
        }
        // Who reads further down stays there when the same place is looked at again.
        double at = row.where().equals(shown) ? scroll.getVvalue() : 0;
        shown = row.where();
        scroll.setContent(body);
        setCenter(scroll);
        setBottom(footer(row));
        showForgets();
        cuts.show(place.cutsProperty().get());
        changed();
        layout();
        scroll.setVvalue(at);
    }

    /** The one that is there with its form, where that shows the same folder; otherwise an empty one. */
    private VBox body(Coverage.Row row) {
        boolean folder = row.kind().isEmpty() && row.place().isPresent();
        if (folder && settings != null && settings.getParent() instanceof VBox there && settings.show(row)) {
            there.getChildren().retainAll(settings, problem);
            return there;
        }
        settings = null;
        VBox body = new VBox(14);
        body.getStyleClass().add("place-body");
        return body;
    }

    private VBox header(Coverage.Row row) {
        Label title = Ui.label(row.name(), "line-title");
        title.setId("place-title");
        Label where = Ui.label(row.where(), "line-summary");
        where.setWrapText(true);
        VBox box = new VBox(4, title, where);
        if (!row.trouble().isEmpty()) {
            Label trouble = Ui.label(row.trouble(), "error-text");
            trouble.setId("place-trouble");
            trouble.setWrapText(true);
            box.getChildren().add(trouble);
            model.askEmptied(row, openPlace -> {
                Button emptied = Ui.button("protection.emptied", () -> model.captureEmptied(openPlace), "danger-text");
                emptied.setId("place-emptied");
                box.getChildren().add(emptied);
            });
        }
        row.facts()
                .filter(f -> f.clockAhead() != 0)
                .ifPresent(f -> box.getChildren()
                        .add(Ui.label(
                                Words.of(
                                        f.clockAhead() > 0 ? "protection.clockAhead" : "protection.clockBehind",
                                        Formats.duration(java.time.Duration.ofSeconds(Math.abs(f.clockAhead())))),
                                "dim",
                                "small-words")));
        box.getStyleClass().add("sheet-header");
        return box;
    }

    private HBox footer(Coverage.Row row) {
        HBox buttons = new HBox(8);
        buttons.setAlignment(Pos.CENTER_LEFT);
        buttons.getStyleClass().add("sheet-footer");
        if (row.place().isEmpty()) {
            buttons.getChildren().add(Ui.button("warning.step.PROTECT", protect, "accent"));
            return buttons;
        }
        boolean drive = row.kind().filter(k -> k == SystemKind.BACKUP_DRIVE).isPresent();
        Button run = Ui.button(drive ? "protection.run" : "protection.look", () -> model.run(row));
        run.setId("place-run");
        buttons.getChildren().add(run);
        boolean snapshots = row.kind()
                .filter(k -> k.can(Capability.SNAPSHOTS) && k.can(Capability.WRITING))
                .isPresent();
        if (snapshots) {
            Button snapshot = Ui.button(
                    "protection.snapshot",
                    () -> place.beforeSnapshot(words -> noteAsk.apply(words).ifPresent(place::snapshot)));
            snapshot.setId("place-snapshot");
            buttons.getChildren().add(snapshot);
        }
        Button open = Ui.button(
                "protection.open", () -> ProtectionModel.openPlace(row).ifPresent(openFiles));
        open.setId("place-open");
        buttons.getChildren().addAll(open, Ui.spacer());
        if (row.kind().filter(k -> !k.settings().isEmpty()).isPresent()) {
            buttons.getChildren().addAll(reset, save);
        }
        return buttons;
    }

    private static Label heading(String key) {
        return Ui.label(Words.of(key), "small-title");
    }

    /** Words that go on in the next line. */
    static Label wrapped(String words, String... styles) {
        Label label = Ui.label(words, styles);
        label.setWrapText(true);
        return label;
    }

    // A folder on this computer.

    /** The name of a field, which is never cut off. */
    static Label name(String key) {
        Label name = Ui.label(Words.of(key), "form-name");
        name.setMinWidth(USE_PREF_SIZE);
        return name;
    }

    private void folder(Coverage.Row row, VBox body) {
        FolderForm form = settings;
        if (form == null) {
            form = new FolderForm(model, row, words -> {
                problem.setText(words);
                Ui.visible(problem, !words.isEmpty());
            });
            settings = form;
            body.getChildren().addAll(form, problem);
        }
        List<Rhythm> choices = form.rhythm().choices();
        body.getChildren()
                .add(wrapped(
                        Words.of(
                                "protection.folderFacts",
                                row.files(),
                                row.versions(),
                                row.vault().orElseThrow().folder().root()),
                        "dim"));
        related(row, body);
        ProtectionModel.openPlace(row).ifPresent(openPlace -> model.ahead().show(openPlace, choices));
        body.getChildren().add(ahead);
        ProtectionModel.openPlace(row)
                .ifPresent(openPlace -> body.getChildren().add(new FolderRulesPane(model.context(), openPlace)));
        gaps(row, body);
    }

    private void gaps(Coverage.Row row, VBox body) {
        if (row.gaps().isEmpty()) {
            return;
        }
        VBox list = new VBox(4);
        list.setId("gaps");
        for (Skipped s : row.gaps().stream().limit(GAPS_SHOWN).toList()) {
            list.getChildren().add(wrapped(Words.of("protection.gap", s.path(), s.words())));
        }
        if (row.gaps().size() > GAPS_SHOWN) {
            list.getChildren()
                    .add(Ui.label(Words.of("protection.moreGaps", row.gaps().size() - GAPS_SHOWN), "dim"));
        }
        body.getChildren().addAll(heading("protection.gaps"), list);
    }

    // A place in another system.

    private void outside(Coverage.Row row, VBox body) {
        SystemKind kind = row.kind().orElseThrow();
        boolean away = row.state() == CoverageState.AWAY;
        row.facts()
                .flatMap(f -> f.unfinished())
                .ifPresent(u -> body.getChildren()
                        .add(wrapped(
                                Words.of(
                                        "protection.unfinished",
                                        Formats.moment(
                                                u,
                                                model.context().clock().instant(),
                                                model.context().zone())),
                                "clay-text")));
        if (!kind.settings().isEmpty()) {
            fillForm(kind);
            form.setDisable(away);
            body.getChildren().addAll(heading("protection.settings"), form, problem, forgets);
        } else {
            body.getChildren().add(wrapped(Words.of("protection.plain"), "dim"));
        }
        if (kind.can(Capability.MEMBERS)) {
            body.getChildren()
                    .addAll(
                            heading("protection.members"),
                            new MembersBox(
                                    place,
                                    away,
                                    () -> show(model.selectedProperty().get())));
        }
        related(row, body);
        if (kind.keepsCuts()) {
            body.getChildren()
                    .addAll(
                            heading(kind == SystemKind.BACKUP_DRIVE ? "protection.runs" : "protection.snapshots"),
                            cuts);
        }
        if (kind != SystemKind.WEBDAV) {
            Button more = Ui.button("protection.newPlace", newPlace, "flat");
            more.setId("new-place");
            more.setDisable(away);
            body.getChildren().add(more);
        }
    }

    private void fillForm(SystemKind kind) {
        form.getChildren().clear();
        PlaceSettings draft = place.draftProperty().get();
        int i = 0;
        for (Setting s : kind.settings()) {
            Label label = Ui.label(Words.of("setting." + s.text()), "form-name");
            javafx.scene.Node field = SettingField.of(kind, s, draft.get(s), value -> place.change(s, value));
            boolean matters = Outlook.matters(s, draft);
            label.setDisable(!matters);
            field.setDisable(!matters);
            field.setUserData(s);
            ((javafx.scene.layout.Region) field).setMinWidth(FIELD_LEAST);
            Label effect = wrapped(Outlook.effect(s, draft), "dim", "small-words");
            effect.setId("effect-" + s.text());
            effect.setUserData(s);
            GridPane.setHgrow(effect, javafx.scene.layout.Priority.ALWAYS);
            label.setMinWidth(USE_PREF_SIZE);
            form.addRow(i++, label, field, effect);
        }
    }

    private void related(Coverage.Row row, VBox body) {
        boolean drive = row.kind().filter(k -> k == SystemKind.BACKUP_DRIVE).isPresent();
        boolean outside = row.kind().isPresent();
        if (!outside && row.related().isEmpty()) {
            return;
        }
        body.getChildren().add(heading(drive ? "protection.backsUp" : "protection.sameAs"));
        VBox list = new VBox(2);
        list.setId("related");
        row.related().forEach(r -> list.getChildren().add(wrapped(r)));
        if (row.related().isEmpty()) {
            list.getChildren()
                    .add(wrapped(Words.of(drive ? "protection.backsUpNone" : "protection.sameAsNone"), "dim"));
        }
        body.getChildren().add(list);
        if (outside) {
            Button choose = Ui.button(
                    "protection.chooseFolder",
                    () -> folderAsk.apply(UserFolders.home().toFile()).ifPresent(f -> place.relate(f.toPath())));
            choose.setId("choose-related");
            body.getChildren().add(choose);
        }
    }

    private void showForgets() {
        forgets.getChildren().clear();
        String now = place.forgetsNowProperty().get();
        String then = place.forgetsThenProperty().get();
        if (!now.isEmpty()) {
            forgets.getChildren().add(wrapped(Words.of("protection.forgetsNow", now)));
        }
        Ui.visible(forgets, !now.isEmpty());
        if (!then.isEmpty()) {
            Label label = wrapped(Words.of("protection.forgetsThen", then));
            label.setId("forgets-then");
            forgets.getChildren().add(label);
        }
    }

    private void changed() {
        boolean changed = place.isChanged();
        save.setDisable(!changed);
        Ui.visible(reset, changed);
        for (javafx.scene.Node node : form.getChildren()) {
            if (node.getUserData() instanceof Setting s) {
                boolean matters = Outlook.matters(s, place.draftProperty().get());
                node.setDisable(!matters);
                if (node instanceof Label effect) {
                    effect.setText(
                            matters ? Outlook.effect(s, place.draftProperty().get()) : "");
                }
            }
        }
    }
}
