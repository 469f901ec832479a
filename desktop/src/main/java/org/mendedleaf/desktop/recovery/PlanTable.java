package org.mendedleaf.desktop.recovery;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.geometry.Pos;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestorePlan.Step;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** Every file of a plan with what will happen to it and why; afterwards, what became of it. */
final class PlanTable extends VBox {

    private final PlanModel model;
    private final TableView<Row> table = Tables.table("plan-table", "plan.empty");
    private final HBox filters = new HBox(4);
    private final TableColumn<Row, Row> choice;
    private List<Row> rows = List.of();
    private @Nullable Step filter;
    private @Nullable RestorePlan shownPlan;
    private @Nullable RestoreResult shownResult;

    /**
     * A file.
     *
     * @param outcome what became of it; null before it was carried out, or when it was not reached
     */
    record Row(RestorePlan.Item item, RestoreResult.@Nullable Item outcome) {}

    /**
     * The table.
     *
     * @param look opens what changes in the selected file
     */
    PlanTable(PlanModel model, Runnable look) {
        this.model = model;
        filters.getStyleClass().add("filters");
        filters.setAlignment(Pos.CENTER_LEFT);
        table.getColumns()
                .add(Tables.nodes(
                        "plan.column.step",
                        128,
                        PlanCells::step,
                        Comparator.comparing(r -> r.item().step())));
        table.getColumns()
                .add(Tables.words(
                        "plan.column.file",
                        330,
                        r -> r.item().target(),
                        Comparator.comparing(r -> r.item().target())));
        table.getColumns()
                .add(Tables.words(
                        "plan.column.version",
                        150,
                        this::version,
                        Comparator.comparing(r -> r.item().version().saved())));
        table.getColumns()
                .add(Tables.figures(
                        "listing.column.size",
                        80,
                        r -> Formats.size(r.item().version().size()),
                        Comparator.comparing(r -> r.item().version().size())));
        table.getColumns()
                .add(Tables.words("plan.column.why", 300, PlanCells::why, Comparator.comparing(PlanCells::why)));
        choice = Tables.nodes(
                "plan.column.choice",
                210,
                r -> PlanCells.choice(r, model::collide),
                Comparator.comparing(r -> r.item().target()));
        choice.setSortable(false);
        table.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                look.run();
            }
        });
        table.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER && !e.isShortcutDown()) {
                look.run();
                e.consume();
            }
        });
        getChildren().addAll(filters, table);
        filters(null);
        saysEmpty(false);
        VBox.setVgrow(table, Priority.ALWAYS);
    }

    private String version(Row r) {
        return Words.of(
                "plan.version",
                r.item().version().label(),
                Formats.moment(
                        r.item().version().saved(),
                        model.context().clock().instant(),
                        model.context().zone()));
    }

    void show(@Nullable RestorePlan plan, @Nullable RestoreResult result) {
        if (Objects.equals(plan, shownPlan) && Objects.equals(result, shownResult)) {
            return;
        }
        shownPlan = plan;
        shownResult = result;
        boolean collisions = result == null && !model.what().rollBack();
        table.getColumns().remove(choice);
        if (collisions) {
            table.getColumns().add(choice);
        }
        rows = plan == null && result == null ? List.of() : rows(plan, result);
        filters(plan);
        saysEmpty(plan != null || result != null);
        fill();
    }

    /** While it is not known what there is, nothing says that there is nothing. */
    private void saysEmpty(boolean known) {
        table.setPlaceholder(Ui.label(known ? Words.of("plan.empty") : "", "dim"));
    }

    static List<Row> rows(@Nullable RestorePlan plan, @Nullable RestoreResult result) {
        List<RestorePlan.Item> planned = plan == null ? List.of() : plan.items();
        if (result == null) {
            // What happens stands before what does not.
            return planned.stream()
                    .sorted(Comparator.comparing((RestorePlan.Item i) -> !i.acts()))
                    .map(i -> new Row(i, null))
                    .toList();
        }
        // A large plan was let go when it was carried out: then there is what came of it.
        Map<String, RestoreResult.Item> outcomes = new LinkedHashMap<>();
        result.items().forEach(i -> outcomes.put(i.plan().target(), i));
        List<Row> all = new ArrayList<>();
        for (RestorePlan.Item i : planned) {
            RestoreResult.Item o = outcomes.remove(i.target());
            all.add(new Row(o == null ? i : o.plan(), o));
        }
        outcomes.values().forEach(o -> all.add(new Row(o.plan(), o)));
        // What did not work stands on top.
        all.sort(Comparator.comparing(
                (Row r) -> r.outcome() == null || r.outcome().outcome() != RestoreResult.Outcome.FAILED));
        return all;
    }

    private void filters(@Nullable RestorePlan plan) {
        filters.getChildren().clear();
        if (plan == null || model.stageProperty().get() == PlanModel.Stage.DONE) {
            filter = null;
            Ui.visible(filters, false);
            return;
        }
        Ui.visible(filters, true);
        ToggleGroup group = new ToggleGroup();
        add(group, null, plan.items().size());
        for (Step s : Step.values()) {
            if (plan.count(s) > 0) {
                add(group, s, plan.count(s));
            }
        }
    }

    private void add(ToggleGroup group, @Nullable Step step, long count) {
        ToggleButton button = new ToggleButton(Words.of(
                "plan.filter", Words.of(step == null ? "plan.all" : "plan.step." + step), Formats.number(count)));
        button.setToggleGroup(group);
        button.setSelected(step == filter);
        button.setOnAction(e -> {
            button.setSelected(true);
            filter = step;
            fill();
        });
        filters.getChildren().add(button);
    }

    private void fill() {
        table.getItems()
                .setAll(rows.stream()
                        .filter(r -> filter == null || r.item().step() == filter)
                        .toList());
    }

    /** The rows as they are listed. */
    List<RestorePlan.Item> listed() {
        return table.getItems().stream().map(Row::item).toList();
    }

    /** The number of the selected row; -1 when none is. */
    int selectedIndex() {
        return table.getSelectionModel().getSelectedIndex();
    }

    void select(int index) {
        table.getSelectionModel().clearAndSelect(index);
        table.scrollTo(Math.max(0, index - 3));
    }

    ReadOnlyObjectProperty<Row> selectedProperty() {
        return table.getSelectionModel().selectedItemProperty();
    }

    Optional<RestorePlan.Item> selected() {
        return Optional.ofNullable(table.getSelectionModel().getSelectedItem()).map(Row::item);
    }

    /** Whether the selected file is there now. */
    boolean selectedDone() {
        Row row = table.getSelectionModel().getSelectedItem();
        RestoreResult.Item o = row == null ? null : row.outcome();
        return o != null
                && o.outcome() == RestoreResult.Outcome.DONE
                && o.plan().writes();
    }
}
