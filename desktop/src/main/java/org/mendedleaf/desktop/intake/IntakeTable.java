package org.mendedleaf.desktop.intake;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.IntakePlan;
import org.mendedleaf.core.intake.IntakeRow;
import org.mendedleaf.core.intake.IntakeRow.Fate;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** Each file that comes in with what it is, why, and a choice; afterwards with what became of it. */
final class IntakeTable extends VBox {

    private final IntakeModel model;
    private final TableView<Row> table = Tables.table("intake-table", "intake.empty");
    private final TableColumn<Row, Row> choice;
    private final TableColumn<Row, Row> note;
    private @Nullable IntakePlan shown;

    /**
     * A file.
     *
     * @param index in the plan
     * @param outcome what became of it, as a message; empty before
     * @param failed whether that is a failure
     */
    private record Row(int index, IntakeRow row, String outcome, boolean failed) {}

    /** Something that a row can become. */
    private record Choice(Fate fate, String target) {
        String words() {
            return switch (fate) {
                case NEW_VERSION -> Words.of("intake.choice.version", RelativePath.name(target));
                case NEW_FILE -> Words.of("intake.choice.file", RelativePath.name(target));
                case UNSURE -> Words.of("intake.choice.unsure");
                case IDENTICAL -> Words.of("intake.choice.identical", RelativePath.name(target));
                case SKIPPED -> Words.of("intake.choice.skip");
            };
        }
    }

    IntakeTable(IntakeModel model) {
        this.model = model;
        table.getColumns()
                .add(Tables.words(
                        "intake.column.file",
                        250,
                        r -> r.row().incoming().relative(),
                        Comparator.comparing(r -> r.row().incoming().relative())));
        table.getColumns()
                .add(Tables.figures(
                        "listing.column.size",
                        78,
                        r -> Formats.size(r.row().incoming().size()),
                        Comparator.comparing(r -> r.row().incoming().size())));
        table.getColumns()
                .add(Tables.nodes(
                        "plan.column.step",
                        118,
                        IntakeTable::badge,
                        Comparator.comparing(r -> r.row().fate())));
        choice = Tables.nodes(
                "intake.column.choice",
                270,
                this::choice,
                Comparator.comparing(r -> r.row().target()));
        choice.setSortable(false);
        table.getColumns().add(choice);
        table.getColumns()
                .add(Tables.words("intake.column.why", 300, IntakeTable::why, Comparator.comparing(IntakeTable::why)));
        note = Tables.nodes(
                "intake.column.note",
                170,
                this::note,
                Comparator.comparing(r -> r.row().note()));
        note.setSortable(false);
        table.getColumns().add(note);
        getChildren().add(table);
        VBox.setVgrow(table, Priority.ALWAYS);
    }

    private static Node badge(Row r) {
        if (!r.outcome().isEmpty()) {
            return Tables.badge(r.outcome(), r.failed() ? "badge-clay" : "badge-moss");
        }
        String style = switch (r.row().fate()) {
            case NEW_VERSION -> "badge-gold";
            case NEW_FILE -> "badge-moss";
            case UNSURE -> "badge-clay";
            default -> "badge-slate";
        };
        return Tables.badge(Words.of("intake.badge." + r.row().fate()), style);
    }

    private static String why(Row r) {
        IntakeRow row = r.row();
        String how = Words.of("intake.how." + row.how());
        String guard = row.judgement()
                .map(j -> row.fate() == Fate.UNSURE || j.outcome() != Judgement.Outcome.SURE
                        ? j.why()
                        : j.shared() >= 0 ? Words.of("intake.common", j.shared()) : "")
                .orElse("");
        return how.isEmpty() || guard.isEmpty() ? how + guard : how + " · " + guard;
    }

