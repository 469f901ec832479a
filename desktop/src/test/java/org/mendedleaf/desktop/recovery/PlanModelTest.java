package org.mendedleaf.desktop.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.context.Navigator;

/** The plan without its scene: where to, what on collision, carried out, tried again, undone. */
class PlanModelTest extends AppContextTest {

    private PlanModel plan(boolean rollBack, String... paths) throws Exception {
        PlanModel plan = new PlanModel(context, new Navigator.What(openPlace, List.of(paths), between(), rollBack));
        until(() -> plan.planProperty().get() != null);
        return plan;
    }

    private void until(PlanModel plan, PlanModel.Stage stage) throws Exception {
        until(() -> plan.stageProperty().get() == stage);
    }

    private static List<String> steps(PlanModel plan) {
        RestorePlan made = java.util.Objects.requireNonNull(plan.planProperty().get());
        return made.items().stream().map(i -> i.target() + " " + i.step()).toList();
    }

    @Test
    void thePlanFollowsEachChoice() throws Exception {
        PlanModel plan = plan(false, "ledger.csv", "sub");
        until(plan, PlanModel.Stage.READY);
        assertThat(steps(plan))
                .containsExactly("ledger.csv REPLACE", "sub/deep/note.txt CREATE", "sub/plan.txt UNCHANGED");
        plan.collide("ledger.csv", Collision.SKIP);
        until(() -> plan.stageProperty().get() == PlanModel.Stage.READY
                && steps(plan).contains("ledger.csv SKIP"));
        plan.whereProperty().set(PlanModel.Where.ZIP);
        until(plan, PlanModel.Stage.NEEDS_TARGET);
        Path there = Files.writeString(temp.resolve("there.zip"), "something else");
        plan.targetProperty().set(there);
        until(plan, PlanModel.Stage.BLOCKED);
        assertThat(plan.problemProperty().get()).contains("already");
        plan.targetProperty().set(temp.resolve("new.zip"));
        until(plan, PlanModel.Stage.READY);
        plan.run();
        until(plan, PlanModel.Stage.DONE);
        assertThat(temp.resolve("new.zip")).exists();
        assertThat(there).hasContent("something else");
        assertThat(plan.canUndo()).isFalse();
    }

    @Test
    void aFolderIsRolledBackAndUndoneAsOne() throws Exception {
        PlanModel plan = plan(true, "");
        until(plan, PlanModel.Stage.READY);
        assertThat(steps(plan)).contains("sub/new.txt LEAVE");
        plan.removeLaterProperty().set(true);
        until(() -> plan.stageProperty().get() == PlanModel.Stage.READY
                && steps(plan).contains("sub/new.txt REMOVE"));
        plan.run();
        until(plan, PlanModel.Stage.DONE);
        assertThat(folder.resolve("sub/new.txt")).doesNotExist();
        assertThat(folder.resolve("ledger.csv")).content().contains("Katy");
        assertThat(plan.canRetry()).isFalse();
        boolean[] undone = {false};
        plan.undo(() -> undone[0] = true);
        until(() -> undone[0]);
        assertThat(folder.resolve("sub/new.txt")).hasContent("came later");
        assertThat(folder.resolve("ledger.csv")).hasContent("saved over by a letter");
    }

    @Test
    void whatFailedIsTriedAgainAlone() throws Exception {
        Path into = Files.createDirectory(temp.resolve("into"));
        PlanModel plan = plan(false, "ledger.csv", "sub");
        plan.whereProperty().set(PlanModel.Where.FOLDER);
        plan.targetProperty().set(into);
        until(plan, PlanModel.Stage.READY);
        // A file where a folder has to be: what belongs into it cannot be written.
        Files.writeString(into.resolve("sub"), "in the way");
        plan.run();
        until(plan, PlanModel.Stage.DONE);
        RestoreResult first =
                java.util.Objects.requireNonNull(plan.resultProperty().get());
        assertThat(first.count(RestoreResult.Outcome.DONE)).isEqualTo(1);
        assertThat(first.count(RestoreResult.Outcome.FAILED)).isEqualTo(2);
        assertThat(plan.canRetry()).isTrue();
        Files.delete(into.resolve("sub"));
        plan.retry();
        until(() -> plan.stageProperty().get() == PlanModel.Stage.DONE
                && plan.resultProperty().get() != first);
        assertThat(into.resolve("sub/deep/note.txt")).hasContent("a note");
        assertThat(into.resolve("ledger (2).csv"))
                .as("what had worked is not done twice")
                .doesNotExist();
    }

