package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Files;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.TreeTableView;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** Keys do what people expect of them. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class KeysScreenTest extends WindowTest {

    private void files() throws Exception {
        fill();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        select("ledger.csv");
        eventually("the line", () -> text("#restore").equals("Restore version 3"));
        robot.interact(() -> robot.lookup("#listing").query().requestFocus());
    }

    @Test
    void deleteRemovesTheSelectedFileAndUndoBringsItBack() throws Exception {
        files();
        robot.push(KeyCode.DELETE);
        eventually("what was done", () -> text("#message").startsWith("ledger.csv is removed"));
        assertThat(desk.resolve("ledger.csv")).doesNotExist();
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually("the file", () -> Files.exists(desk.resolve("ledger.csv")));
    }

    @Test
    void aKeyCountsThoughWhatHadTheKeysWasTakenAwayThatMoment() throws Exception {
        files();
        // Until the next picture gives the keys to something else, only the scene hears of them.
        robot.interact(() -> javafx.event.Event.fireEvent(
                app.shell().getScene(),
                new KeyEvent(KeyEvent.KEY_PRESSED, "", "", KeyCode.DIGIT3, false, false, true, false)));
        eventually("the protection", () -> visible("#coverage"));
    }

    @Test
    void deleteAmongThePointsOfTheLineRemovesNothing() throws Exception {
        files();
        robot.interact(() -> robot.lookup("#points").query().requestFocus());
        robot.push(KeyCode.DELETE);
        robot.push(KeyCode.DOWN);
        eventually("the line", () -> text("#restore").equals("Restore version 2"));
        assertThat(desk.resolve("ledger.csv")).exists();
    }

    @Test
    void ctrlCPutsTheChosenVersionOnTheClipboardAsAFile() throws Exception {
        files();
        robot.interact(() -> robot.lookup("#points").query().requestFocus());
        robot.push(KeyCode.DOWN);
        eventually("the version before", () -> text("#restore").equals("Restore version 2"));
        robot.push(KeyCode.CONTROL, KeyCode.C);
        eventually("what was done", () -> text("#message").startsWith("Version 2 of ledger.csv is copied"));
        AtomicReference<List<File>> copied = new AtomicReference<>(List.of());
        robot.interact(() -> copied.set(Clipboard.getSystemClipboard().getFiles()));
        assertThat(copied.get()).hasSize(1);
        assertThat(Files.readString(copied.get().get(0).toPath())).contains("Katy,421");
    }

    @Test
    void ctrlFFindsEverywhereAndWithinWhatIsRead() throws Exception {
        files();
        robot.push(KeyCode.CONTROL, KeyCode.F);
        eventually("find", () -> visible("#find-box"));
        robot.push(KeyCode.ESCAPE);
        eventually("the listing", () -> visible("#listing"));
        robot.push(KeyCode.CONTROL, KeyCode.L);
        eventually("the large view", () -> visible("#reading"));
        robot.push(KeyCode.CONTROL, KeyCode.F);
        assertThat(visible("#find-box")).isFalse();
    }

    @Test
    void f2GivesAChosenSnapshotAnotherLabel() throws Exception {
        files();
        robot.interact(() -> app.shell().files().routes().snapshots());
        eventually("the snapshots", () -> visible("#snapshot-take"));
        robot.clickOn("#snapshot-take");
        eventually(
                "one",
                () -> !robot.lookup("#snapshot-table")
                        .queryTableView()
                        .getItems()
                        .isEmpty());
        robot.interact(() -> {
            robot.lookup("#snapshot-table").queryTableView().getSelectionModel().select(0);
            robot.lookup("#snapshot-table").query().requestFocus();
        });
        eventually(
                "its label", () -> robot.lookup("#snapshot-rename").tryQuery().isPresent());
        robot.push(KeyCode.F2);
        eventually(
                "the keys",
                () -> robot.lookup("#snapshot-rename").queryAs(TextField.class).isFocused());
    }

    @Test
    void f2GivesTheSelectedFileAnotherNameAndItsLineGoesOn() throws Exception {
        files();
        AtomicReference<String> asked = new AtomicReference<>("");
        robot.interact(() -> app.shell().setNameAsk(name -> {
            asked.set(name);
            return Optional.of("harvest.csv");
        }));
        robot.interact(() -> robot.lookup("#listing").query().requestFocus());
        robot.push(KeyCode.F2);
        eventually("the new name", () -> text("#message").equals("ledger.csv is now called harvest.csv."));
        assertThat(asked.get()).isEqualTo("ledger.csv");
        assertThat(desk.resolve("ledger.csv")).doesNotExist();
        assertThat(desk.resolve("harvest.csv")).exists();
        eventually("it stays selected", () -> text("#line-title").equals("harvest.csv"));
        eventually("its versions and that it was renamed", () -> points().size() >= 3);
    }

    @Test
    void aNameThatIsTakenChangesNothing() throws Exception {
        files();
        robot.interact(() -> app.shell().setNameAsk(name -> Optional.of("sub")));
        robot.interact(() -> robot.lookup("#listing").query().requestFocus());
        robot.push(KeyCode.F2);
        eventually("why not", () -> text("#message").startsWith("There is something called sub already."));
        assertThat(desk.resolve("ledger.csv")).exists();
    }

    /** What can be done on each screen can be done without a mouse, and is said to whoever does not see it. */
    @Test
    void tabReachesEveryControlOfEveryScreenAndEachHasAName() throws Exception {
        files();
        for (KeyCode screen : List.of(KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT4, KeyCode.DIGIT5)) {
            robot.push(KeyCode.ALT, screen);
            Set<Node> all = new LinkedHashSet<>();
            // What comes while the keys go on is met the next time round.
            Set<Node> reached = new LinkedHashSet<>();
            again(
                    "every control of the screen " + screen,
                    () -> {
                        reached.clear();
                        reached.addAll(walk());
                    },
                    () -> {
                        all.clear();
                        collect(app.shell().getScene().getRoot(), all);
                        // Of buttons of which one is pressed, that one is reached, and the others from it by the
                        // arrows.
                        return all.size() > 8
                                && all.stream().allMatch(n -> reached.contains(n) || n instanceof ToggleButton);
                    });
            assertThat(all)
                    .allSatisfy(n -> assertThat(named(n))
                            .as("the name of %s on the screen %s", n, screen)
                            .isTrue());
        }
    }

    /** What Tab comes to until it comes to the same again. */
    private Set<Node> walk() {
        Set<Node> reached = new LinkedHashSet<>();
        for (int i = 0; i < 80; i++) {
            robot.push(KeyCode.TAB);
            Node focused = app.shell().getScene().getFocusOwner();
            if (focused != null && !reached.add(focused)) {
                break;
            }
        }
        return reached;
    }

    private static boolean named(Node n) {
        return n instanceof Labeled l && !l.getText().isBlank()
                || n.getAccessibleText() != null && !n.getAccessibleText().isBlank()
                || n instanceof TextInputControl t
                        && t.getPromptText() != null
                        && !t.getPromptText().isBlank();
    }

    private static void collect(Node n, Set<Node> into) {
        if (!n.isVisible() || n.isDisabled()) {
            return;
        }
        if (n.isFocusTraversable()) {
            into.add(n);
        }
        // Rows of tables and lists are reached by the arrows.
        boolean rows = n instanceof TableView || n instanceof TreeTableView || n instanceof ListView;
        if (n instanceof Parent p && !rows) {
            p.getChildrenUnmodifiable().forEach(c -> collect(c, into));
        }
    }
}
