package org.mendedleaf.desktop.intake;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import org.mendedleaf.core.intake.IntakePlan;
import org.mendedleaf.core.intake.IntakeRow;
import org.mendedleaf.core.intake.NameTaken;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;
import org.mendedleaf.desktop.widgets.WorkPane;

/** Many files that come in: what each of them is, as a table that can be changed, then the run and what came of it. */
public final class IntakeView extends WorkPane {

    private final IntakeModel model;
    private final IntakeTable table;
    private final Label problem = Ui.label("", "error-text");

    /**
     * The view.
     *
     * @param back goes back to the files
     * @param said says in the message bar what was done
     */
    public IntakeView(IntakeModel model, Runnable back, Consumer<String> said) {
        super("intake", model, "intake.undo", back, said);
        this.model = model;
        this.table = new IntakeTable(model);
        setId("intake");
        choices();
        problem.setId("intake-problem");
        problem.setWrapText(true);
        arrange(model.heading(), back, problem, table);
        arrangeButtons(go, done, running.buttons(), retry, undo, Ui.spacer(), leave);

        model.stepProperty().addListener((o, a, s) -> show());
        model.planProperty().addListener((o, a, p) -> show());
        model.resultProperty().addListener((o, a, r) -> show());
        model.problemProperty().addListener((o, a, p) -> show());
        show();
    }

    /** Whether it can be left: not while it is carried out. */
    public boolean mayLeave() {
        return model.stepProperty().get() != IntakeModel.Step.RUNNING;
    }

    private void choices() {
        ComboBox<NameTaken> taken =
                Choices.of(List.of(NameTaken.values()), n -> Words.of("setting.collision." + n.text()));
        taken.setId("intake-taken");
        taken.setAccessibleText(Words.of("plan.collision"));
        taken.setValue(model.takenProperty().get());
        taken.valueProperty().addListener((o, a, v) -> model.takenProperty().set(v));
        model.takenProperty().addListener((o, a, v) -> taken.setValue(v));
        Button remember = Ui.button("intake.remember", model::rememberRule, "flat", "small");
        remember.setId("intake-remember");
        Ui.visible(remember, !model.openPlace().place().isOutside());
        CheckBox take = new CheckBox(Words.of("intake.take"));
        take.setId("intake-take");
        take.selectedProperty().bindBidirectional(model.takeProperty());
        TextField note = new TextField();
        note.setId("intake-note");
        note.setPromptText(Words.of("intake.notePrompt"));
        note.setAccessibleText(Words.of("intake.notePrompt"));
        note.textProperty().bindBidirectional(model.noteProperty());
        note.setPrefWidth(420);
        choices.getChildren()
                .addAll(line(Words.of("intake.taken"), taken, remember), line(Words.of("intake.note"), note, take));
    }

    private void show() {
        IntakeModel.Step step = model.stepProperty().get();
        IntakePlan plan = model.planProperty().get();
        PutResult result = model.resultProperty().get();
        boolean before = step == IntakeModel.Step.TABLE;
        boolean ended = step == IntakeModel.Step.DONE;
        boolean works = step == IntakeModel.Step.RUNNING || step == IntakeModel.Step.READING;
        Ui.visible(choices, before);
        running.showing(works);
        Ui.visible(go, before);
        Ui.visible(retry, ended && model.canRetry());
        Ui.visible(undo, ended && model.canUndo());
        Ui.visible(done, ended);
        Ui.visible(leave, !ended);
        go.setDisable(!model.canRun());
        go.setText(plan == null ? "" : Words.of("intake.go", Formats.number(plan.acting()), plan.acting()));
        problem.setText(model.problemProperty().get());
        Ui.visible(problem, !model.problemProperty().get().isEmpty());
        sum.setText(
                ended && result != null
                        ? Words.of(
                                "intake.result",
                                Formats.number(result.labels().size()),
                                result.labels().size(),
                                Formats.number(result.failed().size()))
                        : plan == null ? Words.of("intake.wait") : sumWords(plan));
        table.show(plan, result, before);
    }

    private static String sumWords(IntakePlan plan) {
        return Words.of(
                        "intake.sum",
                        plan.count(IntakeRow.Fate.NEW_VERSION),
                        plan.count(IntakeRow.Fate.NEW_FILE),
                        plan.count(IntakeRow.Fate.IDENTICAL),
                        plan.count(IntakeRow.Fate.UNSURE),
                        plan.leftOut())
                + "  ·  " + Words.of("intake.bytes", Formats.size(plan.bytes()));
    }
}
