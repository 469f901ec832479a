package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.desktop.journal.JournalModel;

/** What happened, narrowed down, and from there to the files and back by undoing. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class JournalScreenTest extends WindowTest {

    private TableView<JournalModel.Row> entries() {
        return robot.lookup("#journal-table").queryTableView();
    }

    private void restoredAndRemoved() throws Exception {
        fill();
        show();
        select("ledger.csv");
        choosePoint(2);
        eventually("the button to say it", () -> text("#restore").equals("Restore version 1"));
        robot.clickOn("#restore");
        eventually("the old content", () -> live().contains("412"));
        eventually("all jobs", () -> app.shell().context().jobs().waiting() == 0);
        robot.clickOn("#remove");
        eventually("the file to be gone", () -> !Files.exists(desk.resolve("ledger.csv")));
        eventually("all jobs", () -> app.shell().context().jobs().waiting() == 0);
        robot.push(KeyCode.ALT, KeyCode.DIGIT5);
        eventually(
                "both entries",
                () -> visible("#journal") && entries().getItems().size() == 3);
    }

    private void type(String id, String words) {
        robot.interact(() -> robot.lookup(id).queryAs(TextField.class).setText(words));
    }

    @Test
    void anEntrySaysItsFilesAndIsUndoneFromThere() throws Exception {
        restoredAndRemoved();
        assertThat(text("#journal-entry")).isEqualTo("ledger.csv removed");
        TableView<?> files = robot.lookup("#journal-files").queryTableView();
        assertThat(files.getItems()).hasSize(1);
        robot.clickOn("#journal-undo");
        eventually("the file", () -> Files.exists(desk.resolve("ledger.csv")));
        eventually("what was undone, as an entry", () -> entries().getItems().size() == 4);
        eventually(
                "that it was undone",
                () -> entries().getItems().stream()
                        .anyMatch(r -> r.entry().kind().equals("REMOVED")
                                && r.entry().action().orElseThrow().undone()));
        robot.interact(() -> entries().getSelectionModel().select(2));
        eventually("the restore", () -> text("#journal-entry").equals("ledger.csv restored"));
        robot.clickOn("#journal-show");
        eventually(
                "the file on the Files screen",
                () -> visible("#listing") && text("#line-title").equals("ledger.csv"));
    }

    @Test
    void itIsNarrowedDownAndWrittenIntoAFile() throws Exception {
        restoredAndRemoved();
        type("#journal-file", "nothing like it");
        eventually("nothing", () -> entries().getItems().isEmpty());
        type("#journal-file", "ledger");
        eventually("both", () -> entries().getItems().size() == 2);
        robot.interact(() -> {
            @SuppressWarnings("unchecked")
            ChoiceBox<String> kind = robot.lookup("#journal-kind").queryAs(ChoiceBox.class);
            kind.setValue("REMOVED");
        });
        eventually("one", () -> entries().getItems().size() == 1);
        type("#journal-since", "some day");
        eventually("what is wrong", () -> text("#journal-problem").contains("is not a moment"));
        type("#journal-since", "");
        Path csv = temp.resolve("out.csv");
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(new File(csv.toString()))));
        robot.clickOn("#journal-save");
        eventually("the file", () -> Files.exists(csv) && Files.size(csv) > 0);
        List<String> lines = Files.readAllLines(csv);
        assertThat(lines).hasSize(2);
        assertThat(lines.get(1)).contains("REMOVED").contains("ledger.csv");
        robot.clickOn("#journal-save");
        eventually("nothing is overwritten", () -> text("#journal-problem").contains("nothing was written"));
        Path page = temp.resolve("out.html");
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(page.toFile())));
        robot.clickOn("#journal-save");
        eventually(
                "the page", () -> Files.exists(page) && Files.readString(page).contains("ledger.csv"));
        robot.clickOn("#journal-save");
        eventually("no page is overwritten", () -> text("#journal-problem").contains("out.html"));
    }
}
