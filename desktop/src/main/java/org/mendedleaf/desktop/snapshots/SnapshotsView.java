package org.mendedleaf.desktop.snapshots;

import java.io.File;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SplitPane;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.snapshots.SnapshotsModel.Row;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.KeptChildren;
import org.mendedleaf.desktop.widgets.KeptChildren.Child;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** The snapshots of one place: all of them, the selected one, and when they are taken by themselves. */
public final class SnapshotsView extends BorderPane {

    private final SnapshotsModel model;
    private final Asks asks;
    /** Gives the keys to the label of the chosen snapshot. */
    private Runnable rename = () -> {};

    private final TableView<Row> table = Tables.table("snapshot-table", "snapshot.empty");
    private final VBox side = new VBox(14);
    private final KeptChildren kept = new KeptChildren(side);
    private List<SnapshotSchedule> before = List.of();
    /** How many forms for a schedule were used, and whether the one that is shown was just now. */
    private int forms;

    private boolean asked;
    private boolean filling;

    /** How the person at the screen is asked. */
    public interface Asks {
        /** Asks why and until when a snapshot is held, and comes back. */
        void holdSnapshot(OpenPlace openPlace, Snapshot snapshot);

        /** Asks for a file to read. */
        Supplier<Optional<File>> file();

        /** Asks for a file to write, with a name to begin with. */
        Function<String, Optional<File>> save();
    }

