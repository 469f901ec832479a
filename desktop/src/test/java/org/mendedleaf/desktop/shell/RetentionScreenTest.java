package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.TreeItem;
import javafx.scene.control.TreeTableView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.VBox;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.SpaceTree;
import org.mendedleaf.core.retention.Term;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.files.LineRow;

/** Room, rules, holds, erasing and what was removed, in the real window. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class RetentionScreenTest extends WindowTest {

    private static String noise(int seed) {
        Random random = new Random(seed);
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 4000; i++) {
            text.append(Integer.toHexString(random.nextInt()));
        }
        return text.toString();
    }

    /** A log of six versions on six days, the oldest forty days old, and a file that was removed. */
    private void office() throws Exception {
        Instant first = Instant.now().minus(Duration.ofDays(40));
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), at(first), "Ines");
            save("gone.txt", "gone", first);
            for (int i = 0; i < 6; i++) {
                Instant day = first.plus(Duration.ofDays(i * 7L));
                save("log.txt", noise(i), day);
                capture(vault, place, day.plusSeconds(60));
            }
            Files.delete(desk.resolve("gone.txt"));
            capture(vault, place, first.plus(Duration.ofDays(36)));
        }
        UserSettings settings = UserSettings.open(home);
        settings.addVault(temp.resolve("vault").toRealPath());
        settings.who("Ines");
        show();
        eventually("the files", () -> rows().size() == 2);
    }

    private void retention(String part) {
        robot.push(KeyCode.ALT, KeyCode.DIGIT4);
        eventually("the screen", () -> visible("#retention-" + part));
        robot.clickOn("#retention-" + part);
    }

    @SuppressWarnings("unchecked")
    private <T> TableView<T> table(String id) {
        return robot.lookup(id).queryAs(TableView.class);
    }

    @SuppressWarnings("unchecked")
    private void choose(String id, Optional<Term> term) {
        ComboBox<Optional<Term>> box = robot.lookup(id).queryAs(ComboBox.class);
        robot.interact(() -> box.setValue(term));
    }

    @Test
    @SuppressWarnings("unchecked")
    void theRoomOfEachFolderAndFileIsShown() throws Exception {
        office();
        retention("space");
        eventually("the sums", () -> text("#sum-all").startsWith("The vault takes"));
        TreeTableView<SpaceTree.Node> tree = robot.lookup("#space-tree").queryAs(TreeTableView.class);
        List<TreeItem<SpaceTree.Node>> files =
                tree.getRoot().getChildren().get(0).getChildren();
        assertThat(files).extracting(i -> i.getValue().name()).containsExactly("log.txt", "gone.txt");
        assertThat(files.get(0).getValue().share().versions()).isEqualTo(6);
    }

    @Test
    void whatIsKeptIsWrittenDownAsItIsAndAsItWasOnADay() throws Exception {
        office();
        retention("space");
        Path report = temp.resolve("kept.html");
        robot.interact(() -> Objects.requireNonNull(app.shell()).setSaveAsk(n -> Optional.of(report.toFile())));
        MenuButton menu = robot.lookup("#retention-report").queryAs(MenuButton.class);
        robot.interact(() -> menu.getItems().get(0).fire());
        eventually("the report", () -> text("#retention-message").equals("The report is in " + report + "."));
        assertThat(Files.readString(report)).contains("log.txt").contains("No rules were set: everything is kept.");
        Path then = temp.resolve("then.csv");
        robot.interact(() -> {
            Objects.requireNonNull(app.shell()).setSaveAsk(n -> Optional.of(then.toFile()));
            app.shell().setNoteAsk(question -> Optional.of("1 January 1990"));
            menu.getItems().get(1).fire();
        });
        eventually("the other one", () -> Files.exists(then));
        assertThat(Files.readAllLines(then)).as("nothing was there then").hasSize(1);
        robot.interact(() -> {
            app.shell().setNoteAsk(question -> Optional.of("some day"));
            menu.getItems().get(1).fire();
        });
        eventually("what is wrong", () -> text("#retention-message").contains("is not a moment"));
    }

    @Test
    void aRuleIsWeighedUsedAndCarriedOutAndTakenBack() throws Exception {
        office();
        retention("rules");
        eventually("no effect yet", () -> text("#rules-effect").equals("Under these rules nothing may go now."));
        robot.clickOn("#rule-add");
        eventually("the form", () -> visible("#rule-everything"));
        choose("#rule-everything", Optional.of(Term.days(14)));
        eventually("its effect", () -> text("#rules-effect").startsWith("Now 3 versions of 1 file may go"));
        assertThat(text("#forecast-words")).contains("versions a day");
        robot.clickOn("#rules-use");
        eventually("the rules", () -> text("#retention-message").equals("These rules count from now on."));
        eventually("the way on", () -> !robot.lookup("#rules-thin").query().isDisabled());
        robot.clickOn("#rules-thin");
        eventually("the plan", () -> text("#thin-sum").startsWith("3 versions go of 1 file"));
        Path report = temp.resolve("report.html");
        robot.interact(() -> Objects.requireNonNull(app.shell()).setSaveAsk(n -> Optional.of(report.toFile())));
        robot.clickOn("#thin-report");
        eventually("the report", () -> Files.exists(report));
        assertThat(Files.readString(report)).contains("log.txt").contains("3 versions go");
        robot.clickOn("#thin-go");
        eventually("done", () -> text("#thin-sum").startsWith("3 versions were let go."));
        // While a result comes in, what is pointed at may move away under the pointer; whoever sees that clicks again.
        again("the list of what waits", () -> robot.clickOn("#retention-waiting"), () -> visible("#waiting"));
        eventually("what waits", () -> table("#waiting").getItems().size() == 1);
        robot.clickOn("#waiting-now");
        eventually("the question", () -> text("#waiting-sure").equals("Yes, 3 versions go for good"));
        assertThat(text("#waiting-effect")).startsWith("After this nothing brings these 3 versions back");
        robot.clickOn("#waiting-leave");
        eventually("the way back", () -> visible("#waiting-back"));
        robot.clickOn("#waiting-back");
        eventually("nothing waits", () -> table("#waiting").getItems().isEmpty());
        assertThat(text("#retention-message")).isEqualTo("1 file is kept after all.");
    }

    @Test
    void aRuleThatIsGivenTheNameOfAnotherKeepsItsOwnAndItIsSaid() throws Exception {
        office();
        retention("rules");
        eventually("no effect yet", () -> text("#rules-effect").equals("Under these rules nothing may go now."));
        robot.clickOn("#rule-add");
        eventually("the first", () -> field("#rule-name").equals("New rule"));
        robot.clickOn("#rule-add");
        eventually("the second", () -> field("#rule-name").equals("New rule 2"));
        robot.doubleClickOn("#rule-name").push(KeyCode.CONTROL, KeyCode.A);
        robot.write("New rule").push(KeyCode.ENTER);
        eventually("why not", () -> visible("#rule-problem"));
        assertThat(text("#rule-problem")).isEqualTo("There is something called New rule already. Nothing was changed.");
        choose("#rule-everything", Optional.of(Term.days(14)));
        eventually("the rest of the form counts", () -> !visible("#rule-problem"));
        assertThat(robot.lookup("#rules").queryAs(VBox.class).getChildren()).hasSize(2);
    }

    private String field(String id) {
        return visible(id) ? robot.lookup(id).queryAs(TextField.class).getText() : "";
    }

    @Test
    @SuppressWarnings("unchecked")
    void aThinningIsLimitedToAFileAKindANumberAndDays() throws Exception {
        office();
        retention("space");
        eventually("the sums", () -> text("#sum-all").startsWith("The vault takes"));
        TreeTableView<SpaceTree.Node> tree = robot.lookup("#space-tree").queryAs(TreeTableView.class);
        robot.interact(() -> tree.getSelectionModel()
                .select(tree.getRoot().getChildren().get(0).getChildren().get(0)));
        eventually("what is chosen", () -> text("#space-chosen").startsWith("log.txt: 6 versions of 1 file;"));
        robot.clickOn("#space-thin");
        eventually("nothing by the rules", () -> text("#thin-sum").equals("Nothing goes."));
        ComboBox<Integer> keep = robot.lookup("#thin-keep").queryAs(ComboBox.class);
        robot.interact(() -> keep.setValue(2));
        eventually("all but two", () -> text("#thin-sum").startsWith("4 versions go of 1 file"));
        assertThat(table("#thin-files").getItems()).hasSize(1);
        robot.clickOn("#thin-kinds");
        robot.clickOn("#thin-kinds-PICTURE");
        eventually("no picture", () -> text("#thin-sum").equals("Nothing goes."));
        robot.clickOn("#thin-kinds");
        robot.clickOn("#thin-kinds-PICTURE");
        eventually("all kinds", () -> text("#thin-sum").startsWith("4 versions go of 1 file"));
        // Versions were replaced 33, 26, 19 and 12 days ago; the file changed 5 days ago.
        typeDay(
                "#thin-replaced",
                LocalDate.now(ZoneId.systemDefault()).minusDays(22).toString());
        eventually("the older two", () -> text("#thin-sum").startsWith("2 versions go of 1 file"));
        typeDay(
                "#thin-unchanged",
                LocalDate.now(ZoneId.systemDefault()).minusDays(9).toString());
        eventually("it changed since", () -> text("#thin-sum").equals("Nothing goes."));
        typeDay("#thin-unchanged", "soon");
        eventually("what is wrong", () -> text("#thin-problem").startsWith("\"soon\" is not a day."));
        typeDay(
                "#thin-unchanged",
                LocalDate.now(ZoneId.systemDefault()).minusDays(2).toString());
        eventually("it did not change since", () -> text("#thin-sum").startsWith("2 versions go of 1 file"));
        robot.clickOn("#thin-go");
        eventually("done", () -> text("#thin-sum").startsWith("2 versions were let go."));
        assertThat(robot.lookup("#thin-limits").query().isDisabled()).isTrue();
        robot.clickOn("#thin-leave");
        eventually("the space", () -> visible("#space-tree"));
    }

    /** Types a day and goes on to the next field. */
    private void typeDay(String id, String day) {
        TextInputControl field = robot.lookup(id).lookup(".text-field").queryTextInputControl();
        robot.interact(() -> {
            field.requestFocus();
            field.setText(day);
        });
        robot.push(KeyCode.TAB);
    }

    @Test
    void aVersionIsHeldFromItsLineAndLiftedFromTheList() throws Exception {
        office();
        select("log.txt");
        choosePoint(3);
        robot.clickOn("#more");
        robot.clickOn("#line-holdVersion");
        eventually(
                "what it keeps", () -> text("#hold-effect-words").startsWith("1 version of 1 file is kept by it, 3"));
        robot.clickOn("#hold-reason");
        robot.write("audit");
        robot.push(KeyCode.ENTER);
        eventually(
                "the message", () -> text("#message").startsWith("Version 3 of log.txt: held until somebody lifts it"));
        eventually(
                "the knot",
                () -> points().get(3) instanceof LineRow.OfVersion v
                        && v.kept().words().equals("held"));
        retention("holds");
        eventually("the hold", () -> table("#holds").getItems().size() == 1);
        robot.interact(() -> table("#holds").getSelectionModel().select(0));
        eventually("what would go", () -> text("#hold-effect").startsWith("By the rules nothing of it would go"));
        robot.clickOn("#hold-lift");
        eventually("none", () -> table("#holds").getItems().isEmpty());
    }

    @Test
    void aFolderIsHeldUntilADayFromTheMenuOfItsPlace() throws Exception {
        office();
        robot.clickOn("#places");
        robot.clickOn("#where-hold");
        eventually(
                "what it keeps", () -> text("#hold-effect-words").startsWith("7 versions of 2 files are kept by it"));
        robot.clickOn("#hold-reason");
        robot.write("boundary");
        robot.clickOn("#hold-through");
        TextInputControl day = robot.lookup(".date-picker .text-field").queryTextInputControl();
        robot.interact(() -> day.setText("soon"));
        robot.clickOn("#hold-go");
        eventually("what is wrong", () -> text("#hold-problem").startsWith("\"soon\" is not a day."));
        robot.interact(() -> day.setText("2020-01-01"));
        robot.clickOn("#hold-go");
        eventually("what is wrong", () -> text("#hold-problem").equals("A hold cannot end in the past."));
        LocalDate last = LocalDate.now(ZoneId.systemDefault()).plusDays(400);
        robot.interact(() -> day.setText(last.toString()));
        robot.clickOn("#hold-go");
        eventually("the files", () -> visible("#listing"));
        retention("holds");
        eventually("the hold", () -> table("#holds").getItems().size() == 1);
        Hold hold = (Hold) table("#holds").getItems().get(0);
        assertThat(hold.kind()).isEqualTo(Hold.Kind.FOLDER);
        assertThat(hold.until())
                .contains(last.plusDays(1).atStartOfDay(ZoneId.systemDefault()).toInstant());
    }

    @Test
    @SuppressWarnings("unchecked")
    void beforeAnIntervalIsChosenItSaysWhatItCosts() throws Exception {
        office();
        robot.push(KeyCode.ALT, KeyCode.DIGIT3);
        eventually(
                "the folder",
                () -> visible("#coverage") && !table("#coverage").getItems().isEmpty());
        robot.interact(() -> table("#coverage").getSelectionModel().select(0));
        eventually(
                "what is to come", () -> visible("#ahead-1") && text("#ahead-1").contains("versions a day"));
        ComboBox<Rhythm> rhythm = robot.lookup("#place-rhythm").queryAs(ComboBox.class);
        robot.interact(() -> rhythm.setValue(Rhythm.every(60)));
        eventually("its costs", () -> offered().stream().anyMatch(t -> t.startsWith("every 10 minutes: +")));
        assertThat(offered()).contains("every 60 minutes", "only when I say so");
        assertThat(offered()).anyMatch(t -> t.startsWith("every 720 minutes: −"));
        robot.interact(
                () -> robot.lookup("#place-rhythm").queryAs(ComboBox.class).hide());
    }

    /** The intervals to choose from, as they are shown. */
    private List<String> offered() {
        robot.interact(
                () -> robot.lookup("#place-rhythm").queryAs(ComboBox.class).show());
        return robot.lookup(".combo-box-popup .list-cell").queryAll().stream()
                .map(n -> ((javafx.scene.control.Labeled) n).getText())
                .filter(Objects::nonNull)
                .toList();
    }

    @Test
    void erasingSaysWhatIsLostFirstAndCanBeUndone() throws Exception {
        office();
        select("log.txt");
        robot.clickOn("#more");
        robot.clickOn("#line-eraseOlder");
        eventually("the screen", () -> visible("#erase"));
        assertThat(text("#erase-title")).isEqualTo("Erase all but the newest version of log.txt");
        eventually("what it would do", () -> !robot.lookup("#erase-go").query().isDisabled());
        robot.clickOn("#erase-leave");
        eventually("the files again", () -> visible("#listing"));
        robot.clickOn("#more");
        robot.clickOn("#line-eraseOlder");
        eventually(
                "what it would do",
                () -> visible("#erase-go") && !robot.lookup("#erase-go").query().isDisabled());
        robot.clickOn("#erase-go");
        eventually("the message", () -> text("#message").startsWith("5 versions of log.txt erased"));
        eventually(
                "when they go",
                () -> points().get(1) instanceof LineRow.OfVersion v
                        && v.kept().words().startsWith("goes "));
        robot.clickOn("#undo");
        eventually(
                "all kept",
                () -> points().get(1) instanceof LineRow.OfVersion v
                        && v.kept().words().isEmpty());
    }

    @Test
    void aRemovedFileIsBroughtBack() throws Exception {
        office();
        retention("removed");
        eventually("the file", () -> table("#removed").getItems().size() == 1);
        robot.interact(() -> table("#removed").getSelectionModel().select(0));
        eventually("its effect", () -> text("#removed-effect").startsWith("1 file chosen."));
        robot.clickOn("#removed-back");
        eventually("the file", () -> Files.exists(desk.resolve("gone.txt")));
        eventually("none", () -> table("#removed").getItems().isEmpty());
    }
}