    /** What the row is now, and what else it can become. */
    private List<Choice> choices(IntakeRow row, String folder) {
        List<Choice> all = new ArrayList<>();
        if (row.fate() == Fate.UNSURE || row.fate() == Fate.IDENTICAL) {
            all.add(new Choice(row.fate(), row.target()));
        }
        List<String> targets = new ArrayList<>(row.candidates());
        if (!targets.contains(row.target()) && row.fate() != Fate.NEW_FILE) {
            targets.add(0, row.target());
        }
        String own = RelativePath.child(folder, row.incoming().relative());
        for (String t : targets) {
            boolean there = !t.equals(own) || row.how() == org.mendedleaf.core.intake.Matcher.How.PATH;
            if (there) {
                all.add(new Choice(Fate.NEW_VERSION, t));
            }
        }
        if (row.fate() == Fate.NEW_FILE) {
            all.add(new Choice(Fate.NEW_FILE, row.target()));
        } else if (row.how() != org.mendedleaf.core.intake.Matcher.How.PATH) {
            all.add(new Choice(Fate.NEW_FILE, own));
        }
        all.add(new Choice(Fate.SKIPPED, row.target()));
        return all.stream().distinct().toList();
    }

    private @Nullable Node choice(Row r) {
        IntakePlan plan = shown;
        if (plan == null) {
            return null;
        }
        if (!r.outcome().isEmpty() || model.stepProperty().get() != IntakeModel.Step.TABLE) {
            return Ui.label(RelativePath.name(r.row().target()), "dim");
        }
        ComboBox<Choice> box = Choices.of(choices(r.row(), plan.folder()), Choice::words);
        box.getStyleClass().add("small-box");
        box.setMaxWidth(Double.MAX_VALUE);
        box.setId("intake-choice-" + r.index());
        box.setAccessibleText(Words.of("intake.column.choice"));
        box.setValue(new Choice(r.row().fate(), r.row().target()));
        box.valueProperty().addListener((o, a, c) -> {
            if (c != null) {
                model.choose(r.index(), c.fate(), c.target());
            }
        });
        return box;
    }

    private @Nullable Node note(Row r) {
        if (!r.row().acts()) {
            return null;
        }
        if (model.stepProperty().get() != IntakeModel.Step.TABLE) {
            Label label = Ui.label(r.row().note(), "dim");
            return label;
        }
        TextField field = new TextField(r.row().note());
        field.getStyleClass().add("small-box");
        field.setPromptText(Words.of("intake.ownNote"));
        field.setAccessibleText(Words.of("intake.ownNote"));
        field.focusedProperty().addListener((o, was, is) -> {
            if (!is && !field.getText().strip().equals(r.row().note())) {
                model.note(r.index(), field.getText().strip());
            }
        });
        field.setOnAction(e -> model.note(r.index(), field.getText().strip()));
        return field;
    }

    /** Shows the table; {@code editable} is whether its rows can be changed. */
    void show(@Nullable IntakePlan plan, @Nullable PutResult result, boolean editable) {
        boolean same = plan != null
                && shown != null
                && plan.rows().size() == table.getItems().size();
        shown = plan;
        choice.setText(Words.of("intake.column.choice"));
        note.setVisible(plan != null);
        List<Row> rows = new ArrayList<>();
        for (int i = 0; plan != null && i < plan.rows().size(); i++) {
            rows.add(row(i, plan.rows().get(i), editable ? null : result));
        }
        if (same && table.getSortOrder().isEmpty()) {
            // Only what changed is drawn again, so that nobody loses the place in the list.
            for (int i = 0; i < rows.size(); i++) {
                if (!rows.get(i).equals(table.getItems().get(i)) || !editable) {
                    table.getItems().set(i, rows.get(i));
                }
            }
            table.refresh();
        } else {
            table.getItems().setAll(rows);
            table.sort();
        }
    }

    private static Row row(int index, IntakeRow row, @Nullable PutResult result) {
        if (result == null || !row.acts()) {
            return new Row(index, row, "", false);
        }
        String failed = result.failed().get(row.target());
        if (failed != null) {
            return new Row(index, row, failed, true);
        }
        String label = result.labels().get(row.target());
        return label == null
                ? new Row(index, row, Words.of("intake.notBegun"), true)
                : new Row(index, row, Words.of("intake.did", label), false);
    }
}
