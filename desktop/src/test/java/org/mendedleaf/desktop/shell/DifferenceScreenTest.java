package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.settings.UserSettings;

/** What changed in a file is looked at from the plan, from two moments and from the guard's question, in one manner. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class DifferenceScreenTest extends WindowTest {

    private String words() {
        return robot.lookup("#difference .detail-words").queryLabeled().getText();
    }

    /** Two hours ago: two files; an hour ago: one changed, one gone, one added. */
    private void history() throws Exception {
        Instant then = Instant.now().minus(Duration.ofHours(2));
        save("ledger.csv", "kind,kilos\nKaty,412\nBramley,1204\nEgremont,300\n", then);
        save("plan.txt", "the plan\nas it was\n", then);
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), at(then), "Ines");
            capture(vault, place, then);
            Instant later = then.plus(Duration.ofHours(1));
            save("ledger.csv", "kind,kilos\nKaty,421\nBramley,1204\nEgremont,300\n", later);
            Files.delete(desk.resolve("plan.txt"));
            save("new.txt", "came later\n", later);
            capture(vault, place, later.plusSeconds(5));
        }
        UserSettings settings = UserSettings.open(home);
        settings.addVault(temp.resolve("vault").toRealPath());
        settings.who("Ines");
        show();
        eventually("a listing", () -> rows().size() >= 2);
    }

    private void past() {
        robot.interact(
                () -> app.shell().files().momentProperty().set(Instant.now().minus(Duration.ofMinutes(90))));
        eventually("the past", () -> !text("#moment").equals("Now"));
    }

    private void choose(String table, int row) {
        TableView<?> view = robot.lookup(table).queryTableView();
        eventually("rows", () -> view.getItems().size() > row);
        robot.interact(() -> {
            view.requestFocus();
            view.getSelectionModel().clearAndSelect(row);
        });
    }

    @Test
    void aRowOfThePlanShowsWhatItWouldChangeBeforeItIsDecided() throws Exception {
        history();
        past();
        robot.interact(() -> app.shell().files().tickAll());
        robot.interact(() -> app.shell().files().routes().recover());
        eventually("the plan", () -> robot.lookup("#plan-table").tryQuery().isPresent());
        assertThat(robot.lookup("#plan-look").query().isDisabled()).isTrue();
        everythingHasAName("a plan with a file to look at");
        choose("#plan-table", 0);
        robot.push(KeyCode.ENTER);
        eventually(
                "the first file", () -> robot.lookup("#difference").tryQuery().isPresent());
        eventually("what it changes", () -> words().contains("1 cell"));
        assertThat(words()).isEqualTo("what the folder holds now, then version 1: 1 cell");
        assertThat(text("#difference-count")).isEqualTo("file 1 of 2");
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        assertThat(live()).as("nothing is carried out that cannot be seen").contains("Katy,421");
        robot.push(KeyCode.CONTROL, KeyCode.DOWN);
        eventually("the second", () -> words().equals("Only in version 1; there is nothing before it."));
        robot.push(KeyCode.ESCAPE);
        eventually("the plan again", () -> visible("#plan-go"));
        TableView<?> table = robot.lookup("#plan-table").queryTableView();
        assertThat(table.getSelectionModel().getSelectedIndex())
                .as("where it was left")
                .isEqualTo(1);
        robot.clickOn("#plan-go");
        eventually("the old content", () -> live().contains("Katy,412"));
    }

    @Test
    void twoMomentsShowWhatChangedInEachFileAndLeadOn() throws Exception {
        history();
        past();
        robot.interact(() -> app.shell().files().routes().compare());
        eventually(
                "two moments", () -> robot.lookup("#compare-table").tryQuery().isPresent());
        choose("#compare-table", 0);
        robot.clickOn("#compare-look");
        eventually("a file", () -> words().equals("version 1, then version 2: 1 cell"));
        robot.clickOn("#difference-file-on");
        eventually("the added one", () -> words().equals("Only in version 1; there is nothing before it."));
        robot.clickOn("#difference-file-on");
        eventually("the removed one", () -> words().equals("Only in version 1; nothing comes after it."));
        assertThat(robot.lookup("#difference-file-on").query().isDisabled()).isTrue();
        robot.clickOn("#difference-file-back");
        robot.clickOn("#difference-file-back");
        eventually("the first again", () -> words().contains("1 cell"));
        robot.push(KeyCode.CONTROL, KeyCode.F);
        robot.write("nowhere").push(KeyCode.ENTER);
        eventually("that it is not there", () -> words().equals("“nowhere” was not found here."));
        robot.clickOn("#difference-close");
        eventually("two moments again", () -> visible("#compare-look"));
    }

    @Test
    void whatWouldComeInIsComparedWithWhatIsThere() throws Exception {
        history();
        Path letter = Files.writeString(temp.resolve("letter.csv"), "Dear all,\nthe press is mended.\n");
        select("ledger.csv");
        robot.interact(() -> app.shell()
                .files()
                .intake()
                .comeIn(List.of(letter), app.shell().files().selectedProperty().get()));
        eventually("the guard", () -> visible("#guard"));
        robot.clickOn("#guard-look");
        eventually("the difference", () -> words().startsWith("version 2, then letter.csv: "));
        robot.push(KeyCode.ESCAPE);
        eventually("the question again", () -> visible("#guard-leave") && visible("#guard-replaced"));
        assertThat(live()).contains("Katy,421");
    }
}
