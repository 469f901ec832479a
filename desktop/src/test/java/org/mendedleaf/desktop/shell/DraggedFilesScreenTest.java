package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.desktop.intake.IntakeModelsTest.words;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.TransferMode;
import javafx.stage.Stage;
import javafx.stage.StageStyle;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** Files that are dragged in the real window, from outside of it and within. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class DraggedFilesScreenTest extends IntakeWindowTest {

    /** Drags files from something outside the window, as a desktop has it, and drops them here. */
    private void drop(Node target, Path... files) {
        Label handle = new Label("files");
        handle.setMinSize(60, 30);
        handle.setOnDragDetected(e -> {
            ClipboardContent content = new ClipboardContent();
            content.putFiles(java.util.Arrays.stream(files).map(Path::toFile).toList());
            handle.startDragAndDrop(TransferMode.COPY).setContent(content);
            e.consume();
        });
        Stage[] other = new Stage[1];
        robot.interact(() -> {
            other[0] = new Stage(StageStyle.UNDECORATED);
            other[0].setAlwaysOnTop(true);
            other[0].setScene(new Scene(handle));
            other[0].setX(1210);
            other[0].setY(760);
            other[0].show();
        });
        robot.drag(handle).dropTo(target);
        robot.interact(other[0]::close);
    }

    @Test
    void aFileDroppedOnALineIsItsNextVersion() throws Exception {
        office();
        select("lease.txt");
        Path next = Files.writeString(downloads.resolve("scan 17.txt"), words(1, 20) + "signed");
        drop(robot.lookup("#points").query(), next);
        eventually("the version", () -> points().size() == 2);
        assertThat(desk.resolve("lease.txt")).hasContent(words(1, 20) + "signed");
        eventually("the message", () -> text("#message").equals("lease.txt is now version 2."));
        robot.clickOn("#undo");
        eventually(
                "what was there",
                () -> Files.readString(desk.resolve("lease.txt")).equals(words(1, 20)));
    }

    @Test
    void theWrongFileDroppedOnARowIsStopped() throws Exception {
        office();
        Path wrong = Files.writeString(downloads.resolve("rota.txt"), words(7, 20));
        Node row = robot.from(robot.lookup("#listing").queryAll())
                .lookup("lease.txt")
                .query();
        drop(row, wrong);
        eventually("the guard", () -> visible("#guard"));
        robot.clickOn("#guard-leave");
        eventually("the files again", () -> visible("#listing"));
        assertThat(desk.resolve("lease.txt")).hasContent(words(1, 20));
    }

    @Test
    void severalFilesDroppedOnTheListingAreATable() throws Exception {
        office();
        Path one = Files.writeString(downloads.resolve("lease (2).txt"), words(1, 20) + "signed");
        Path two = Files.writeString(downloads.resolve("brand new.txt"), words(8, 20));
        drop(robot.lookup("#listing").query(), one, two);
        eventually("the table", () -> text("#intake-sum").startsWith("1 new version, 1 new file"));
        robot.clickOn("#intake-go");
        eventually("the end", () -> text("#intake-sum").equals("2 files put in, 0 failed"));
        assertThat(desk.resolve("brand new.txt")).hasContent(words(8, 20));
    }

    /** The first words that stand in a row. */
    private String firstWords(String row) {
        return robot.from(robot.lookup(row).queryAll()).lookup(".label").queryAllAs(Labeled.class).stream()
                .map(Labeled::getText)
                .filter(t -> t != null && !t.isBlank())
                .findFirst()
                .orElse("");
    }

    @Test
    void copiesAreDraggedIntoAnotherOrderBeforeTheyAreFolded() throws Exception {
        office();
        robot.clickOn("#listing-in");
        robot.clickOn("#listing-in-fold");
        eventually("the family", () -> text("#fold-go").equals("Fold this family"));
        eventually("its rows", () -> visible("#fold-row-0-0") && visible("#fold-row-0-1"));
        String dragged = firstWords("#fold-row-0-1");
        robot.drag("#fold-row-0-1").dropTo("#fold-row-0-0");
        eventually("the other order", () -> firstWords("#fold-row-0-0").equals(dragged));
        robot.clickOn("#fold-go");
        // Each copy becomes current in its turn, and the last one stays.
        eventually(
                "one file with the content of the last",
                () -> Files.exists(desk.resolve("plan.txt"))
                        && Files.readString(desk.resolve("plan.txt")).equals(words(3, 20)));
    }
}
