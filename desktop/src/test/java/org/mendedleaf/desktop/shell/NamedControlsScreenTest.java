package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javafx.scene.control.TreeTableView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;

/** Who hears the screen instead of seeing it is told what each thing is: everything that takes the keys has a name and a role. */
class NamedControlsScreenTest extends WindowTest {

    private final Map<String, List<String>> nameless = new TreeMap<>();

    @Test
    void everythingThatTakesTheKeysHasANameAndARole() throws Exception {
        fill();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        look("Files");
        select("ledger.csv");
        look("Files with a line");
        robot.interact(() -> app.shell().files().reading().open());
        look("Reading");
        robot.push(KeyCode.ESCAPE);
        for (String tab : List.of("#tab-mend", "#tab-protection", "#tab-retention", "#tab-journal")) {
            robot.clickOn(tab);
            settle();
            look(tab);
        }
        robot.clickOn("#tab-retention");
        for (String part : List.of("rules", "holds", "removed", "waiting")) {
            robot.clickOn("#retention-" + part);
            settle();
            look("Retention: " + part);
            if (part.equals("rules")) {
                robot.clickOn("#rule-add");
                settle();
                look("A rule");
            }
        }
        robot.clickOn("#tab-files");
        select("ledger.csv");
        robot.push(KeyCode.CONTROL, KeyCode.I);
        eventually("the pane", () -> visible("#put-pane"));
        look("Putting in");
        robot.interact(() -> app.shell().files().intake().putting().close());
        robot.clickOn("#tab-protection");
        robot.clickOn("#protect-folder-button");
        settle();
        look("Protecting a folder");
        robot.clickOn("#tab-protection");
        robot.clickOn("#connect-system");
        settle();
        look("Connecting a system");
        robot.clickOn("#tab-files");
        robot.clickOn("#find-open");
        settle();
        look("Find");
        assertThat(nameless).isEmpty();
    }

    @Test
    void soHasEverythingOnTheSheetsThatAskBeforeSomethingIsDone() throws Exception {
        fill();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        select("ledger.csv");
        choosePoint(1);
        robot.clickOn("#more");
        robot.clickOn("#line-holdVersion");
        eventually("a hold", () -> visible("#hold-reason"));
        look("A hold");
        robot.push(KeyCode.ESCAPE);
        eventually("the files", () -> visible("#listing"));
        select("ledger.csv");
        robot.clickOn("#more");
        robot.clickOn("#line-eraseOlder");
        eventually("an erasure", () -> visible("#erase-go"));
        look("An erasure");
        robot.clickOn("#erase-leave");
        eventually("the files", () -> visible("#listing"));
        robot.clickOn("#snapshots");
        robot.clickOn("#all-snapshots");
        eventually("the snapshots", () -> visible("#snapshot-table"));
        look("Snapshots");
        robot.push(KeyCode.ESCAPE);
        eventually("the files", () -> visible("#listing"));
        robot.clickOn("#tab-retention");
        eventually("the space", () -> visible("#space-thin"));
        TreeTableView<?> space = robot.lookup("#space-tree").queryAs(TreeTableView.class);
        eventually(
                "its rows",
                () -> space.getRoot() != null && !space.getRoot().getChildren().isEmpty());
        robot.interact(() -> space.getSelectionModel().select(0));
        robot.clickOn("#space-thin");
        eventually("a thinning", () -> visible("#thin-go"));
        look("A thinning");
        assertThat(nameless).isEmpty();
    }

    private void settle() {
        org.testfx.util.WaitForAsyncUtils.waitForFxEvents();
    }

    private void look(String screen) {
        settle();
        NamedControls all = controls();
        assertThat(all.named()).as("controls of %s", screen).isGreaterThan(5);
        if (!all.nameless().isEmpty()) {
            nameless.put(screen, all.nameless());
        }
    }
}
