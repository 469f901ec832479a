package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.desktop.files.Detail;
import org.mendedleaf.desktop.find.FindModel;
import org.mendedleaf.desktop.snapshots.SnapshotsModel;

/** One box, from every screen, that leads to the point on the line where the words stand. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class FindScreenTest extends WindowTest {

    private ListView<FindModel.Hit> hits() {
        return robot.lookup("#find-hits").queryListView();
    }

    private void look(String words) {
        robot.interact(() -> robot.lookup("#find-box").queryAs(TextField.class).setText(words));
    }

    private void letters() throws Exception {
        fill();
        save(
                "sub/letter.txt",
                "Dear Ines,\nthe orchard gate is broken.\n",
                Instant.now().minus(Duration.ofHours(9)));
        capture();
        save("sub/letter.txt", "Dear Ines,\nall is well.\n", Instant.now().minus(Duration.ofHours(7)));
        capture();
        show();
        eventually("a listing", () -> !rows().isEmpty());
    }

    private void capture() throws Exception {
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place;
            try (var reading = vault.read()) {
                place = reading.places().get(0);
            }
            capture(vault, place, Instant.now().minus(Duration.ofHours(6)));
        }
    }

    @Test
    void whatStoodInAnEarlierVersionIsFoundAndReadAtThatVersion() throws Exception {
        letters();
        robot.push(KeyCode.ALT, KeyCode.DIGIT3);
        robot.push(KeyCode.CONTROL, KeyCode.K);
        eventually("the box", () -> visible("#find"));
        eventually("the words, once they were read in the background", () -> {
            look("orchard ");
            Thread.sleep(300);
            look("orchard gate");
            Thread.sleep(300);
            return hits().getItems().size() == 1;
        });
        assertThat(((FindModel.OfFile) hits().getItems().get(0))
                        .file()
                        .spans()
                        .get(0)
                        .gone())
                .isPresent();
        robot.clickOn("#find-box").push(KeyCode.DOWN).push(KeyCode.ENTER);
        eventually("the large view", () -> visible("#reading"));
        eventually(
                "that version",
                () -> app.shell().files().line().chosenProperty().get() != null
                        && app.shell().files().line().chosenProperty().get().number() == 1);
        assertThat(app.shell().files().line().modeProperty().get()).isEqualTo(Detail.Mode.CONTENT);
        eventually(
                "the words marked",
                () -> robot.lookup("#reading .look-found").tryQuery().isPresent());
        assertThat(app.shell().files().folderProperty().get()).isEqualTo("sub");
    }

    @Test
    void namesOfRemovedFilesAreFoundAndTheSearchIsNarrowed() throws Exception {
        letters();
        robot.clickOn("#find-open");
        look("gone.txt");
        eventually("the removed file", () -> hits().getItems().size() == 1);
        robot.clickOn("#find-presence-present");
        eventually(
                "nothing",
                () -> hits().getItems().isEmpty() && text("#find-words").equals("Nothing found."));
        robot.clickOn("#find-presence-removed");
        eventually("it again", () -> hits().getItems().size() == 1);
        robot.interact(() -> robot.lookup("#find-kind").queryAs(TextField.class).setText("csv"));
        eventually("no such ending", () -> hits().getItems().isEmpty());
        robot.push(KeyCode.ESCAPE);
        eventually("the files again", () -> visible("#listing"));
    }

    private void limit(String id, String text) {
        robot.interact(() -> robot.lookup(id).queryAs(TextField.class).setText(text));
    }

    @Test
    void aFolderAPersonAndATimeNarrowWhatIsFound() throws Exception {
        letters();
        robot.clickOn("#find-open");
        look("letter.txt");
        eventually("the file", () -> hits().getItems().size() == 1);
        limit("#find-folder", "elsewhere");
        eventually("not in that folder", () -> hits().getItems().isEmpty());
        limit("#find-folder", "/sub/");
        eventually("in this one", () -> hits().getItems().size() == 1);
        limit("#find-folder", "");
        look("Tomas ");
        eventually("what he saved", () -> hits().getItems().size() >= 2);
        limit("#find-who", "Adele");
        eventually("nothing of hers", () -> hits().getItems().isEmpty());
        limit("#find-who", "tomas");
        eventually("his again", () -> hits().getItems().size() >= 2);
        int all = hits().getItems().size();
        limit("#find-from", "2 days ago");
        eventually(
                "only what is newer",
                () -> !hits().getItems().isEmpty() && hits().getItems().size() < all);
        limit("#find-from", "some day");
        eventually("why not", () -> text("#find-words").contains("some day"));
        limit("#find-from", "");
        limit("#find-to", "2 days ago");
        eventually(
                "only what is older",
                () -> !hits().getItems().isEmpty() && hits().getItems().size() < all);
    }

    @Test
    void aSnapshotIsFoundByItsLabelAndLeadsToItsMoment() throws Exception {
        letters();
        SnapshotsModel snapshots = new SnapshotsModel(
                app.shell().context(), app.shell().files().placeProperty().get(), "");
        robot.interact(() -> snapshots.take("before the audit"));
        robot.clickOn("#find-open");
        again(
                "the snapshot",
                () -> {
                    look("");
                    look("the audit");
                },
                // Until all words are read, that is said too.
                () -> hits().getItems().size() == 1
                        && hits().getItems().get(0) instanceof FindModel.OfSnapshot
                        && text("#find-words").equals("1 snapshot"));
        robot.clickOn("#find-box").push(KeyCode.ENTER);
        eventually("its moment", () -> app.shell().files().momentProperty().get() != null && visible("#listing"));
    }
}
