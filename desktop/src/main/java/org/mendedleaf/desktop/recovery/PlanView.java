package org.mendedleaf.desktop.recovery;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Preflight;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.document.DifferenceView;
import org.mendedleaf.desktop.document.PairWork;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;
import org.mendedleaf.desktop.widgets.WorkPane;

/** The plan of a recovery or a roll back, its run, and what came of it. */
public final class PlanView extends WorkPane {

    private final PlanModel model;
    private final PlanTable table;
    private final VBox problems = new VBox(4);
    private final Label targetName = Ui.label("", "dim");
    private final Button save;
    private final Button open;
    private final Button show;
    private final Button look;

    /** How the person at the screen is asked for files and folders, and shown them. */
    public interface Asks {
        /** Asks for a folder. */
        Optional<File> folder();

        /** Asks for a file that is to be written, with a name to begin with. */
        Optional<File> save(String name);

        /** Opens a file, or a folder, in another program. */
        void open(Path file);
    }

    /**
     * The view.
     *
     * @param back goes back to the files
     * @param said says in the message bar what was done
     */
    public PlanView(PlanModel model, Asks asks, Runnable back, Consumer<String> said) {
        super("plan", model, "plan.undo", back, said);
        this.model = model;
        this.table = new PlanTable(model, this::look);
        Ui.style(this, "past", model.what().at() != null);
        choices(asks);
        problems.setId("plan-problems");
        arrange(model.heading(), back, problems, table);
        save = button(
                "plan.save",
                "-save",
                () -> asks.save(Words.of("plan.fileName"))
                        .ifPresent(f -> model.save(f.toPath(), () -> said.accept(Words.of("plan.saved", f)))));
        open = button("plan.open", "-open", () -> table.selected().ifPresent(i -> asks.open(model.placed(i))));
        show = button("plan.show", "-show", () -> table.selected().ifPresent(i -> showInFolder(asks, model.placed(i))));
        look = button("difference.open", "-look", this::look);
        arrangeButtons(go, done, look, running.buttons(), retry, undo, open, show, Ui.spacer(), save, leave);

        model.stageProperty().addListener((o, a, s) -> show());
        model.planProperty().addListener((o, a, p) -> show());
        model.resultProperty().addListener((o, a, r) -> show());
        model.problemProperty().addListener((o, a, p) -> show());
        model.makingProperty().addListener((o, a, m) -> show());
        sceneProperty().addListener((o, was, now) -> {
            if (now == null) {
                model.leave();
            } else if (was == null) {
                model.comeBack();
            }
        });
        table.selectedProperty().addListener((o, a, b) -> show());
        show();
    }

    /** Opens what changes in the selected file, before it is decided. */
    private void look() {
        List<RestorePlan.Item> items = table.listed();
        if (table.selectedIndex() < 0
                || model.stageProperty().get() == PlanModel.Stage.RUNNING
                || model.stageProperty().get() == PlanModel.Stage.DONE) {
            return;
        }
        DifferenceView.open(
                this,
                new DifferenceView.Files() {
                    @Override
                    public int size() {
                        return items.size();
                    }

                    @Override
                    public String path(int number) {
                        return items.get(number).target();
                    }

                    @Override
                    public Pair pair(int number) throws IOException {
                        return model.pair(items.get(number));
                    }

                    @Override
                    public void went(int number) {
                        table.select(number);
                    }
                },
                table.selectedIndex(),
                new PairWork(model.context().background()));
    }

    private static void showInFolder(Asks asks, Path file) {
        Path folder = file.getParent();
        asks.open(folder == null ? file : folder);
    }

    /** Whether it can be left: not while it is carried out. */
    public boolean mayLeave() {
        return model.stageProperty().get() != PlanModel.Stage.RUNNING;
    }

    @Override
    protected boolean maySeeWhatRuns() {
        return DifferenceView.at(this).isEmpty();
    }

    private void choices(Asks asks) {
        if (model.what().rollBack()) {
            ComboBox<Boolean> later =
                    Choices.of(List.of(false, true), r -> Words.of(r ? "plan.later.remove" : "plan.later.leave"));
            later.setId("plan-later");
            later.setValue(model.removeLaterProperty().get());
            later.valueProperty()
                    .addListener((o, a, v) -> model.removeLaterProperty().set(v));
            choices.getChildren().add(line(Words.of("plan.later"), later));
            return;
        }
        ToggleGroup group = new ToggleGroup();
        HBox where = new HBox(4);
        for (PlanModel.Where w : PlanModel.Where.values()) {
            ToggleButton button = new ToggleButton(Words.of("plan.where." + w));
            button.setId("plan-where-" + w);
            button.setToggleGroup(group);
            button.setSelected(w == model.whereProperty().get());
            button.setOnAction(e -> {
                button.setSelected(true);
                choose(w, asks);
            });
            where.getChildren().add(button);
        }
        targetName.setId("plan-target");
        HBox to = line(Words.of("plan.where"), where);
        to.getChildren().add(targetName);
        ComboBox<Collision> collision = Choices.of(List.of(Collision.values()), c -> Words.of("collision." + c));
        collision.setId("plan-collision");
        collision.setAccessibleText(Words.of("plan.collision"));
        collision.setValue(model.collisionProperty().get());
        collision
                .valueProperty()
                .addListener((o, a, v) -> model.collisionProperty().set(v));
        model.collisionProperty().addListener((o, a, v) -> collision.setValue(v));
        HBox onCollision = line(Words.of("plan.collision"), collision);
        model.whereProperty()
                .addListener(
                        (o, a, w) -> Ui.visible(onCollision, w == PlanModel.Where.BACK || w == PlanModel.Where.FOLDER));
        choices.getChildren().addAll(to, onCollision);
    }

