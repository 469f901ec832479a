package org.mendedleaf.desktop.mend;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.IntConsumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.findings.Finding;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.Found;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.document.DifferenceView;
import org.mendedleaf.desktop.document.DocumentPane;
import org.mendedleaf.desktop.document.DocumentViews;
import org.mendedleaf.desktop.document.PairWork;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** One finding: why, when, its files with their last good versions, what mending would do, and doing it. */
final class FindingPane extends VBox {

    private static final double CHART = 56;

    /** The height of the table with one file. */
    private static final double ONE = 80;

    private final MendModel model;
    private final MendModel.Hearer said;
    private final Label title = Ui.label("", "reading-title");
    private final Label evidence = Ui.label("", "dim");
    private final VBox chart = new VBox(4);
    private final TableView<Found.OfFile> files = Tables.table("mend-files", "mend.noFiles");
    private final Label afterName = Ui.label("", "dim");
    private final Label after = Ui.label("");
    private final Label undo = Ui.label(Words.of("mend.undo"), "dim");
    private final Label problem = Ui.label("", "error-text");
    private final Button mend;
    private final Button look;
    private final Button fine;
    private final Button reopen;
    private final HBox actions;
    private final VBox asking;
    private final TextField reason = new TextField();
    private final ChoiceBox<MendModel.Reach> reach = new ChoiceBox<>();
    private final VBox effect;
    private final DocumentPane beside = new DocumentPane("mend-beside");
    private final PairWork work;
    private String shown = "";