    @Test
    void aPlanThatIsLeftIsNotMadeToItsEndAndIsMadeWhenItIsShownAgain() throws Exception {
        PlanModel plan = new PlanModel(context, new Navigator.What(openPlace, List.of(""), between(), false));
        assertThat(plan.comeBack()).as("it is shown, and is being made").isFalse();
        plan.leave();
        boolean[] later = {false};
        context.background().run(() -> true, ok -> later[0] = true, e -> {});
        until(() -> later[0]);
        assertThat(plan.stageProperty().get()).isEqualTo(PlanModel.Stage.PLANNING);
        assertThat(plan.planProperty().get()).isNull();
        assertThat(plan.comeBack()).isTrue();
        until(plan, PlanModel.Stage.READY);
        assertThat(plan.comeBack()).isFalse();
        assertThat(plan.makingProperty().get()).isEmpty();
    }

    @Test
    void whatIsCancelledBeforeItBeganIsTriedAgain() throws Exception {
        PlanModel plan = plan(false, "ledger.csv");
        until(plan, PlanModel.Stage.READY);
        CountDownLatch before = new CountDownLatch(1);
        context.jobs().start("Another", progress -> before.await(20, TimeUnit.SECONDS), ok -> {}, e -> {});
        plan.run();
        plan.job().cancel();
        before.countDown();
        until(plan, PlanModel.Stage.DONE);
        RestoreResult nothing =
                java.util.Objects.requireNonNull(plan.resultProperty().get());
        assertThat(nothing.cancelled()).isTrue();
        assertThat(nothing.items()).isEmpty();
        assertThat(folder.resolve("ledger.csv")).hasContent("saved over by a letter");
        assertThat(plan.canUndo()).isFalse();
        assertThat(plan.canRetry()).isTrue();
        plan.retry();
        until(() -> plan.stageProperty().get() == PlanModel.Stage.DONE
                && plan.resultProperty().get() != nothing);
        assertThat(folder.resolve("ledger.csv")).content().contains("Katy");
    }

    @Test
    void whereNothingDiffersThereIsNothingToDo() throws Exception {
        PlanModel plan = plan(false, "sub/plan.txt");
        until(plan, PlanModel.Stage.NOTHING);
        plan.run();
        assertThat(plan.stageProperty().get()).isEqualTo(PlanModel.Stage.NOTHING);
        PlanModel gone = new PlanModel(context, new Navigator.What(openPlace, List.of("nowhere"), between(), false));
        until(gone, PlanModel.Stage.BLOCKED);
        assertThat(gone.problemProperty().get()).contains("was not there");
    }

    @Test
    void thePlanIsSavedAsItsNameSays() throws Exception {
        PlanModel plan = plan(false, "ledger.csv");
        boolean[] saved = {false, false};
        plan.save(temp.resolve("plan.csv"), () -> saved[0] = true);
        plan.save(temp.resolve("plan.json"), () -> saved[1] = true);
        until(() -> saved[0] && saved[1]);
        assertThat(temp.resolve("plan.csv")).content().startsWith("path,version,bytes,target,step,why,other");
        assertThat(temp.resolve("plan.json")).content().contains("\"step\" : \"REPLACE\"");
    }

    @Test
    void whatCameOfItIsListedWithoutThePlanToo() throws Exception {
        PlanModel plan = plan(true, "ledger.csv", "sub");
        until(plan, PlanModel.Stage.READY);
        RestorePlan made = java.util.Objects.requireNonNull(plan.planProperty().get());
        plan.run();
        until(plan, PlanModel.Stage.DONE);
        RestoreResult result =
                java.util.Objects.requireNonNull(plan.resultProperty().get());
        assertThat(result.items()).isNotEmpty();
        assertThat(PlanTable.rows(null, result))
                .as("a large plan is let go when it is carried out")
                .containsExactlyElementsOf(PlanTable.rows(made, result));
        RestoreResult.Item good = result.items().get(0);
        RestoreResult.Item bad = new RestoreResult.Item(
                made.items().get(made.items().size() - 1), RestoreResult.Outcome.FAILED, 0, "", "in use");
        assertThat(PlanTable.rows(null, new RestoreResult(1, List.of(good, bad), false)))
                .extracting(PlanTable.Row::outcome)
                .as("what did not work stands on top")
                .containsExactly(bad, good);
        assertThat(PlanTable.rows(null, null)).isEmpty();
    }
}
