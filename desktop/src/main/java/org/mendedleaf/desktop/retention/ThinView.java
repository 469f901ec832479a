package org.mendedleaf.desktop.retention;

import java.io.File;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.DatePicker;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Days;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** What a thinning lets go within its limits, file by file, with what to look at first; and afterwards what came of it. */
final class ThinView extends VBox {

    private static final List<Integer> COUNTS = List.of(0, 1, 2, 3, 5, 10, 20, 30, 50, 100);

    private final ThinModel model;
    private final Label sum = Ui.label("", "small-title");
    private final Label problem = Ui.label("", "error-text");
    private final VBox warnings = new VBox(8);
    private final FlowPane limits = new FlowPane(18, 8);
    private final TableView<ThinPlan.OfFile> table;
    private final DatePicker replaced;
    private final DatePicker unchanged;
    private final Button go;
    private final Button report;

    /** A view of a thinning. */
    ThinView(ThinModel model, Function<String, Optional<File>> saveAsk, Runnable back) {
        this.model = model;
        setId("thin");
        getStyleClass().add("single-sheet");
        sum.setId("thin-sum");
        sum.setWrapText(true);
        replaced = Days.picker("thin-replaced", Words.of("thin.replaced"), null, null);
        unchanged = Days.picker("thin-unchanged", Words.of("thin.unchanged"), null, null);
        limits();
        problem.setId("thin-problem");
        Ui.visible(problem, false);
        Label staying = Ui.label(Words.of("thin.staying"), "dim");
        staying.setWrapText(true);
        VBox head = new VBox(10, limits, problem, new VBox(3, sum, staying), warnings);
        head.getStyleClass().add("sheet-header");
        table = table();
        VBox.setVgrow(table, Priority.ALWAYS);
        go = Ui.button("thin.go", this::start, "accent");
        go.setId("thin-go");
        report = Ui.button(
                "thin.report", () -> saveAsk.apply(Words.of("thin.reportName")).ifPresent(model::report));
        report.setId("thin-report");
        Button leave = Ui.button("thin.leave", back, "flat");
        leave.setId("thin-leave");
        Label grace = Ui.label(Words.of("thin.grace", model.graceWords()), "dim");
        grace.setMinWidth(0);
        HBox foot = new HBox(10, go, report, leave, grace);
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.getStyleClass().add("sheet-footer");
        VBox sheet = new VBox(head, table, foot);
        VBox.setVgrow(sheet, Priority.ALWAYS);
        sheet.getStyleClass().add("sheet");
        getChildren().add(sheet);
        setOnKeyPressed(e -> {
            if (e.getCode() == javafx.scene.input.KeyCode.ESCAPE) {
                back.run();
                e.consume();
            }
        });
        model.planProperty().addListener((o, a, p) -> show());
        model.wordsProperty().addListener((o, a, w) -> sum.setText(w));
        sum.setText(model.wordsProperty().get());
        show();
    }

    private void limits() {
        ThinScopes scopes = model.scopes();
        List<ThinPlan.Limits> places = scopes.all(model.limitsProperty().get());
        ComboBox<ThinPlan.Limits> scope = Choices.of(places, scopes::words);
        scope.setId("thin-scope");
        scope.setValue(places.stream()
                .filter(s -> s.place() == model.limitsProperty().get().place()
                        && s.path().equals(model.limitsProperty().get().path()))
                .findFirst()
                .orElse(null));
        scope.valueProperty().addListener((o, a, s) -> model.in(s.place(), s.path()));
        ComboBox<Integer> keep =
                Choices.of(COUNTS, n -> n == 0 ? Words.of("thin.byRules") : Words.of("thin.keepNewest", n));
        keep.setId("thin-keep");
        keep.setValue(model.limitsProperty().get().keepLast());
        keep.valueProperty().addListener((o, a, n) -> model.keepLast(n));
        for (DatePicker day : List.of(replaced, unchanged)) {
            day.setPrefWidth(140);
            day.setPromptText(Words.of("thin.anyDay"));
            day.valueProperty().addListener((o, a, d) -> {
                if (d != null) {
                    days();
                }
            });
            // The field itself takes over what was typed when it loses the keys; then it is looked at.
            day.focusedProperty().addListener((o, a, has) -> {
                if (!has) {
                    javafx.application.Platform.runLater(this::days);
                }
            });
        }
        limits.getChildren()
                .addAll(
                        limit("thin.in", scope),
                        limit("thin.what", keep),
                        limit(
                                "thin.kinds",
                                KindsBox.of(
                                        "thin-kinds",
                                        model.limitsProperty().get().kinds(),
                                        model::kinds)),
                        limit("thin.replaced", replaced),
                        limit("thin.unchanged", unchanged));
        limits.setId("thin-limits");
    }

