package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.text.TextFlow;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.compare.Comparison.RowChange;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.desktop.files.CompareTarget;

/** A version read large: what it changed, what it says, stepping along its line. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class ReadingScreenTest extends WindowTest {

    private String words() {
        return robot.lookup("#reading .detail-words").queryLabeled().getText();
    }

    private String place() {
        return robot.lookup("#reading .dim").queryAllAs(javafx.scene.control.Label.class).stream()
                .map(javafx.scene.control.Label::getText)
                .filter(t -> t.startsWith("change") || t.endsWith("change") || t.endsWith("changes"))
                .findFirst()
                .orElse("");
    }

    private void openReading() throws Exception {
        fill();
        save(
                "ledger.csv",
                "kind,kilos\nKaty,421\nBramley,1204\nEgremont,300\n",
                Instant.now().minus(Duration.ofHours(3)));
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place;
            try (var reading = vault.read()) {
                place = reading.places().get(0);
            }
            capture(vault, place, Instant.now().minus(Duration.ofHours(2)));
        }
        show();
        select("ledger.csv");
        robot.push(KeyCode.ENTER);
        eventually("the large view", () -> visible("#reading"));
    }

    @Test
    void enterOpensItSteppingFollowsTheLineAndEscapeLeavesIt() throws Exception {
        openReading();
        eventually("what the newest changed", () -> words().startsWith("version 3, then version 4: "));
        robot.push(KeyCode.CONTROL, KeyCode.DOWN);
        robot.push(KeyCode.CONTROL, KeyCode.DOWN);
        eventually("what the second changed", () -> words().equals("version 1, then version 2: 1 cell"));
        assertThat(place()).isEqualTo("change 1 of 1");
        robot.push(KeyCode.CONTROL, KeyCode.DOWN);
        eventually("the first version", () -> words().startsWith("The first version"));
        robot.push(KeyCode.CONTROL, KeyCode.UP);
        eventually("the second again", () -> words().contains("1 cell"));
        ListView<?> stem = robot.lookup("#reading-stem").queryListView();
        assertThat(stem.getSelectionModel().getSelectedIndex()).isEqualTo(2);
        robot.push(KeyCode.ESCAPE);
        eventually("the listing again", () -> visible("#listing") && !visible("#reading"));
        assertThat(app.shell().files().line().chosenProperty().get().number()).isEqualTo(2);
    }

    @Test
    void theLargeViewHearsItsKeysWhateverHasThemBesideIt() throws Exception {
        openReading();
        eventually("what the newest changed", () -> words().startsWith("version 3, then version 4: "));
        robot.interact(() -> robot.lookup("#tab-mend").query().requestFocus());
        robot.push(KeyCode.CONTROL, KeyCode.DOWN);
        eventually("what the third changed", () -> words().startsWith("version 2, then version 3: "));
        robot.push(KeyCode.CONTROL, KeyCode.DOWN);
        eventually("what the second changed", () -> words().startsWith("version 1, then version 2: "));
        robot.interact(() -> robot.lookup("#tab-mend").query().requestFocus());
        robot.push(KeyCode.ESCAPE);
        eventually("the listing again", () -> visible("#listing") && !visible("#reading"));
    }

    @Test
    void whatItIsComparedWithCanBeChosen() throws Exception {
        openReading();
        robot.interact(() -> app.shell()
                .files()
                .line()
                .choose(app.shell()
                        .files()
                        .line()
                        .lineProperty()
                        .get()
                        .version(2)
                        .orElseThrow()));
        robot.clickOn("#reading-against");
        MenuButton against = robot.lookup("#reading-against").queryAs(MenuButton.class);
        assertThat(against.getItems().get(1).getText()).isEqualTo("what the folder holds now");
        robot.interact(() -> against.getItems().get(1).fire());
        eventually("against the folder", () -> words().equals("version 2, then what the folder holds now: +1 row"));
        robot.interact(() -> app.shell().files().line().againstProperty().set(new CompareTarget.OfVersion(4)));
        eventually("against another", () -> words().equals("version 2, then version 4: +1 row"));
        Path other = Files.writeString(temp.resolve("other.csv"), "kind,kilos\nKaty,421\n");
        robot.interact(() -> app.shell().files().line().againstProperty().set(new CompareTarget.OfFile(other)));
        eventually("against a file", () -> words().equals("version 2, then other.csv: −1 row"));
    }

    @Test
    void theContentIsSearchedCopiedAndShownWithoutWhatIsEqual() throws Exception {
        openReading();
        robot.clickOn("#reading-content");
        eventually(
                "the grid", () -> robot.lookup("#reading .look-grid").tryQuery().isPresent());
        robot.push(KeyCode.CONTROL, KeyCode.F);
        robot.write("egremont").push(KeyCode.ENTER);
        TableView<RowChange> grid = robot.lookup("#reading .look-grid").queryTableView();
        eventually("the row", () -> grid.getSelectionModel().getSelectedIndex() == 3);
        robot.interact(grid::requestFocus);
        robot.push(KeyCode.CONTROL, KeyCode.C);
        AtomicReference<String> copied = new AtomicReference<>("");
        eventually("the copied row", () -> {
            robot.interact(() -> copied.set(Clipboard.getSystemClipboard().getString()));
            return "Egremont\t300\n".equals(copied.get());
        });
        robot.interact(
                () -> robot.lookup("#reading-find").queryAs(TextField.class).setText("nowhere"));
        robot.clickOn("#reading-find").push(KeyCode.ENTER);
        eventually("that it is not there", () -> words().equals("“nowhere” was not found here."));
        robot.push(KeyCode.CONTROL, KeyCode.PLUS);
        eventually(
                "larger letters",
                () -> robot.lookup("#reading .zoom-1").tryQuery().isPresent());
    }

    @Test
    void theDifferenceIsExportedAsAPageOfItsOwn() throws Exception {
        openReading();
        robot.interact(() -> app.shell()
                .files()
                .line()
                .choose(app.shell()
                        .files()
                        .line()
                        .lineProperty()
                        .get()
                        .version(2)
                        .orElseThrow()));
        eventually("what it changed", () -> words().contains("1 cell"));
        File page = temp.resolve("out.html").toFile();
        robot.interact(() -> app.shell().setSaveAsk(name -> {
            assertThat(name).isEqualTo("ledger, changes of version 2.html");
            return Optional.of(page);
        }));
        robot.clickOn("#reading-export");
        eventually(
                "the page",
                () -> page.exists() && Files.readString(page.toPath()).contains("</html>"));
        assertThat(Files.readString(page.toPath())).contains("<del>412</del> <ins>421</ins>");
    }

    @Test
    void aTickedChangeIsTakenBackAsTheNextVersionAndUndone() throws Exception {
        openReading();
        robot.interact(() -> app.shell()
                .files()
                .line()
                .choose(app.shell()
                        .files()
                        .line()
                        .lineProperty()
                        .get()
                        .version(2)
                        .orElseThrow()));
        eventually("what it changed", () -> words().contains("1 cell"));
        robot.clickOn("#reading-pick");
        eventually(
                "why not", () -> robot.lookup("#pick-changes .label").tryQuery().isPresent());
        robot.interact(() -> app.shell().files().line().againstProperty().set(new CompareTarget.Now()));
        eventually("the changes", () -> robot.lookup("#pick-1").tryQuery().isPresent());
        assertThat(robot.lookup("#pick-make").query().isDisabled()).isTrue();
        robot.clickOn("#pick-1");
        robot.clickOn("#pick-make");
        eventually("the file without that row", () -> live().equals("kind,kilos\nKaty,421\nBramley,1204\n"));
        eventually(
                "the version with its note",
                () -> app.shell().files().line().lineProperty().get() != null
                        && app.shell()
                                .files()
                                .line()
                                .lineProperty()
                                .get()
                                .newest()
                                .orElseThrow()
                                .note()
                                .startsWith("row 4 taken back"));
        robot.interact(() -> app.shell().files().undo());
        eventually("the row again", () -> live().contains("Egremont"));
    }

    @Test
    void membersOfAnArchiveAreLookedIntoAndLeftAgain() throws Exception {
        fill();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            zip.putNextEntry(new ZipEntry("inside.txt"));
            zip.write("words inside".getBytes(StandardCharsets.UTF_8));
        }
        Path file = Files.write(desk.resolve("bundle.zip"), bytes.toByteArray());
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minus(Duration.ofHours(3))));
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place;
            try (var reading = vault.read()) {
                place = reading.places().get(0);
            }
            capture(vault, place, Instant.now().minus(Duration.ofHours(2)));
        }
        show();
        select("bundle.zip");
        robot.push(KeyCode.CONTROL, KeyCode.L);
        eventually("the large view", () -> visible("#reading"));
        robot.clickOn("#reading-content");
        eventually(
                "its members",
                () -> robot.lookup("#reading .look-list").tryQuery().isPresent());
        ListView<?> members = robot.lookup("#reading .look-list").queryListView();
        robot.interact(() -> {
            members.requestFocus();
            members.getSelectionModel().select(0);
        });
        robot.push(KeyCode.ENTER);
        eventually("the member", () -> words().equals("inside.txt"));
        robot.push(KeyCode.ESCAPE);
        eventually("the archive again", () -> words().isEmpty() && visible("#reading"));
        CheckBox only = robot.lookup("#reading-only").queryAs(CheckBox.class);
        assertThat(only.isSelected()).isTrue();
    }

    private void captureNow(Duration ago) throws Exception {
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place;
            try (var reading = vault.read()) {
                place = reading.places().get(0);
            }
            capture(vault, place, Instant.now().minus(ago));
        }
    }

    private void keep(String name, byte[] content, int minutes) throws Exception {
        Path file = Files.write(desk.resolve(name), content);
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minus(Duration.ofMinutes(minutes))));
        captureNow(Duration.ofMinutes(minutes - 1));
    }

    private static byte[] zip(String... namesAndTexts) throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (int i = 0; i < namesAndTexts.length; i += 2) {
                zip.putNextEntry(new ZipEntry(namesAndTexts[i]));
                zip.write(namesAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
            }
        }
        return bytes.toByteArray();
    }

    @Test
    void aMemberThatChangedIsComparedFromTheArchive() throws Exception {
        fill();
        keep("bundle.zip", zip("same.txt", "same", "plan.txt", "one\ntwo\n"), 90);
        keep("bundle.zip", zip("same.txt", "same", "plan.txt", "one\nthree\n"), 60);
        show();
        select("bundle.zip");
        robot.push(KeyCode.CONTROL, KeyCode.L);
        eventually("what changed in it", () -> words().equals("version 1, then version 2: 1 member"));
        ListView<?> members = robot.lookup("#reading .look-list").queryListView();
        assertThat(members.getItems()).hasSize(1);
        // The list may be drawn anew in the moment in which it gets the keys.
        again(
                "what changed in the member",
                () -> {
                    robot.interact(() ->
                            robot.lookup("#reading .look-list").tryQuery().ifPresent(javafx.scene.Node::requestFocus));
                    robot.push(KeyCode.ENTER);
                },
                () -> words().equals("version 1, then version 2: +1 line, −1 line in plan.txt"));
        robot.push(KeyCode.ESCAPE);
        eventually("the archive again", () -> words().equals("version 1, then version 2: 1 member"));
        assertThat(visible("#reading")).isTrue();
    }

    @Test
    void aTextIsExportedAsAPatchAndATableAsOne() throws Exception {
        fill();
        keep("plan.txt", "one\ntwo\n".getBytes(StandardCharsets.UTF_8), 90);
        keep("plan.txt", "one\nthree\n".getBytes(StandardCharsets.UTF_8), 60);
        show();
        select("plan.txt");
        robot.push(KeyCode.CONTROL, KeyCode.L);
        eventually("what changed", () -> words().contains("+1 line"));
        File patch = temp.resolve("out.patch").toFile();
        File table = temp.resolve("out.csv").toFile();
        javafx.scene.control.SplitMenuButton export =
                robot.lookup("#reading-export").queryAs(javafx.scene.control.SplitMenuButton.class);
        robot.interact(() -> app.shell().setSaveAsk(name -> Optional.of(name.endsWith(".patch") ? patch : table)));
        robot.interact(() -> export.getItems().get(1).fire());
        eventually("the patch", () -> patch.exists() && patch.length() > 0);
        assertThat(patch).content().contains("-two\n+three\n").startsWith("--- plan.txt\n+++ plan.txt\n");
        robot.interact(() -> export.getItems().get(2).fire());
        eventually("the table", () -> table.exists() && table.length() > 0);
        assertThat(table).content().startsWith("number,change,where,before,after");
    }

    @Test
    void whereThereIsNoPrinterThatIsSaid() throws Exception {
        openReading();
        eventually("what changed", () -> words().startsWith("version 3, then"));
        robot.push(KeyCode.CONTROL, KeyCode.P);
        String why = "There is no printer on this computer.";
        eventually("why not", () -> words().equals(why));
        CheckBox only = robot.lookup("#reading-only").queryAs(CheckBox.class);
        robot.interact(only::fire);
        robot.interact(only::fire);
        assertThat(words()).as("the same is shown anew").isEqualTo(why);
        robot.push(KeyCode.DOWN);
        eventually("another version", () -> !words().equals(why));
    }

    private List<TextFlow> flows() {
        return robot.lookup("#reading .look-flow").queryAllAs(TextFlow.class).stream()
                .filter(f -> f.getScene() != null && f.isVisible())
                .sorted(java.util.Comparator.comparingDouble(
                        f -> f.localToScene(0, 0).getY()))
                .toList();
    }

    private String copied() {
        robot.push(KeyCode.CONTROL, KeyCode.C);
        AtomicReference<String> text = new AtomicReference<>("");
        robot.interact(() -> text.set(Clipboard.getSystemClipboard().getString()));
        return text.get();
    }

    @Test
    void lettersAreSelectedOverLinesAndCopied() throws Exception {
        fill();
        save(
                "letter.txt",
                "Dear Tomas,\nthe press is\tmended now.\nYours, Ada\n",
                Instant.now().minusSeconds(9000));
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place;
            try (var reading = vault.read()) {
                place = reading.places().get(0);
            }
            capture(vault, place, Instant.now().minusSeconds(8000));
        }
        show();
        select("letter.txt");
        robot.push(KeyCode.ENTER);
        eventually("the large view", () -> visible("#reading"));
        robot.clickOn("#reading-content");
        eventually("its three lines", () -> flows().size() >= 3);
        TextFlow first = flows().get(0);
        TextFlow third = flows().get(2);
        Bounds word = letters(first, 5, 10);
        Bounds end = letters(third, 0, 5);
        robot.moveTo(left(first, word)).press(MouseButton.PRIMARY);
        robot.moveTo(right(third, end)).release(MouseButton.PRIMARY);
        assertThat(copied()).isEqualTo("Tomas,\nthe press is\tmended now.\nYours");
        assertThat(robot.lookup("#reading .letters").queryAll()).hasSize(3);
        robot.doubleClickOn(middle(flows().get(0), word));
        assertThat(copied()).isEqualTo("Tomas");
        robot.press(KeyCode.SHIFT).clickOn(right(flows().get(2), end)).release(KeyCode.SHIFT);
        assertThat(copied()).startsWith("Tomas,").endsWith("Yours");
        robot.push(KeyCode.DOWN);
        eventually(
                "rows again", () -> robot.lookup("#reading .letters").queryAll().isEmpty());
        assertThat(copied()).endsWith("\n");
    }

    private static Bounds letters(TextFlow flow, int from, int to) {
        return new javafx.scene.shape.Path(flow.rangeShape(from, to)).getBoundsInLocal();
    }

    private static Point2D left(TextFlow flow, Bounds at) {
        return flow.localToScreen(at.getMinX() + 1.5, (at.getMinY() + at.getMaxY()) / 2);
    }

    private static Point2D right(TextFlow flow, Bounds at) {
        return flow.localToScreen(at.getMaxX() - 1.5, (at.getMinY() + at.getMaxY()) / 2);
    }

    private static Point2D middle(TextFlow flow, Bounds at) {
        return flow.localToScreen((at.getMinX() + at.getMaxX()) / 2, (at.getMinY() + at.getMaxY()) / 2);
    }
}
