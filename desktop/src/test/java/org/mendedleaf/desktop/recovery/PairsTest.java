package org.mendedleaf.desktop.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.context.Navigator;

/** What a row of a plan or of two moments has to compare: what is there, and what would be there. */
class PairsTest extends AppContextTest {

    private PlanModel plan(boolean rollBack, String... paths) throws Exception {
        PlanModel plan = new PlanModel(context, new Navigator.What(openPlace, List.of(paths), between(), rollBack));
        until(() -> plan.planProperty().get() != null);
        return plan;
    }

    private static Pair.Seen seen(PlanModel plan, String path) throws Exception {
        RestorePlan made = java.util.Objects.requireNonNull(plan.planProperty().get());
        return plan.pair(made.items().stream()
                        .filter(i -> i.target().equals(path))
                        .findFirst()
                        .orElseThrow())
                .see();
    }

    private static List<String> words(Pair.Seen seen) {
        return Document.words(seen.document().orElseThrow());
    }

    @Test
    void whatWouldBeReplacedIsComparedWithWhatWouldCome() throws Exception {
        PlanModel plan = plan(false, "ledger.csv", "sub");
        assertThat(seen(plan, "ledger.csv").words()).startsWith("what the folder holds now, then version 1: ");
        assertThat(seen(plan, "sub/plan.txt").words()).startsWith("No difference: ");
        Pair.Seen created = seen(plan, "sub/deep/note.txt");
        assertThat(created.words()).isEqualTo("Only in version 1; there is nothing before it.");
        assertThat(words(created)).containsExactly("a note");
        // Somebody saves after the plan was made: what is there by then is compared.
        Files.writeString(folder.resolve("ledger.csv"), "kind,kilos\nKaty,412\n");
        assertThat(seen(plan, "ledger.csv").words()).startsWith("No difference: ");
    }

    @Test
    void inAnotherFolderWhatIsThereIsComparedAndInAnArchiveNothingIs() throws Exception {
        PlanModel plan = plan(false, "ledger.csv");
        plan.whereProperty().set(PlanModel.Where.FOLDER);
        Path other = Files.createDirectory(temp.resolve("other"));
        Files.writeString(other.resolve("ledger.csv"), "kind,kilos\nKaty,99\n");
        plan.targetProperty().set(other);
        until(() -> plan.stageProperty().get() == PlanModel.Stage.READY);
        RestorePlan.Item item = java.util.Objects.requireNonNull(
                        plan.planProperty().get())
                .items()
                .get(0);
        assertThat(plan.pair(item).see().words()).isEqualTo("ledger.csv, then version 1: 1 cell");
        plan.whereProperty().set(PlanModel.Where.ZIP);
        plan.targetProperty().set(temp.resolve("new.zip"));
        until(() -> plan.stageProperty().get() == PlanModel.Stage.READY);
        assertThat(plan.pair(item).see().words()).isEqualTo("Only in version 1; there is nothing before it.");
    }

    @Test
    void whatARollBackWouldRemoveIsShownAsItIs() throws Exception {
        PlanModel plan = plan(true, "");
        plan.removeLaterProperty().set(true);
        until(() -> plan.planProperty().get() != null
                && plan.planProperty().get().items().stream()
                        .anyMatch(i -> i.step() == RestorePlan.Step.REMOVE
                                && i.target().equals("sub/new.txt")));
        Pair.Seen gone = seen(plan, "sub/new.txt");
        assertThat(gone.words()).isEqualTo("Only in what the folder holds now; nothing comes after it.");
        assertThat(words(gone)).containsExactly("came later");
    }

    @Test
    void twoMomentsCompareTheVersionsOfThen() throws Exception {
        CompareModel model = new CompareModel(context, openPlace, "");
        model.fromProperty().set(between());
        model.toProperty().set(Moment.FAR);
        until(() -> model.wholeProperty().get() != null);
        // What is saved since is none of the moments.
        Files.writeString(folder.resolve("ledger.csv"), "kind,kilos\nKaty,1\n");
        for (TwoMoments.Change change : model.shownProperty().get()) {
            String words = model.pair(change).see().words();
            switch (change.path()) {
                case "ledger.csv" -> assertThat(words).startsWith("version 1, then version 2: ");
                case "sub/new.txt" -> assertThat(words).isEqualTo("Only in version 1; there is nothing before it.");
                default -> assertThat(words).isEqualTo("Only in version 1; nothing comes after it.");
            }
        }
        assertThat(model.shownProperty().get()).hasSize(3);
    }
}