    private static Node limit(String key, Node field) {
        field.setAccessibleText(Words.of(key));
        Label name = Ui.label(Words.of(key), "form-name");
        name.setLabelFor(field);
        VBox box = new VBox(3, name, field);
        return box;
    }

    private void days() {
        try {
            Optional<LocalDate> before = Days.in(replaced);
            Optional<LocalDate> since = Days.in(unchanged);
            Ui.visible(problem, false);
            model.days(before, since);
        } catch (IllegalArgumentException e) {
            problem.setText(Failures.words(e));
            Ui.visible(problem, true);
        }
    }

    private TableView<ThinPlan.OfFile> table() {
        TableView<ThinPlan.OfFile> files = Tables.table("thin-files", "thin.none");
        files.getColumns()
                .add(Tables.words(
                        "thin.file",
                        430,
                        f -> versions().path(f.line()),
                        Comparator.comparing(f -> versions().path(f.line()))));
        files.getColumns().add(Tables.words("thin.place", 130, this::place, Comparator.comparing(this::place)));
        files.getColumns()
                .add(Tables.figures(
                        "thin.going",
                        110,
                        f -> Formats.number(f.going()),
                        Comparator.comparingInt(ThinPlan.OfFile::going)));
        files.getColumns()
                .add(Tables.figures(
                        "thin.left",
                        110,
                        f -> Formats.number(f.left()),
                        Comparator.comparingInt(ThinPlan.OfFile::left)));
        files.getColumns()
                .add(Tables.figures(
                        "thin.bytes",
                        110,
                        f -> Formats.size(f.bytes()),
                        Comparator.comparingLong(ThinPlan.OfFile::bytes)));
        return files;
    }

    /** From now on the limits count no more. */
    private void start() {
        go.setDisable(true);
        limits.setDisable(true);
        model.go();
    }

    private VersionTable versions() {
        return java.util.Objects.requireNonNull(model.planProperty().get())
                .verdicts()
                .table();
    }

    private String place(ThinPlan.OfFile f) {
        return versions().places().stream()
                .filter(p -> p.id() == versions().place(f.line()))
                .findFirst()
                .map(p -> p.label())
                .orElse("");
    }

    private void show() {
        ThinPlan plan = model.planProperty().get();
        warnings.getChildren().clear();
        Ui.visible(warnings, plan != null && !plan.warnings().isEmpty());
        report.setDisable(plan == null);
        go.setDisable(plan == null || plan.versions() == 0 || model.isStarted());
        if (plan == null) {
            table.getItems().clear();
            return;
        }
        for (String w : plan.warnings()) {
            Label words = Ui.label(w, "warning-words", "warning");
            words.setWrapText(true);
            words.setMaxWidth(Double.MAX_VALUE);
            warnings.getChildren().add(words);
        }
        List<ThinPlan.OfFile> files = new ArrayList<>(plan.files());
        files.sort(Comparator.comparingLong(ThinPlan.OfFile::bytes).reversed());
        table.getItems().setAll(files);
        table.sort();
        go.setText(Words.of(model.system().isPresent() ? "thin.goSystem" : "thin.go", plan.versions()));
    }
}