    private void choose(PlanModel.Where w, Asks asks) {
        model.whereProperty().set(w);
        Function<String, Optional<File>> ask = name -> w == PlanModel.Where.FOLDER ? asks.folder() : asks.save(name);
        switch (w) {
            case BACK -> model.targetProperty().set(null);
            case FOLDER -> ask.apply("").ifPresent(f -> model.targetProperty().set(f.toPath()));
            case ZIP ->
                ask.apply(Words.of("plan.zipName"))
                        .ifPresent(f -> model.targetProperty().set(f.toPath()));
            case BAG ->
                ask.apply(Words.of("plan.bagName"))
                        .ifPresent(f -> model.targetProperty().set(f.toPath()));
        }
    }

    private void show() {
        PlanModel.Stage stage = model.stageProperty().get();
        RestorePlan plan = model.planProperty().get();
        RestoreResult result = model.resultProperty().get();
        boolean before = stage != PlanModel.Stage.RUNNING && stage != PlanModel.Stage.DONE;
        boolean ended = stage == PlanModel.Stage.DONE;
        Path to = model.targetProperty().get();
        targetName.setText(to == null ? "" : to.toString());
        Ui.visible(choices, before);
        running.showing(stage == PlanModel.Stage.RUNNING);
        Ui.visible(go, before);
        Ui.visible(save, before && plan != null);
        Ui.visible(look, before);
        look.setDisable(table.selectedIndex() < 0);
        Ui.visible(retry, ended && model.canRetry());
        Ui.visible(undo, ended && model.canUndo());
        Ui.visible(open, ended);
        Ui.visible(show, ended);
        Ui.visible(done, ended);
        Ui.visible(leave, !ended);
        boolean placed =
                table.selectedDone() && !model.what().openPlace().place().isOutside();
        open.setDisable(!placed);
        show.setDisable(!placed);
        go.setDisable(stage != PlanModel.Stage.READY);
        go.setText(plan == null ? Words.of("plan.wait") : goWords(plan));
        sum.setText(sum(stage, plan, result));
        problems(plan, before);
        table.show(plan, result);
    }

    private String sum(PlanModel.Stage stage, @Nullable RestorePlan plan, @Nullable RestoreResult result) {
        if (stage == PlanModel.Stage.DONE && result != null) {
            return resultWords(result);
        }
        String making = model.makingProperty().get();
        if (stage == PlanModel.Stage.PLANNING && !making.isEmpty()) {
            return making;
        }
        if (plan == null) {
            // What went wrong, or how far it is, is said beside it.
            return stage == PlanModel.Stage.PLANNING ? Words.of("plan.making") : "";
        }
        return sumWords(stage, plan);
    }

    private String goWords(RestorePlan plan) {
        return Words.of(
                model.what().rollBack() ? "plan.goRollBack" : "plan.go", Formats.number(plan.acting()), plan.acting());
    }

    private String sumWords(PlanModel.Stage stage, RestorePlan plan) {
        if (stage == PlanModel.Stage.NEEDS_TARGET) {
            return Words.of("plan.chooseTarget");
        }
        if (stage == PlanModel.Stage.NOTHING) {
            return Words.of(model.what().rollBack() ? "plan.nothing" : "plan.nothingToRestore");
        }
        long left = plan.items().size() - plan.acting();
        Preflight p = plan.preflight();
        String space = p.freeBytes() == Long.MAX_VALUE
                ? Words.of("plan.needed", Formats.size(p.neededBytes()))
                : Words.of("plan.space", Formats.size(p.neededBytes()), Formats.size(p.freeBytes()));
        return Words.of("plan.counts", Formats.number(plan.acting()), plan.acting(), Formats.number(left)) + "  ·  "
                + space;
    }

    private static String resultWords(RestoreResult r) {
        long failed = r.count(RestoreResult.Outcome.FAILED);
        String words = Words.of(
                "plan.result",
                Formats.number(r.count(RestoreResult.Outcome.DONE)),
                r.count(RestoreResult.Outcome.DONE),
                Formats.number(r.count(RestoreResult.Outcome.LEFT)),
                Formats.number(failed));
        return r.cancelled() ? Words.of("plan.cancelled") + " " + words : words;
    }

    private void problems(@Nullable RestorePlan plan, boolean before) {
        problems.getChildren().clear();
        String own = model.problemProperty().get();
        if (!own.isEmpty()) {
            problems.getChildren().add(warning(own));
        }
        if (plan != null && before) {
            for (Preflight.Problem p : plan.preflight().problems()) {
                if (!own.contains(p.words())) {
                    problems.getChildren().add(warning(p.words()));
                }
            }
        }
        Ui.visible(problems, !problems.getChildren().isEmpty());
    }

    private static HBox warning(String words) {
        Label label = Ui.label(words, "warning-words");
        label.setWrapText(true);
        HBox box = new HBox(label);
        box.getStyleClass().add("warning");
        return box;
    }
}
