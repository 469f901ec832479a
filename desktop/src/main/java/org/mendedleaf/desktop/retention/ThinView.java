package org.mendedleaf.desktop.retention;

import java.io.File;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.VersionTable;
import org.mendedleaf.core.retention.LettingGo;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** What a thinning lets go, file by file, with what to look at first; and afterwards what came of it. */
final class ThinView extends VBox {

    private final RetentionModel model;
    private final ThinPlan plan;
    private final Optional<Place> system;
    private final Label sum;
    private final Button go;
    private Optional<LettingGo.Done> done = Optional.empty();

    /**
     * A view of a plan.
     *
     * @param system the place in another system that it is for; empty for what the vault holds
     */
    ThinView(
            RetentionModel model,
            ThinPlan plan,
            Optional<Place> system,
            Function<String, Optional<File>> saveAsk,
            Runnable back) {
        this.model = model;
        this.plan = plan;
        this.system = system;
        setId("thin");
        getStyleClass().add("single-sheet");
        VersionTable t = plan.verdicts().table();
        sum = Ui.label(system.map(p -> model.thinning(p).words(plan)).orElseGet(plan::words), "small-title");
        sum.setId("thin-sum");
        sum.setWrapText(true);
        VBox head = new VBox(8, sum);
        for (String w : plan.warnings()) {
            Label words = Ui.label(w, "warning-words", "warning");
            words.setWrapText(true);
            words.setMaxWidth(Double.MAX_VALUE);
            head.getChildren().add(words);
        }
        head.getStyleClass().add("sheet-header");
        TableView<ThinPlan.OfFile> table = Tables.table("thin-files", "thin.none");
        table.getColumns()
                .add(Tables.words(
                        "thin.file", 430, f -> t.path(f.line()), Comparator.comparing(f -> t.path(f.line()))));
        table.getColumns()
                .add(Tables.words("thin.place", 130, f -> place(t, f), Comparator.comparing(f -> place(t, f))));
        table.getColumns()
                .add(Tables.figures(
                        "thin.going",
                        110,
                        f -> Say.number(f.going()),
                        Comparator.comparingInt(ThinPlan.OfFile::going)));
        table.getColumns()
                .add(Tables.figures(
                        "thin.left", 110, f -> Say.number(f.left()), Comparator.comparingInt(ThinPlan.OfFile::left)));
        table.getColumns()
                .add(Tables.figures(
                        "thin.bytes", 110, f -> Say.size(f.bytes()), Comparator.comparingLong(ThinPlan.OfFile::bytes)));
        table.getItems().setAll(plan.files());
        table.getItems().sort(Comparator.comparingLong(ThinPlan.OfFile::bytes).reversed());
        VBox.setVgrow(table, Priority.ALWAYS);
        go = Ui.button("thin.go", this::go, "accent");
        go.setText(Words.of(system.isPresent() ? "thin.goSystem" : "thin.go", plan.versions()));
        go.setDisable(plan.versions() == 0);
        go.setId("thin-go");
        Button report = Ui.button(
                "thin.report",
                () -> saveAsk.apply(Words.of("thin.reportName")).ifPresent(f -> model.report(plan, done, f)));
        report.setId("thin-report");
        Button leave = Ui.button("thin.leave", back, "flat");
        leave.setId("thin-leave");
        Label grace =
                Ui.label(Words.of("thin.grace", plan.verdicts().rules().grace().words()), "dim");
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
    }

    private static String place(VersionTable t, ThinPlan.OfFile f) {
        return t.places().stream()
                .filter(p -> p.id() == t.place(f.line()))
                .findFirst()
                .map(p -> p.label())
                .orElse("");
    }

    private void go() {
        go.setDisable(true);
        if (system.isPresent()) {
            String where = system.get().where();
            model.thinSystem(system.get(), plan, d -> {
                done = d.letGo();
                List<String> said = new ArrayList<>();
                said.add(Words.of("cli.thin.erased", d.erased(), where));
                d.failed().forEach((what, why) -> said.add(Words.of("cli.thin.notErased", what, why)));
                d.letGo().ifPresent(l -> said.add(waits(l)));
                sum.setText(String.join(" ", said));
            });
        } else {
            model.thin(plan, d -> {
                done = Optional.of(d);
                sum.setText(waits(d));
            });
        }
    }

    private String waits(LettingGo.Done d) {
        return Words.of(
                "retention.thinned",
                d.versions(),
                Say.full(d.due(), model.desk().zone()));
    }
}