    /**
     * The view.
     *
     * @param see goes to the files as they were at a moment
     * @param compare compares a moment with now
     * @param back goes back to the files
     * @param said says in the message bar what was done
     */
    public SnapshotsView(
            SnapshotsModel model,
            Asks asks,
            Consumer<Instant> see,
            Consumer<Instant> compare,
            Runnable back,
            Consumer<String> said) {
        this.model = model;
        this.asks = asks;
        getStyleClass().addAll("files", "plan");
        Label title =
                Ui.label(Words.of("snapshot.title", model.openPlace().place().label()), "big-title");
        title.setMinWidth(0);
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "plan.close", back));
        head.setAlignment(Pos.CENTER_LEFT);
        TextField label = new TextField();
        label.setId("snapshot-label");
        label.setPromptText(Words.of("snapshot.labelPrompt"));
        label.setAccessibleText(Words.of("snapshot.labelPrompt"));
        label.setPrefColumnCount(22);
        Button take = Ui.button("snapshot.take", () -> take(label), "accent");
        take.setId("snapshot-take");
        label.setOnAction(e -> take(label));
        ComboBox<String> scope = Choices.of(
                model.scopes(), path -> path.isEmpty() ? Words.of("snapshot.whole") : Words.of("snapshot.only", path));
        scope.setId("snapshot-scope");
        scope.setAccessibleText(Words.of("snapshot.column.covers"));
        scope.setValue(model.scopeProperty().get());
        scope.valueProperty().addListener((o, a, path) -> model.scopeProperty().set(path));
        Ui.visible(scope, model.scopes().size() > 1);
        HBox now = new HBox(8, label, scope, take, Ui.label(Words.of("snapshot.costs"), "dim"));
        now.setAlignment(Pos.CENTER_LEFT);
        Ui.visible(now, model.canTake());
        Label problem = Ui.label("", "error-text");
        problem.setId("snapshot-problem");
        problem.setWrapText(true);
        problem.textProperty().bind(model.problemProperty());
        problem.visibleProperty().bind(problem.textProperty().isNotEmpty());
        problem.managedProperty().bind(problem.visibleProperty());
        VBox top = new VBox(12, head, now, problem);
        top.getStyleClass().add("plan-top");
        setTop(top);
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.F2) {
                rename.run();
                e.consume();
            }
        });
        columns();
        VBox sheet = new VBox(table);
        VBox.setVgrow(table, Priority.ALWAYS);
        sheet.getStyleClass().add("sheet");
        side.getStyleClass().add("place-body");
        ScrollPane scroll = new ScrollPane(side);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("place-scroll");
        VBox right = new VBox(scroll);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        right.getStyleClass().add("sheet");
        SplitPane split = new SplitPane(sheet, right);
        split.setDividerPositions(0.6);
        split.getStyleClass().add("files-split");
        setCenter(split);
        model.rowsProperty().addListener((o, a, rows) -> fill());
        model.schedulesProperty().addListener((o, a, s) -> side(see, compare));
        model.selectedProperty().addListener((o, a, r) -> side(see, compare));
        model.doneProperty().addListener((o, a, words) -> said.accept(words));
        table.getSelectionModel().selectedItemProperty().addListener((o, a, row) -> {
            if (!filling) {
                model.selectedProperty().set(row);
            }
        });
        fill();
        side(see, compare);
    }

    private void take(TextField label) {
        model.take(label.getText());
        label.clear();
    }

    private void columns() {
        table.getColumns()
                .add(Tables.words(
                        "snapshot.column.when",
                        Ui.moment(130),
                        this::when,
                        Comparator.comparing(r -> r.snapshot().at())));
        table.getColumns()
                .add(Tables.words(
                        "snapshot.column.label",
                        190,
                        r -> r.snapshot().label(),
                        Comparator.comparing(r -> r.snapshot().label())));
        table.getColumns()
                .add(Tables.words("snapshot.column.covers", 120, this::covers, Comparator.comparing(this::covers)));
        if (!model.isOutside()) {
            table.getColumns()
                    .add(Tables.figures(
                            "snapshot.column.files",
                            110,
                            SnapshotsView::files,
                            Comparator.comparing(SnapshotsView::fileCount)));
            table.getColumns()
                    .add(Tables.figures(
                            "snapshot.column.alone",
                            90,
                            SnapshotsView::alone,
                            Comparator.comparing(SnapshotsView::aloneBytes)));
            table.getColumns()
                    .add(Tables.nodes(
                            "snapshot.column.hold",
                            70,
                            r -> model.isHeld(r) ? Tables.badge(Words.of("snapshot.heldWord"), "badge-gold") : null,
                            Comparator.comparing(r -> r.snapshot().hold())));
        }
    }

    private String when(Row r) {
        return Formats.moment(
                r.snapshot().at(),
                model.context().clock().instant(),
                model.context().zone());
    }

    private String covers(Row r) {
        return r.snapshot().path().isEmpty()
                ? Words.of("snapshot.whole")
                : r.snapshot().path();
    }

    private static long fileCount(Row r) {
        return r.holds() == null ? 0 : r.holds().files();
    }

    private static long aloneBytes(Row r) {
        return r.holds() == null ? 0 : r.holds().aloneBytes();
    }

    private static String files(Row r) {
        return r.holds() == null
                ? "…"
                : Formats.number(r.holds().files()) + " · "
                        + Formats.size(r.holds().bytes());
    }

    private static String alone(Row r) {
        return r.holds() == null ? "…" : Formats.size(r.holds().aloneBytes());
    }

    private void fill() {
        filling = true;
        table.getItems().setAll(model.rowsProperty().get());
        table.getSelectionModel().select(model.selectedProperty().get());
        filling = false;
    }

    private void side(Consumer<Instant> see, Consumer<Instant> compare) {
        List<Child<?>> all = new ArrayList<>();
        Row row = model.selectedProperty().get();
        if (row == null) {
            schedules(all);
        } else {
            snapshot(row, all, see, compare);
        }
        kept.show(all);
    }

    private void schedules(List<Child<?>> all) {
        all.add(Child.of("schedules", () -> Ui.label(Words.of("snapshot.schedules"), "line-title")));
        if (model.isOutside()) {
            all.add(words(Words.of(
                    "snapshot.outsideSchedules", model.openPlace().place().where())));
            return;
        }
        List<SnapshotSchedule> schedules = model.schedulesProperty().get();
        for (SnapshotSchedule s : schedules) {
            String sentence = ScheduleModel.sentence(s, model.context().clock().instant());
            String count = model.countWords(s);
            all.add(Child.of(List.of(s, sentence, count), () -> schedule(s, sentence, count)));
        }
        if (schedules.isEmpty()) {
            all.add(words(Words.of("cli.schedule.none")));
        }
        all.add(Child.of(List.of("files", schedules.isEmpty()), () -> files(schedules.isEmpty())));
        // What somebody types stays until it is a schedule.
        if (!schedules.equals(before) && asked) {
            asked = false;
            forms++;
        }
        before = schedules;
        all.add(Child.of(List.of("form", forms), () -> new ScheduleForm(model, () -> asked = true)));
    }

    private HBox files(boolean none) {
        Button in = Ui.button(
                "schedule.import", () -> asks.file().get().ifPresent(f -> model.importFrom(f.toPath())), "small");
        in.setId("schedule-import");
        Button out = Ui.button(
                "schedule.export",
                () -> asks.save().apply(Words.of("schedule.fileName")).ifPresent(f -> model.exportTo(f.toPath())),
                "small");
        out.setId("schedule-export");
        out.setDisable(none);
        return new HBox(8, in, out);
    }

    private static Child<Label> words(String words) {
        return Child.of(words, () -> wrapped(words));
    }

    private static Label wrapped(String words) {
        Label label = Ui.label(words, "dim");
        label.setWrapText(true);
        label.setMinHeight(USE_PREF_SIZE);
        return label;
    }

    private VBox schedule(SnapshotSchedule s, String sentence, String count) {
        Label words = Ui.label(sentence);
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        Button end = Ui.button("schedule.end", () -> model.end(s), "small");
        HBox foot = new HBox(8, Ui.label(count, "dim"), Ui.spacer(), end);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(
                4,
                Ui.label(s.label().isEmpty() ? Words.of("schedule.unnamed") : s.label(), "small-title"),
                words,
                foot);
        box.getStyleClass().add("schedule");
        return box;
    }

    private void snapshot(Row row, List<Child<?>> all, Consumer<Instant> see, Consumer<Instant> compare) {
        Snapshot shown = row.snapshot();
        String origin = model.origin(row);
        all.add(Child.of(List.of("head", shown, origin), () -> head(shown, origin, see, compare)));
        if (row.holds() != null) {
            all.add(words(Words.of(
                    "snapshot.holdsWords",
                    Words.of(
                            "snapshot.files",
                            row.holds().files(),
                            Formats.size(row.holds().bytes())),
                    row.holds().aloneVersions(),
                    Formats.size(row.holds().aloneBytes()))));
        }
        boolean held = model.isHeld(row);
        if (row.cut() == null) {
            all.add(Child.of(List.of("label", shown.id(), shown.label()), () -> label(shown)));
            String why = model.holdWords(row);
            all.add(Child.of(List.of("hold", shown, held, why), () -> hold(shown, held, why)));
        }
        String what = model.eraseWords(row);
        all.add(Child.of(List.of("erase", shown, held, what), () -> erase(held, what)));
    }

    private VBox head(Snapshot shown, String origin, Consumer<Instant> see, Consumer<Instant> compare) {
        Label title = Ui.label(shown.label().isEmpty() ? Words.of("snapshot.unnamed") : shown.label(), "line-title");
        title.setWrapText(true);
        Label when = Ui.label(Formats.zoned(shown.at(), model.context().zone()), "dim");
        Button show = Ui.button("snapshot.see", () -> see.accept(shown.at()), "accent");
        show.setId("snapshot-see");
        Button with = Ui.button("past.compare", () -> compare.accept(shown.at()));
        with.setId("snapshot-compare");
        Button other = Ui.button("snapshot.all", () -> table.getSelectionModel().clearSelection(), "flat");
        other.setId("snapshot-all");
        VBox head = new VBox(title, new VBox(2, when, Ui.label(origin, "dim")), new HBox(8, show, with, other));
        head.spacingProperty().bind(side.spacingProperty());
        return head;
    }

    /** Does something with the snapshot that is selected, as it is known by then. */
    private void selected(Consumer<Row> work) {
        Row row = model.selectedProperty().get();
        if (row != null) {
            work.accept(row);
        }
    }

    private VBox erase(boolean held, String words) {
        Button erase = Ui.button("snapshot.erase", () -> selected(model::erase), "danger-text");
        erase.setId("snapshot-erase");
        erase.setDisable(held);
        return new VBox(6, wrapped(words), erase);
    }

    /** Another label; what is typed stays until it is given. */
    private HBox label(Snapshot shown) {
        TextField label = new TextField(shown.label());
        label.setId("snapshot-rename");
        label.setAccessibleText(Words.of("snapshot.label"));
        rename = () -> {
            label.requestFocus();
            label.selectAll();
        };
        HBox.setHgrow(label, Priority.ALWAYS);
        Runnable give = () -> selected(row -> model.rename(row, label.getText()));
        label.setOnAction(e -> give.run());
        HBox line = new HBox(8, label, Ui.button("snapshot.rename", give));
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private VBox hold(Snapshot shown, boolean held, String why) {
        Button hold = held
                ? Ui.button("snapshot.endHold", () -> selected(model::endHold))
                : Ui.button("snapshot.hold", () -> asks.holdSnapshot(model.openPlace(), shown));
        hold.setId("snapshot-hold");
        return new VBox(6, wrapped(why), hold);
    }
}