    /**
     * The pane.
     *
     * @param look opens what is there now beside the last good version, from this file on
     */
    FindingPane(MendModel model, IntConsumer look, MendModel.Hearer said) {
        this.model = model;
        this.said = said;
        this.work = new PairWork(model.context().background());
        setId("mend-detail");
        getStyleClass().addAll("sheet", "mend-detail");
        setMinWidth(0);
        title.setId("mend-finding");
        title.setMinWidth(0);
        evidence.setId("mend-evidence");
        evidence.setWrapText(true);
        evidence.setMinHeight(USE_PREF_SIZE);
        columns();
        VBox.setVgrow(files, Priority.ALWAYS);
        files.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                look.accept(selected());
            }
        });
        files.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER && !e.isShortcutDown()) {
                look.accept(selected());
                e.consume();
            }
        });
        after.setId("mend-after");
        after.setWrapText(true);
        after.setMinHeight(USE_PREF_SIZE);
        effect = new VBox(2, afterName, after);
        effect.getStyleClass().add("mend-effect");
        problem.textProperty().bind(model.problemProperty());
        problem.visibleProperty().bind(problem.textProperty().isNotEmpty());
        problem.managedProperty().bind(problem.visibleProperty());
        problem.setWrapText(true);
        mend = Ui.button("mend.mend", () -> model.mend(said), "accent");
        mend.setId("mend-mend");
        this.look = Ui.button("mend.compare", () -> look.accept(selected()));
        this.look.setId("mend-compare");
        fine = Ui.button("mend.isFine", this::askFine);
        fine.setId("mend-fine");
        reopen = Ui.button("mend.reopen", model::reopen);
        reopen.setId("mend-reopen");
        undo.setMinWidth(0);
        actions = new HBox(12, mend, this.look, fine, reopen, undo);
        actions.setAlignment(Pos.CENTER_LEFT);
        for (Button b : List.of(mend, this.look, fine, reopen)) {
            b.setMinWidth(USE_PREF_SIZE);
        }
        asking = asking();
        VBox.setVgrow(beside, Priority.ALWAYS);
        beside.setMinHeight(0);
        getChildren().addAll(title, evidence, chart, files, beside, effect, problem, actions, asking);
        model.chosenProperty().addListener((o, a, row) -> show(row));
        model.planProperty().addListener((o, a, p) -> planned(p));
        sceneProperty().addListener((o, was, is) -> {
            MendModel.Row row = model.chosenProperty().get();
            if (is != null && row != null) {
                beside(row);
            }
        });
        show(model.chosenProperty().get());
    }

    private VBox asking() {
        reason.setId("mend-reason");
        reason.setPromptText(Words.of("mend.reason"));
        reason.setAccessibleText(Words.of("mend.reason"));
        reach.setId("mend-reach");
        reach.setAccessibleText(Words.of("mend.reach"));
        reach.setConverter(Choices.said(r -> Words.of("mend.reach." + r), ""));
        Button sure = Ui.button("mend.fineSure", this::sayFine, "accent");
        sure.setId("mend-fine-sure");
        sure.disableProperty().bind(reason.textProperty().map(String::isBlank));
        reason.setOnAction(e -> sayFine());
        Button leave = Ui.button("mend.leave", () -> ask(false));
        leave.setId("mend-leave");
        for (Region each : List.of(sure, leave, reach)) {
            each.setMinWidth(USE_PREF_SIZE);
        }
        HBox row = new HBox(12, reason, reach, sure, leave);
        row.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(reason, Priority.ALWAYS);
        VBox box = new VBox(6, Ui.label(Words.of("mend.why"), "small-title"), row);
        Ui.visible(box, false);
        return box;
    }

    /** Asks why it is fine. */
    void askFine() {
        MendModel.Row row = model.chosenProperty().get();
        if (row == null || row.listed().state() != Findings.State.OPEN) {
            return;
        }
        boolean one = row.finding().marks().size() == 1;
        reach.getItems()
                .setAll(
                        one
                                ? List.of(MendModel.Reach.values())
                                : List.of(MendModel.Reach.ONCE, MendModel.Reach.FOLDER));
        reach.setValue(MendModel.Reach.ONCE);
        reason.clear();
        ask(true);
        reason.requestFocus();
    }

    private void sayFine() {
        if (!reason.getText().isBlank()) {
            model.fine(reach.getValue(), reason.getText().strip(), said);
            ask(false);
        }
    }

    private void ask(boolean is) {
        Ui.visible(asking, is);
        Ui.visible(actions, !is);
    }

    private int selected() {
        return Math.max(
                0,
                files.getSelectionModel().getSelectedIndex() < 0
                        ? 0
                        : list().indexOf(files.getSelectionModel().getSelectedItem()));
    }

    private List<Found.OfFile> list() {
        MendModel.Row row = model.chosenProperty().get();
        return row == null ? List.of() : row.listed().found().files();
    }

    /** Selects a file. */
    void select(int number) {
        if (number < list().size()) {
            files.getSelectionModel().select(list().get(number));
        }
    }

    private void columns() {
        column(
                "file",
                240,
                80,
                FindingPane::name,
                Comparator.comparing(f -> f.mark().path()));
        column(
                "when",
                Ui.moment(120),
                Ui.moment(112),
                this::when,
                Comparator.comparing(f -> f.mark().at()));
        column(
                "good",
                110,
                92,
                f -> f.mark().good() == 0
                        ? Words.of("mend.none")
                        : Words.of("mend.version", f.mark().good()),
                Comparator.comparing(f -> f.mark().good()));
        column("proof", 150, 60, Found.OfFile::proof, Comparator.comparing(Found.OfFile::proof));
        column(
                "what",
                180,
                150,
                f -> f.fate() == Found.Fate.TO_MEND
                        ? Words.of("mend.what.TO_MEND", f.mark().good())
                        : Words.of("mend.what." + f.fate()),
                Comparator.comparing(Found.OfFile::fate));
    }

    /** A column; what is least wide is what gives way least where there is little space. */
    private void column(
            String name,
            double width,
            double least,
            Function<Found.OfFile, String> words,
            Comparator<Found.OfFile> order) {
        TableColumn<Found.OfFile, ?> column = Tables.words("mend.column." + name, width, words, order);
        column.setMinWidth(least);
        files.getColumns().add(column);
    }

    private static String name(Found.OfFile f) {
        String path = f.mark().path();
        int slash = path.lastIndexOf('/');
        int above = path.lastIndexOf('/', slash - 1);
        return path.substring(above + 1);
    }

    private String when(Found.OfFile f) {
        return Formats.moment(
                f.mark().at(),
                model.context().clock().instant(),
                model.context().zone());
    }

    private void show(MendModel.@Nullable Row row) {
        ask(false);
        for (Node node : getChildren()) {
            if (node != problem && node != asking) {
                Ui.visible(node, row != null);
            }
        }
        if (row == null) {
            files.getItems().clear();
            return;
        }
        Finding f = row.finding();
        title.setText(f.words());
        evidence.setText(String.join(" ", f.why()));
        List<Found.OfFile> all = row.listed().found().files();
        if (!files.getItems().equals(all)) {
            files.getItems().setAll(all);
            files.getSelectionModel().selectFirst();
        }
        beside(row);
        boolean open = row.listed().state() == Findings.State.OPEN;
        long n = row.listed().found().count(Found.Fate.TO_MEND);
        mend.setText(Words.of("mend.mendN", n));
        Ui.visible(mend, open);
        mend.setDisable(n == 0);
        Ui.visible(fine, open);
        Ui.visible(
                reopen,
                row.listed().state() == Findings.State.DISMISSED || row.listed().state() == Findings.State.FINE);
        afterName.setText(Words.of(open ? "mend.after" : "mend.stands"));
        after.setText(open ? after(row, null) : MendView.state(row.listed()));
        Ui.visible(undo, open);
        chart.getChildren().clear();
        Ui.visible(chart, false);
        planned(model.planProperty().get());
    }

    /** Of a single file, what is there now stands beside the last good version. */
    private void beside(MendModel.Row row) {
        boolean one = row.finding().marks().size() == 1;
        Ui.visible(beside, one);
        files.setMinHeight(one ? ONE : USE_COMPUTED_SIZE);
        files.setMaxHeight(one ? ONE : Double.MAX_VALUE);
        String what = row.listed().id() + row.listed().state();
        if (!one || what.equals(shown)) {
            shown = one ? shown : "";
            return;
        }
        if (getScene() == null) {
            // Reading two documents is for who looks at them.
            return;
        }
        shown = what;
        beside.show(c -> DocumentPane.Shown.of(DocumentViews.message(Words.of("guard.reading")), ""), false);
        work.pair(
                () -> model.pair(row, 0).see(),
                seen -> beside.show(c -> DifferenceView.shown(seen, c, work, path -> look.fire()), false),
                e -> beside.show(c -> DocumentPane.Shown.of(DocumentViews.message(Failures.named(e)), ""), false));
    }

    private void planned(MendModel.@Nullable Plan p) {
        MendModel.Row row = model.chosenProperty().get();
        if (p == null
                || row == null
                || !p.row().listed().id().equals(row.listed().id())) {
            return;
        }
        if (row.listed().state() == Findings.State.OPEN) {
            after.setText(after(row, p.plan()));
        }
        boolean several = row.finding().marks().size() > 1;
        Ui.visible(chart, several);
        if (several) {
            draw(p);
        }
    }

    private static String after(MendModel.Row row, @Nullable RestorePlan plan) {
        Found found = row.listed().found();
        StringBuilder words = new StringBuilder();
        for (Found.Fate fate : Found.Fate.values()) {
            long n = found.count(fate);
            if (n > 0) {
                words.append(words.isEmpty() ? "" : " ").append(Words.of("mend.effect." + fate, n));
            }
        }
        if (found.count(Found.Fate.TO_MEND) > 0) {
            words.append(' ').append(Words.of("mend.stays", found.count(Found.Fate.TO_MEND)));
        }
        if (plan != null) {
            words.append(' ').append(Words.of("mend.bytes", Formats.size(plan.bytes())));
            if (!plan.preflight().isGood()) {
                words.append(' ').append(plan.preflight().stops());
            }
        }
        return words.toString();
    }

    /** Changes a day around it; the day itself stands out, and says what it is. */
    private void draw(MendModel.Plan p) {
        Map<Long, Integer> days = p.days();
        int most = days.values().stream().mapToInt(Integer::intValue).max().orElse(1);
        HBox bars = new HBox(2);
        bars.setAlignment(Pos.BOTTOM_LEFT);
        bars.setMinHeight(CHART);
        bars.setPrefHeight(CHART);
        long last = days.keySet().stream().mapToLong(Long::longValue).max().orElse(p.day());
        long first = Math.max(
                days.keySet().stream().mapToLong(Long::longValue).min().orElse(p.day()), last - MendModel.DAYS + 1);
        for (long day = first; day <= last; day++) {
            int changes = days.getOrDefault(day, 0);
            Region bar = new Region();
            bar.getStyleClass().addAll("mend-bar", day == p.day() ? "mend-bar-event" : "mend-bar-day");
            double height = changes == 0 ? 1 : Math.max(2, CHART * Math.sqrt((double) changes / most));
            bar.setMinHeight(height);
            bar.setPrefHeight(height);
            bar.setMaxHeight(height);
            bar.setMinWidth(2);
            HBox.setHgrow(bar, Priority.ALWAYS);
            bars.getChildren().add(bar);
        }
        Label words = Ui.label(
                Words.of(
                        "mend.chart",
                        Formats.moment(
                                p.row().finding().from(),
                                model.context().clock().instant(),
                                model.context().zone()),
                        days.getOrDefault(p.day(), 0)),
                "dim");
        words.setMinWidth(0);
        chart.getChildren().setAll(bars, words);
    }
}
