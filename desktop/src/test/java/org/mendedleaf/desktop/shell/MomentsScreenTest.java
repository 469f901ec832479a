package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.lang.ref.WeakReference;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.zip.ZipFile;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.desktop.files.FileRow;
import org.mendedleaf.desktop.recovery.PlanView;
import org.mendedleaf.desktop.snapshots.SnapshotsModel;
import org.testfx.api.FxToolkit;

/** Moments, the plan, comparing and snapshots in the real window: what a user types, clicks and then sees. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class MomentsScreenTest extends WindowTest {

    /** Two hours ago: a file and a folder; an hour ago: one changed, one removed, one added, one moved. */
    private void history() throws Exception {
        Instant then = Instant.now().minus(Duration.ofHours(2));
        save("ledger.csv", "kind,kilos\nKaty,412\n", then);
        save("sub/plan.txt", "the plan", then);
        save("sub/gone.txt", "goes", then);
        save("moves.txt", "goes along with its line", then);
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), at(then), "Ines");
            capture(vault, place, then);
            Instant later = then.plus(Duration.ofHours(1));
            save("ledger.csv", "saved over by a letter", later);
            Files.delete(desk.resolve("sub/gone.txt"));
            Files.move(desk.resolve("moves.txt"), desk.resolve("sub/moved.txt"));
            save("new.txt", "came later", later);
            capture(vault, place, later.plusSeconds(5));
        }
        org.mendedleaf.core.settings.UserSettings settings = org.mendedleaf.core.settings.UserSettings.open(home);
        settings.addVault(temp.resolve("vault").toRealPath());
        settings.who("Ines");
        show();
        eventually("a listing", () -> rows().size() >= 3);
    }

    private void type(String id, String words) {
        TextInputControl field = robot.lookup(id).queryAs(TextInputControl.class);
        robot.interact(() -> {
            field.requestFocus();
            field.setText(words);
        });
    }

    private void goTo(String words) {
        robot.clickOn("#pick");
        eventually("the field", () -> robot.lookup("#pick-text").tryQuery().isPresent());
        type("#pick-text", words);
        eventually(
                "it to be understood", () -> !robot.lookup("#pick-go").query().isDisabled());
        robot.push(KeyCode.ENTER);
        eventually("the past", () -> !text("#moment").equals("Now"));
    }

    private FileRow row(String name) {
        return rows().stream()
                .filter(r -> r.entry().name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private void tick(String name) {
        robot.clickOnFound(() -> inListing(name).getParent().lookup(".tick"));
    }

    @SuppressWarnings("unchecked")
    private <T> TableView<T> table(String id) {
        return robot.lookup(id).queryAs(TableView.class);
    }

    private <T> void choose(String id, T value) {
        ComboBox<T> box = robot.lookup(id).queryComboBox();
        robot.interact(() -> box.setValue(value));
    }

    @Test
    void aTypedMomentIsShownAsItWasUnderstoodAndMarkedAgainstNow() throws Exception {
        history();
        robot.clickOn("#pick");
        type("#pick-text", "90 minutes ago");
        eventually("the moment in full", () -> text("#pick-text-understood").contains("h ago"));
        type("#pick-text", "last week");
        eventually("why not", () -> text("#pick-text-understood").contains("stretch of time"));
        assertThat(robot.lookup("#pick-go").query().isDisabled()).isTrue();
        type("#pick-text", "90 minutes ago");
        eventually(
                "it to be understood", () -> !robot.lookup("#pick-go").query().isDisabled());
        robot.clickOn("#pick-go");
        eventually("the sum", () -> text("#past-words").equals("Since then: 1 changed, 1 removed, 1 moved, 1 added"));
        assertThat(row("ledger.csv").against()).isEqualTo(FileRow.Change.CHANGED);
        assertThat(row("moves.txt").against()).isEqualTo(FileRow.Change.MOVED);
        assertThat(row("new.txt").isAdded()).isTrue();
        assertThat(row("sub").since().removed()).isEqualTo(1);
        robot.clickOn("#show-added");
        eventually(
                "it to be hidden",
                () -> rows().stream().noneMatch(r -> r.entry().name().equals("new.txt")));
        robot.push(KeyCode.ESCAPE);
        eventually("now", () -> text("#moment").equals("Now") && !visible("#past-bar"));
    }

    @Test
    void chosenFilesAreRecoveredByAPlanAndTakenBackAsOne() throws Exception {
        history();
        goTo("90 minutes ago");
        eventually("the past listing", () -> rows().stream().anyMatch(r -> r.against() == FileRow.Change.CHANGED));
        tick("ledger.csv");
        tick("sub");
        eventually("the running count", () -> text("#ticks").startsWith("3 files chosen"));
        assertThat(text("#ticks")).isEqualTo("3 files chosen, 32 B");
        robot.clickOn("#ticks-recover");
        eventually("the plan", () -> text("#plan-go").equals("Restore 2 files"));
        everythingHasAName("a plan");
        assertThat(text("#plan-sum")).contains("2 files to be done, 1 left").contains("free");
        robot.clickOn("#plan-go");
        eventually("the result", () -> text("#plan-sum").startsWith("2 files done, read back and compared"));
        assertThat(live()).contains("Katy,412");
        assertThat(desk.resolve("sub/gone.txt")).hasContent("goes");
        robot.clickOn("#plan-undo");
        eventually("what was there before", () -> live().equals("saved over by a letter"));
        assertThat(desk.resolve("sub/gone.txt")).doesNotExist();
        eventually("the message", () -> text("#message").startsWith("Undone"));
    }

    private WeakReference<Node> plan() {
        Node at = robot.lookup("#plan-go").query();
        while (!(at instanceof PlanView)) {
            at = at.getParent();
        }
        return new WeakReference<>(at);
    }

    @Test
    void aPlanThatWasLeftTakesNoMemory() throws Exception {
        history();
        goTo("90 minutes ago");
        eventually("the past listing", () -> rows().stream().anyMatch(r -> r.against() == FileRow.Change.CHANGED));
        tick("ledger.csv");
        robot.clickOn("#ticks-recover");
        eventually("the plan", () -> text("#plan-go").equals("Restore 1 file"));
        WeakReference<Node> plan = plan();
        robot.push(KeyCode.ESCAPE);
        eventually("the files again", () -> visible("#listing"));
        // The window remembers what the pointer was over, and what had the keys, until that is something else.
        robot.clickOn("#ticks-clear");
        // So does the library of the tests, of all events since it was told of the stage.
        FxToolkit.toolkitContext().setRegisteredStage(FxToolkit.toolkitContext().getRegisteredStage());
        eventually("the plan to be let go", () -> {
            System.gc();
            return plan.get() == null;
        });
    }

    @Test
    void whatCollidesIsDecidedForAllAndTheOtherIsKeptBeside() throws Exception {
        history();
        goTo("90 minutes ago");
        tick("ledger.csv");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        eventually("the plan", () -> text("#plan-go").equals("Restore 1 file"));
        choose("#plan-collision", org.mendedleaf.core.recovery.Collision.SKIP);
        eventually("nothing to do", () -> robot.lookup("#plan-go").query().isDisabled());
        choose("#plan-collision", org.mendedleaf.core.recovery.Collision.KEEP_BOTH_RENAME_OTHER);
        eventually("the plan", () -> !robot.lookup("#plan-go").query().isDisabled());
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        eventually("the result", () -> text("#plan-sum").startsWith("1 file done"));
        assertThat(live()).contains("Katy,412");
        assertThat(desk.resolve("ledger (2).csv")).hasContent("saved over by a letter");
        robot.clickOn("#plan-done");
        eventually("the files again", () -> visible("#listing"));
    }

    @Test
    void aFolderOfThePastGoesIntoAZipThatIsChosen() throws Exception {
        history();
        Path zip = temp.resolve("out.zip");
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(zip.toFile())));
        goTo("90 minutes ago");
        tick("sub");
        robot.clickOn("#ticks-recover");
        eventually("the plan", () -> visible("#plan-where-ZIP"));
        robot.clickOn("#plan-where-ZIP");
        eventually("a plan for it", () -> text("#plan-go").equals("Restore 2 files"));
        robot.clickOn("#plan-go");
        eventually("the result", () -> text("#plan-sum").startsWith("2 files done"));
        try (ZipFile file = new ZipFile(zip.toFile())) {
            assertThat(file.stream().map(e -> e.getName())).contains("sub/gone.txt", "sub/plan.txt");
        }
        assertThat(visible("#plan-undo"))
                .as("nothing of the folder was changed")
                .isFalse();
    }

    @Test
    void aFolderIsRolledBackAndUndoneAfterANewStart() throws Exception {
        history();
        goTo("90 minutes ago");
        robot.clickOn("#past-roll-back");
        eventually("the plan", () -> text("#plan-title").startsWith("Roll back"));
        eventually("the count", () -> text("#plan-go").equals("Roll back 3 files"));
        choose("#plan-later", true);
        eventually("one more", () -> text("#plan-go").equals("Roll back 4 files"));
        File plan = temp.resolve("plan.json").toFile();
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(plan)));
        robot.clickOn("#plan-save");
        eventually(
                "the plan as a file",
                () -> plan.length() > 0 && Files.readString(plan.toPath()).contains("MOVE_BACK"));
        Path page = temp.resolve("plan.html");
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(page.toFile())));
        robot.clickOn("#plan-save");
        eventually(
                "the plan on paper",
                () -> Files.exists(page)
                        && Files.readString(page).contains("move back")
                        && Files.readString(page).contains("<h1>Roll back"));
        robot.clickOn("#plan-go");
        eventually("the result", () -> text("#plan-sum").startsWith("4 files done"));
        assertThat(desk.resolve("moves.txt")).exists();
        assertThat(desk.resolve("new.txt")).doesNotExist();
        app.stop();
        org.testfx.api.FxToolkit.cleanupStages();
        show();
        eventually("a listing", () -> rows().size() >= 3);
        MenuButton undo = robot.lookup("#undo-menu").queryAs(MenuButton.class);
        eventually("what can be undone", () -> undo.getItems().get(0).getText().contains("rolled back"));
        robot.interact(() -> undo.getItems().get(0).fire());
        eventually("what was there before", () -> live().equals("saved over by a letter"));
        assertThat(desk.resolve("new.txt")).hasContent("came later");
        assertThat(desk.resolve("moves.txt")).doesNotExist();
    }

    @Test
    void twoMomentsAreComparedFilteredExportedAndFollowedIntoALine() throws Exception {
        history();
        Path csv = temp.resolve("changes.csv");
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(csv.toFile())));
        goTo("90 minutes ago");
        robot.clickOn("#past-compare");
        eventually("the sum", () -> text("#compare-sum").startsWith("1 added, 1 removed, 1 changed, 1 moved"));
        everythingHasAName("two moments");
        TableView<TwoMoments.Change> table = table("#compare-table");
        assertThat(table.getItems()).hasSize(4);
        type("#compare-filter", "sub/");
        eventually("two of them", () -> table.getItems().size() == 2);
        robot.clickOn("#compare-save");
        eventually("the file", () -> Files.exists(csv) && Files.readString(csv).contains("sub/gone.txt"));
        assertThat(csv).content().doesNotContain("ledger");
        type("#compare-filter", "ledger");
        eventually("one of them", () -> table.getItems().size() == 1);
        robot.interact(() -> table.getSelectionModel().select(0));
        robot.clickOn("#compare-line");
        eventually("its line", () -> text("#line-title").equals("ledger.csv"));
        robot.push(KeyCode.CONTROL, KeyCode.M);
        type("#compare-from", "now");
        type("#compare-to", "90 minutes ago");
        eventually("the order to be refused", () -> text("#compare-problem").contains("later than the second"));
        robot.push(KeyCode.ESCAPE);
        eventually("the files again", () -> visible("#listing"));
    }

    @Test
    void snapshotsAreTakenHeldErasedAndUndone() throws Exception {
        history();
        robot.clickOn("#snapshots");
        robot.clickOn("#all-snapshots");
        type("#snapshot-label", "before pressing");
        robot.clickOn("#snapshot-take");
        TableView<SnapshotsModel.Row> table = table("#snapshot-table");
        eventually(
                "the snapshot, counted",
                () -> table.getItems().size() == 1 && table.getItems().get(0).holds() != null);
        assertThat(table.getItems().get(0).snapshot().label()).isEqualTo("before pressing");
        robot.interact(() -> table.getSelectionModel().select(0));
        type("#snapshot-rename", "before the pressing");
        Node typed = robot.lookup("#snapshot-rename").query();
        SnapshotsModel.Row row = table.getItems().get(0);
        // Another program changes something meanwhile: all is read again.
        robot.interact(() -> Objects.requireNonNull(app.shell()).context().changed());
        eventually(
                "the snapshot, counted again",
                () -> table.getItems().size() == 1
                        && table.getItems().get(0).holds() != null
                        && table.getItems().get(0) != row);
        assertThat(robot.lookup("#snapshot-rename").queryAs(TextField.class).getText())
                .isEqualTo("before the pressing");
        assertThat(robot.lookup("#snapshot-rename").<Node>query()).isSameAs(typed);
        robot.clickOn("#snapshot-hold");
        eventually("the hold to be asked for", () -> visible("#hold-reason"));
        robot.clickOn("#hold-go");
        eventually("what is missing", () -> text("#hold-problem").equals("A hold needs a reason."));
        robot.clickOn("#hold-go");
        eventually("it to be said again", () -> text("#hold-problem").equals("A hold needs a reason."));
        assertThat(robot.lookup("#hold-go").query().isDisabled()).isFalse();
        type("#hold-reason", "the audit");
        robot.clickOn("#hold-through");
        java.time.LocalDate last =
                java.time.LocalDate.now(java.time.ZoneOffset.UTC).plusDays(40);
        type(".date-picker .text-field", last.toString());
        robot.clickOn("#hold-go");
        eventually(
                "it to be held",
                () -> visible("#snapshot-table")
                        && table.getItems().get(0).snapshot().hold().equals("the audit"));
        assertThat(table.getItems().get(0).snapshot().holdEnds())
                .contains(last.plusDays(1)
                        .atStartOfDay(java.time.ZoneId.systemDefault())
                        .toInstant());
        eventually("no erasing", () -> robot.lookup("#snapshot-erase").query().isDisabled());
        robot.clickOn("#snapshot-hold");
        eventually(
                "the hold to end",
                () -> !robot.lookup("#snapshot-erase").query().isDisabled());
        robot.clickOn("#snapshot-erase");
        eventually("it to be gone", () -> table.getItems().isEmpty());
        robot.push(KeyCode.ESCAPE);
        eventually("the files again", () -> visible("#listing"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        MenuButton menu = robot.lookup("#snapshots").queryAs(MenuButton.class);
        eventually("it to be back", () -> menu.getItems().get(0).getText().startsWith("before pressing"));
    }

    @Test
    void aScheduleIsMadeOfPlainChoicesAndSaidInASentence() throws Exception {
        history();
        Path file = temp.resolve("snapshots.ics");
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(file.toFile())));
        robot.clickOn("#snapshots");
        robot.clickOn("#all-snapshots");
        eventually("the form", () -> text("#schedule-sentence").startsWith("Every day at 18:00, the last 14 are kept"));
        assertThat(text("#schedule-sentence")).contains("Next: ");
        type("#schedule-time", "evening");
        eventually("why not", () -> robot.lookup("#schedule-add").query().isDisabled());
        assertThat(text("#schedule-sentence")).contains("no time of day");
        type("#schedule-time", "7:30");
        type("#schedule-keep", "5");
        eventually("the sentence", () -> text("#schedule-sentence").startsWith("Every day at 07:30, the last 5"));
        often(1, "Monday to Friday at 07:30");
        often(2, "Monday and Thursday at 07:30");
        robot.clickOn("Mon");
        eventually("one day less", () -> text("#schedule-sentence").startsWith("Thursday at 07:30"));
        robot.clickOn("Thu");
        eventually("none", () -> text("#schedule-sentence").equals("Choose a day of the week."));
        often(3, "Every month on day 1 at 07:30");
        often(4, "Every month on the last day at 07:30");
        often(5, "Every month on the first Monday at 07:30");
        often(6, "Every 4 hours, from 07:30");
        often(7, "Every 2 weeks, Friday at 07:30");
        type("#schedule-rule", "FREQ=NEVER");
        eventually("why not", () -> robot.lookup("#schedule-add").query().isDisabled());
        often(0, "Every day at 07:30");
        robot.clickOn("#schedule-add");
        eventually("the schedule", () -> robot.lookup(".schedule").tryQuery().isPresent());
        robot.clickOn("#schedule-export");
        eventually(
                "the calendar",
                () -> Files.exists(file) && Files.readString(file).contains("RRULE:FREQ=DAILY"));
        robot.clickOn("End it");
        eventually(
                "it to have ended", () -> robot.lookup(".schedule").tryQuery().isEmpty());
    }

    /** Chooses how often, and waits for the sentence of that. */
    private void often(int choice, String words) {
        ComboBox<?> box = robot.lookup("#schedule-often").queryAs(ComboBox.class);
        robot.interact(() -> box.getSelectionModel().select(choice));
        eventually(words, () -> text("#schedule-sentence").startsWith(words));
    }
}
