package org.mendedleaf.desktop.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.intake.Family;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.desktop.context.AppContextTest;

/** Scattered copies: their order, their name, which of them, and what comes of it. */
class FoldModelTest extends AppContextTest {

    private FoldModel model;

    private static String plan(int to) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < to; i++) {
            text.append("Row ")
                    .append(i)
                    .append(" of the picking plan stands under tree ")
                    .append(i * 37)
                    .append(".\n");
        }
        return text.toString();
    }

    @BeforeEach
    void copies() throws Exception {
        save("plans/plan.txt", plan(20), then);
        save("plans/plan v2.txt", plan(22), then.plusSeconds(60));
        save("plans/plan FINAL.txt", plan(25), then.plusSeconds(120));
        boolean[] captured = {false};
        context.captures().capture(openPlace, r -> captured[0] = true);
        until(() -> captured[0]);
        model = new FoldModel(context, openPlace, "plans");
        until(() -> model.familiesProperty().get() != null);
    }

    private List<Family> families() {
        return Objects.requireNonNull(model.familiesProperty().get());
    }

    private List<String> members() {
        return families().get(0).members().stream().map(m -> m.path()).toList();
    }

    @Test
    void theCopiesAreAFamilyOldestFirstWithAProposedName() {
        assertThat(families()).hasSize(1);
        assertThat(members()).containsExactly("plans/plan.txt", "plans/plan v2.txt", "plans/plan FINAL.txt");
        assertThat(families().get(0).keep()).isEqualTo("plans/plan.txt");
        assertThat(model.foldings()).hasSize(1);
    }

    @Test
    void theOrderCanBeChangedWithinTheFamilyOnly() {
        model.move(0, 0, 2);
        assertThat(members()).containsExactly("plans/plan v2.txt", "plans/plan FINAL.txt", "plans/plan.txt");
        List<String> before = members();
        model.move(0, 0, 3);
        model.move(0, 0, -1);
        model.move(0, 1, 1);
        assertThat(members()).isEqualTo(before);
    }

    @Test
    void aCopyThatIsTakenOutStaysAsItIs() throws Exception {
        model.takeOut(0, "plans/plan v2.txt");
        assertThat(members()).containsExactly("plans/plan.txt", "plans/plan FINAL.txt");
        List<String> said = new ArrayList<>();
        model.run(said::add);
        until(() -> !said.isEmpty());
        assertThat(folder.resolve("plans/plan v2.txt")).exists();
        assertThat(folder.resolve("plans/plan FINAL.txt")).doesNotExist();
    }

    @Test
    void aNameThatIsNoneIsRefusedAndTheOldOneStays() {
        model.keep(0, "a/b.txt");
        assertThat(model.problemProperty().get()).isNotEmpty();
        assertThat(families().get(0).keep()).isEqualTo("plans/plan.txt");
        model.keep(0, "the plan.txt");
        assertThat(families().get(0).keep()).isEqualTo("plans/the plan.txt");
        assertThat(model.problemProperty().get()).isEmpty();
    }

    @Test
    void aFamilyThatIsLeftOutIsNotFolded() {
        model.include(0, false);
        assertThat(model.isIncluded(0)).isFalse();
        assertThat(model.foldings()).isEmpty();
        List<String> said = new ArrayList<>();
        model.run(said::add);
        assertThat(model.runningProperty().get()).isFalse();
        model.include(0, true);
        assertThat(model.foldings()).hasSize(1);
    }

    @Test
    void foldingMakesThemTheVersionsOfOneFile() throws Exception {
        List<String> said = new ArrayList<>();
        model.run(said::add);
        assertThat(model.runningProperty().get()).isTrue();
        model.run(words -> said.add("twice"));
        until(() -> !said.isEmpty() && !model.runningProperty().get());
        assertThat(said).hasSize(1).noneMatch("twice"::equals);
        assertThat(Files.readString(folder.resolve("plans/plan.txt"))).isEqualTo(plan(25));
        assertThat(folder.resolve("plans/plan v2.txt")).doesNotExist();
        assertThat(versions()).isEqualTo(3);
    }

    private int versions() throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            List<Version> all = reading.line(openPlace.place(), "plans/plan.txt")
                    .orElseThrow()
                    .versions();
            return all.size();
        }
    }
}
