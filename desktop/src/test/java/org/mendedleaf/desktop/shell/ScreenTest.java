package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.TreeTableView;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.files.FileRow;
import org.testfx.api.FxToolkit;

/** Drives the real window: what a user clicks and types, and then sees. Needs a display; ./verify brings one. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
@SuppressWarnings("unchecked")
class ScreenTest extends WindowTest {

    @Test
    void aSampleOfficeSaysOnceThatItHasAClockOfItsOwn() throws Exception {
        fill();
        UserSettings.open(home).setToday(Instant.now(), Instant.now(), ZoneOffset.UTC);
        show();
        eventually("the message", () -> text("#message").contains("a clock of its own"));
        app.stop();
        FxToolkit.cleanupStages();
        UserSettings again = UserSettings.open(home);
        again.remember("todaySaid", "true");
        again.save();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        assertThat(text("#message")).doesNotContain("a clock of its own");
    }

    @Test
    void anEarlierVersionIsRestoredWithAClickAndUndoneWithAnother() throws Exception {
        fill();
        show();
        select("ledger.csv");
        assertThat(points()).hasSize(3);
        eventually(
                "the newest to be chosen",
                () -> robot.lookup("#restore").query().isDisabled());
        choosePoint(2);
        eventually("the button to say it", () -> text("#restore").equals("Restore version 1"));
        robot.clickOn("#restore");
        eventually("the old content", () -> live().contains("412"));
        eventually("the message", () -> text("#message").contains("version 1 is current again, as version 4"));
        eventually("four versions", () -> points().size() == 4);
        robot.clickOn("#undo");
        eventually("what was there before", () -> live().equals("saved over by a letter"));
        eventually("the message", () -> text("#message").startsWith("Undone"));
    }

    @Test
    void theKeyboardRestoresAndUndoesToo() throws Exception {
        fill();
        show();
        select("ledger.csv");
        choosePoint(1);
        eventually("the button to say it", () -> text("#restore").equals("Restore version 2"));
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        eventually("the old content", () -> live().contains("421"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually("what was there before", () -> live().equals("saved over by a letter"));
        eventually("what was undone", () -> text("#message").startsWith("Undone: ledger.csv restored"));
        robot.push(KeyCode.CONTROL, KeyCode.Y);
        eventually("what was undone, again", () -> live().contains("421"));
        eventually("that in words", () -> text("#message").startsWith("Done again: ledger.csv restored"));
        robot.clickOn("#undo");
        eventually("what was there before", () -> live().equals("saved over by a letter"));
        robot.clickOn("#redo");
        eventually("what was undone, by the button", () -> live().contains("421"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually("what was there before", () -> live().equals("saved over by a letter"));
        robot.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
        eventually("what was undone, by other keys", () -> live().contains("421"));
    }

    @Test
    void aKeyThatIsHeldDownUndoesOneThing() throws Exception {
        fill();
        show();
        select("ledger.csv");
        for (int point = 1; point <= 2; point++) {
            choosePoint(point + point - 1);
            int versions = 3 + point;
            robot.clickOn("#restore");
            eventually("the restore", () -> points().size() == versions);
        }
        String before = live();
        robot.interact(() -> {
            javafx.scene.Scene scene = robot.lookup("#listing").query().getScene();
            for (int i = 0; i < 3; i++) {
                javafx.event.Event.fireEvent(
                        scene.getRoot(),
                        new javafx.scene.input.KeyEvent(
                                javafx.scene.input.KeyEvent.KEY_PRESSED, "", "", KeyCode.Z, false, true, false, false));
            }
        });
        eventually("one undo", () -> text("#message").startsWith("Undone: ledger.csv restored"));
        eventually("all jobs", () -> app.shell().context().jobs().waiting() == 0);
        assertThat(live()).isNotEqualTo(before);
        eventually("the version", () -> points().size() > 5);
        assertThat(points()).as("one undo is one version more").hasSize(6);
    }

    @Test
    void aRemovedFileIsShownInItsPlaceAndBroughtBack() throws Exception {
        fill();
        show();
        select("gone.txt");
        eventually("the button to say it", () -> text("#restore").equals("Bring back version 1"));
        robot.clickOn("#restore");
        eventually("the file", () -> Files.exists(desk.resolve("gone.txt")));
        assertThat(desk.resolve("gone.txt")).hasContent("was here");
        eventually(
                "its row as present",
                () -> rows().stream().noneMatch(r -> r.entry().name().equals("gone.txt") && r.isRemoved()));
    }

    @Test
    void removedFilesCanBeHidden() throws Exception {
        fill();
        show();
        eventually("the removed file", () -> rows().stream().anyMatch(FileRow::isRemoved));
        robot.clickOn("#show-removed");
        eventually("no removed file", () -> rows().stream().noneMatch(FileRow::isRemoved));
    }

    @Test
    void removingIsUndoneWithOneKey() throws Exception {
        fill();
        show();
        select("ledger.csv");
        robot.clickOn("#remove");
        eventually("the file to be gone", () -> !Files.exists(desk.resolve("ledger.csv")));
        eventually("the message", () -> text("#message").contains("All its versions are kept"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually("the file", () -> Files.exists(desk.resolve("ledger.csv")));
        assertThat(live()).isEqualTo("saved over by a letter");
    }

    @Test
    void theListingFollowsTheRulerAndOneKeyLeadsBackToNow() throws Exception {
        fill();
        show();
        eventually("a listing", () -> rows().size() == 3);
        robot.clickOn("#show-removed");
        eventually("without the removed", () -> rows().size() == 2);
        robot.interact(() -> robot.lookup("#ruler").query().requestFocus());
        robot.push(KeyCode.HOME);
        eventually("the first capture with three entries", () -> rows().size() == 3);
        assertThat(text("#moment")).isNotEqualTo("Now");
        eventually(
                "the mark on what differs",
                () -> rows().stream()
                        .anyMatch(r -> r.against() == FileRow.Change.CHANGED
                                && r.entry().name().equals("ledger.csv")));
        eventually(
                "the mark on what was removed since",
                () -> rows().stream()
                        .anyMatch(r -> r.against() == FileRow.Change.REMOVED
                                && r.entry().name().equals("gone.txt")));
        robot.push(KeyCode.ESCAPE);
        eventually("now", () -> text("#moment").equals("Now") && rows().size() == 2);
    }

    @Test
    void stepsLeadFromChangeToChange() throws Exception {
        fill();
        show();
        eventually("a listing", () -> rows().size() == 3);
        robot.clickOn("#earlier");
        eventually("a moment before the last change", () -> visible("#back-to-now"));
        eventually(
                "the second version",
                () -> rows().stream()
                        .anyMatch(r -> r.entry().name().equals("ledger.csv")
                                && r.entry().number() == 2));
        robot.clickOn("#back-to-now");
        eventually("now", () -> text("#moment").equals("Now"));
    }

    @Test
    void aPickedMomentThatCannotBeIsSaidInWords() throws Exception {
        fill();
        show();
        eventually("a listing", () -> rows().size() == 3);
        robot.clickOn("#pick");
        TextInputControl time = robot.lookup("#pick-time").queryAs(TextInputControl.class);
        robot.interact(() -> time.setText("half past"));
        eventually("words about it", () -> text("#pick-text-understood").contains("is not a moment"));
        assertThat(robot.lookup("#pick-go").query().isDisabled()).isTrue();
    }

    @Test
    void whatAVersionChangedIsShownByRowAndCellAgainstTheOneBefore() throws Exception {
        fill();
        show();
        select("ledger.csv");
        eventually("what the newest changed", () -> detailTitle().equals("version 2 → 3"));
        choosePoint(2);
        eventually("words for the first", () -> detailTitle().equals("the first version"));
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT3);
        eventually(
                "the digest",
                () -> robot.lookup(".fact-value").queryAll().stream()
                        .anyMatch(n -> ((TextInputControl) n).getText().matches("[0-9a-f]{64}")));
    }

    private String detailTitle() {
        return robot.lookup(".detail-title").queryAs(Label.class).getText();
    }

    @Test
    void aCopyIsSavedUnderANameThatSaysWhichItIs() throws Exception {
        fill();
        show();
        Path copies = Files.createDirectory(temp.resolve("copies"));
        Shell shell = app.shell();
        assertThat(shell).isNotNull();
        shell.setFolderAsk(() -> Optional.of(copies.toFile()));
        select("ledger.csv");
        choosePoint(2);
        eventually("the button to say it", () -> text("#restore").equals("Restore version 1"));
        robot.clickOn("#copy");
        eventually("the copy", () -> {
            try (var files = Files.list(copies)) {
                return files.anyMatch(f -> f.getFileName().toString().startsWith("ledger – v1, "));
            }
        });
        assertThat(live()).isEqualTo("saved over by a letter");
    }

    @Test
    void foldersAreEnteredAndLeftWithTheKeyboard() throws Exception {
        fill();
        show();
        eventually("a listing", () -> rows().size() == 3);
        TreeTableView<FileRow> table = robot.lookup("#listing").queryAs(TreeTableView.class);
        robot.interact(() -> {
            table.requestFocus();
            table.getSelectionModel().select(0);
        });
        robot.push(KeyCode.ENTER);
        eventually(
                "the folder", () -> rows().size() == 1 && rows().get(0).path().equals("sub/plan.txt"));
        robot.push(KeyCode.ALT, KeyCode.UP);
        eventually("the folder above", () -> rows().size() == 3);
    }

    @Test
    void theFirstRunLeadsToAProtectedFolder() throws Exception {
        save("a.txt", "one", Instant.now().minusSeconds(1000));
        show();
        eventually("the sheet", () -> visible("#protect-folder"));
        TextInputControl folder = robot.lookup("#protect-folder").queryTextInputControl();
        TextInputControl vault = robot.lookup("#protect-vault").queryTextInputControl();
        robot.interact(() -> {
            folder.setText(desk.toString());
            vault.setText(desk.resolve("vault").toString());
        });
        eventually("what is wrong", () -> text("#protect-problem").contains("lies in the folder"));
        assertThat(robot.lookup("#protect-go").query().isDisabled()).isTrue();
        robot.interact(() -> vault.setText(temp.resolve("vault").toString()));
        eventually("the outlook", () -> text("#protect-outlook").startsWith("1 file, 3 B"));
        eventually("the button", () -> !robot.lookup("#protect-go").query().isDisabled());
        robot.clickOn("#protect-go");
        eventually(
                "the file",
                () -> visible("#listing")
                        && rows().stream().anyMatch(r -> r.entry().name().equals("a.txt")));
        try (OpenVault opened = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO);
                Reading reading = opened.read()) {
            assertThat(reading.places())
                    .singleElement()
                    .satisfies(p -> assertThat(p.root()).isEqualTo(desk));
        }
    }

    @Test
    void theFirstMinutesAreLearntByDoing() throws Exception {
        save("a.txt", "one", Instant.now().minusSeconds(1000));
        show();
        eventually("the sheet", () -> visible("#protect-folder"));
        everythingHasAName("the first sheet");
        robot.interact(() -> {
            robot.lookup("#protect-folder").queryTextInputControl().setText(desk.toString());
            robot.lookup("#protect-vault")
                    .queryTextInputControl()
                    .setText(temp.resolve("vault").toString());
        });
        eventually("the button", () -> !robot.lookup("#protect-go").query().isDisabled());
        assertThat(text("#protect-kept")).startsWith("Every version of every file is kept until you decide otherwise.");
        robot.clickOn("#protect-go");
        eventually(
                "the first step", () -> visible("#tour") && text("#tour-words").startsWith("Try it: open a file"));
        assertThat(text("#tour-count")).isEqualTo("1 of 3");
        eventually("the file", () -> visible("#listing") && rows().size() == 1);
        Files.writeString(desk.resolve("a.txt"), "one, and two");
        eventually("the second step", () -> text("#tour-words").startsWith("There is a new version."));
        select("a.txt");
        eventually("the third step", () -> text("#tour-count").equals("3 of 3"));
        choosePoint(1);
        eventually("the button to say it", () -> text("#restore").equals("Restore version 1"));
        robot.clickOn("#restore");
        eventually("the end", () -> text("#tour-words").startsWith("That is all there is to it."));
        assertThat(desk.resolve("a.txt")).hasContent("one");
        robot.clickOn("#tour-end");
        eventually("nothing of it", () -> !visible("#tour"));
        assertThat(app.shell().context().settings().remembered("tour")).isEqualTo("seen");

        robot.clickOn("#who");
        robot.clickOn("#tour-again");
        eventually(
                "the first step again",
                () -> visible("#tour") && text("#tour-count").equals("1 of 3"));
        Files.writeString(desk.resolve("a.txt"), "one, and three");
        eventually(
                "what was restored before is not taken for it",
                () -> text("#tour-count").equals("3 of 3"));
        robot.clickOn("#tour-end");
        eventually("sent away", () -> !visible("#tour"));
    }

    @Test
    void aFolderThatLooksEmptiedIsCapturedSoWhenSomebodySaysIt() throws Exception {
        fill();
        show();
        eventually("a listing", () -> rows().size() == 3);
        robot.push(KeyCode.F5);
        eventually("a look", () -> app.shell().context().jobs().waiting() == 0);
        Files.move(desk, temp.resolve("unplugged"));
        Files.createDirectory(desk);
        robot.clickOn("#tab-protection");
        eventually(
                "the folder",
                () -> !robot.lookup("#coverage").queryTableView().getItems().isEmpty());
        robot.interact(() ->
                robot.lookup("#coverage").queryTableView().getSelectionModel().select(0));
        eventually("the way to look", () -> visible("#place-run"));
        robot.clickOn("#place-run");
        eventually("the question", () -> visible("#place-emptied"));
        assertThat(text("#place-trouble")).contains("none of the 2 entries that were in it is there");
        robot.clickOn("#place-emptied");
        eventually("no question any more", () -> !visible("#place-emptied"));
        robot.clickOn("#tab-files");
        eventually("all of it removed", () -> rows().stream().allMatch(FileRow::isRemoved));
    }

    @Test
    void aVaultThatIsAwayIsSaidAndOpenedWhenItIsBack() throws Exception {
        fill();
        Files.move(temp.resolve("vault"), temp.resolve("unplugged"));
        show();
        eventually("words about it", () -> text("#no-vault").contains("There is no vault in"));
        Files.move(temp.resolve("unplugged"), temp.resolve("vault"));
        robot.clickOn("Try again");
        eventually("the listing", () -> visible("#listing") && rows().size() == 3);
    }

    @Test
    void theWindowComesBackAsItWasLeft() throws Exception {
        fill();
        show();
        eventually("a listing", () -> rows().size() == 3);
        TreeTableView<FileRow> table = robot.lookup("#listing").queryAs(TreeTableView.class);
        Stage stage = (Stage) table.getScene().getWindow();
        robot.interact(() -> {
            table.getColumns().get(3).setVisible(false);
            app.shell().files().showRemovedProperty().set(false);
            app.shell().files().enter("sub");
        });
        eventually("the folder", () -> rows().size() == 1);
        robot.interact(() ->
                stage.fireEvent(new javafx.stage.WindowEvent(stage, javafx.stage.WindowEvent.WINDOW_CLOSE_REQUEST)));
        app.stop();
        show();
        eventually("the folder that was left", () -> visible("#listing") && rows().size() == 1);
        TreeTableView<FileRow> again = robot.lookup("#listing").queryAs(TreeTableView.class);
        assertThat(again.getColumns().get(3).isVisible()).isFalse();
        assertThat(app.shell().files().showRemovedProperty().get()).isFalse();
    }

    @Test
    void whatIsSavedWhileTheWindowIsOpenAppearsByItself() throws Exception {
        fill();
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Protect.place(vault, desk, Rhythm.ON_SAVE, List.of(), Clock.system(ZoneOffset.UTC), "Ines");
        }
        show();
        select("ledger.csv");
        Files.writeString(desk.resolve("ledger.csv"), "kind,kilos\nKaty,500\n");
        eventually("a fourth version", () -> points().size() == 4);
        eventually(
                "a line in the log",
                () -> ActivityLog.beside(home, Clock.systemUTC(), "test").last(20).stream()
                        .anyMatch(l -> l.contains("window[") && l.contains("Front desk: ")));
    }

    @Test
    void theContentHasAtLeastTwoFifthsOfThePaneAndTheDividerIsRemembered() throws Exception {
        fill();
        show();
        select("ledger.csv");
        javafx.scene.control.SplitPane split =
                robot.lookup(".line-split").queryAs(javafx.scene.control.SplitPane.class);
        javafx.scene.layout.Region content =
                (javafx.scene.layout.Region) split.getItems().get(1);
        eventually("its layout", () -> split.getHeight() > 200);
        assertThat(content.getHeight()).isGreaterThanOrEqualTo(0.4 * split.getHeight());
        robot.interact(() -> split.setDividerPositions(0.42));
        javafx.stage.Window window = split.getScene().getWindow();
        // As somebody closes it: the divider is written down then. The old window must not be looked at again.
        robot.interact(() -> {
            window.fireEvent(new javafx.stage.WindowEvent(window, javafx.stage.WindowEvent.WINDOW_CLOSE_REQUEST));
            window.hide();
            app.stop();
        });
        app = null;
        show();
        select("ledger.csv");
        javafx.scene.control.SplitPane again =
                robot.lookup(".line-split").queryAs(javafx.scene.control.SplitPane.class);
        eventually("the divider where it was", () -> Math.abs(again.getDividerPositions()[0] - 0.42) < 0.02);
    }
}
