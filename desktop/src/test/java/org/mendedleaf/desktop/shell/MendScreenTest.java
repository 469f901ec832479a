package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.NoticeSettings;
import org.mendedleaf.core.settings.UserSettings;

/** From what looks wrong to having it mended, by clicks and by keys. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class MendScreenTest extends WindowTest {

    private static final Instant DAY = Instant.now().minus(Duration.ofDays(5));
    private static final String ROTA = "On Monday Ines sees to the press and Tomas to the hives.\n".repeat(12);

    private Place place;

    /** A rota that was emptied, a list that no longer parses, and six cards that were removed at once. */
    @BeforeEach
    void harm() throws IOException {
        save("rota.txt", ROTA, DAY);
        save("list.json", "{\"kinds\": [\"Bramley\", \"Katy\"]}", DAY);
        for (int i = 0; i < 6; i++) {
            save("cards/" + i + ".txt", "card " + i, DAY);
        }
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), at(DAY), "Ines");
            capture(vault, place, DAY);
            save("list.json", "{\"kinds\": [\"Bramley\", ", DAY.plusSeconds(20_000));
            capture(vault, place, DAY.plusSeconds(20_100));
            save("rota.txt", "", DAY.plusSeconds(90_000));
            capture(vault, place, DAY.plusSeconds(90_100));
            for (int i = 0; i < 6; i++) {
                Files.delete(desk.resolve("cards/" + i + ".txt"));
            }
            Files.delete(desk.resolve("cards"));
            capture(vault, place, DAY.plusSeconds(180_100));
        }
        UserSettings settings = UserSettings.open(home);
        settings.addVault(temp.resolve("vault").toRealPath());
        settings.who("Ines");
    }

    private void open() throws Exception {
        show();
        eventually("a listing", () -> !rows().isEmpty());
        eventually("what was found in the background", () -> text("#tab-mend").equals("Mend 3"));
        robot.push(KeyCode.ALT, KeyCode.DIGIT2);
        eventually("the first finding", () -> text("#mend-finding").equals("6 files were removed within minutes"));
    }

    private void choose(String finding) {
        ListView<?> list = robot.lookup("#mend-list").queryListView();
        List<String> seen = new ArrayList<>();
        for (int i = 0; i < list.getItems().size(); i++) {
            int at = i;
            robot.interact(() -> {
                list.requestFocus();
                list.getSelectionModel().select(at);
            });
            seen.add(text("#mend-finding"));
            if (text("#mend-finding").equals(finding)) {
                return;
            }
        }
        throw new AssertionError("expected " + finding + " among " + seen);
    }

    @Test
    void aFindingSaysWhyAndIsMendedWithOneClickAndUndoneWithAnother() throws Exception {
        open();
        choose("rota.txt was emptied");
        assertThat(text("#mend-evidence")).isEqualTo("It had 684 B and has nothing now.");
        eventually("what mending does", () -> text("#mend-after").contains("684 B will be written"));
        assertThat(text("#mend-mend")).isEqualTo("Mend 1 file");
        eventually(
                "what it was, beside",
                () -> robot.lookup("#mend-detail .look-list").tryQuery().isPresent());
        robot.clickOn("#mend-mend");
        eventually("the rota", () -> Files.readString(desk.resolve("rota.txt")).equals(ROTA));
        eventually("the message", () -> text("#message").equals("1 file mended."));
        eventually("two findings", () -> text("#tab-mend").equals("Mend 2"));
        robot.clickOn("#undo");
        eventually("nothing in it again", () -> Files.size(desk.resolve("rota.txt")) == 0);
        eventually("three findings", () -> text("#tab-mend").equals("Mend 3"));
    }

    @Test
    void keysWorkThroughThem() throws Exception {
        open();
        robot.interact(() -> robot.lookup("#mend-list").query().requestFocus());
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        eventually("the cards", () -> Files.exists(desk.resolve("cards/5.txt")));
        eventually("the next one", () -> text("#mend-finding").equals("rota.txt was emptied"));
        robot.interact(() -> robot.lookup("#mend-list").query().requestFocus());
        robot.push(KeyCode.ENTER);
        eventually("both sides large", () -> visible("#difference"));
        robot.push(KeyCode.ESCAPE);
        eventually("the finding again", () -> visible("#mend-finding"));
        robot.interact(() -> robot.lookup("#mend-list").query().requestFocus());
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        eventually("the rota", () -> Files.readString(desk.resolve("rota.txt")).equals(ROTA));
        eventually("the last one", () -> text("#mend-finding").equals("list.json was cut short"));
        robot.interact(() -> robot.lookup("#mend-list").query().requestFocus());
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        eventually("nothing left", () -> text("#mend-title").equals("Nothing needs attention"));
        eventually("no number beside it", () -> text("#tab-mend").equals("Mend"));
    }

    @Test
    void whatIsFineIsSaidWithAReasonAndTakenBack() throws Exception {
        open();
        choose("list.json was cut short");
        robot.clickOn("#mend-fine");
        eventually("the question", () -> visible("#mend-reason"));
        assertThat(robot.lookup("#mend-fine-sure").query().isDisabled())
                .as("not without a reason")
                .isTrue();
        robot.interact(() -> {
            robot.lookup("#mend-reason").queryAs(TextField.class).setText("it is a draft");
        });
        robot.clickOn("#mend-fine-sure");
        eventually("two findings", () -> text("#tab-mend").equals("Mend 2"));
        choose("list.json was cut short");
        eventually("why", () -> text("#mend-after").equals("dismissed: it is a draft · Ines"));
        robot.clickOn("#mend-reopen");
        eventually("three findings", () -> text("#tab-mend").equals("Mend 3"));
    }

    @Test
    void theFilesOfAFindingSayWhatWillBeDoneWithEach() throws Exception {
        open();
        TableView<?> files = robot.lookup("#mend-files").queryTableView();
        assertThat(files.getItems()).hasSize(6);
        eventually("the effect", () -> text("#mend-after").startsWith("6 files are as they were before."));
        assertThat(text("#mend-mend")).isEqualTo("Mend 6 files");
        assertThat(text("#mend-about")).startsWith("Last checked");
    }

    @Test
    void aFolderThatIsAwayIsSaidAboveAndLeadsToProtection() throws Exception {
        open();
        Files.move(desk, desk.resolveSibling("moved away"));
        robot.interact(() -> app.shell().context().changed());
        eventually(
                "the warning",
                () -> robot.lookup("#mend-warnings .clay-text").tryQuery().isPresent());
        robot.clickOn("#mend-warnings .button");
        eventually("Protection", () -> visible("#coverage"));
    }

    @Test
    void aWarningIsDismissedWithAReasonAndOpenedAgain() throws Exception {
        open();
        Files.move(desk, desk.resolveSibling("moved away"));
        robot.interact(() -> app.shell().context().changed());
        eventually("the warning", () -> visible("#mend-dismiss"));
        robot.clickOn("#mend-dismiss");
        eventually("the question", () -> visible("#mend-dismiss-reason"));
        assertThat(robot.lookup("#mend-dismiss-sure").query().isDisabled())
                .as("without a reason nothing is dismissed")
                .isTrue();
        robot.write("on the drive at home");
        robot.push(KeyCode.ENTER);
        eventually("no warning", () -> visible("#mend-dismissed") && !visible("#mend-dismiss"));
        robot.clickOn("#mend-dismissed");
        eventually("who dismissed it", () -> said("#mend-warnings").contains("Ines · on the drive at home"));
        robot.clickOn("Open it again");
        eventually("the warning again", () -> visible("#mend-dismiss"));
        assertThat(said("#mend-warnings")).doesNotContain("at home");
    }

    private void notices(String words) {
        MenuButton menu = robot.lookup("#notices-menu").queryAs(MenuButton.class);
        MenuItem item = menu.getItems().stream()
                .filter(m -> words.equals(m.getText()))
                .findFirst()
                .orElseThrow();
        robot.interact(() -> {
            if (item instanceof CheckMenuItem check) {
                check.setSelected(!check.isSelected());
            }
            item.fire();
        });
    }

    @Test
    void howSomebodyIsToldIsChosenAndKept() throws Exception {
        open();
        notices("Quiet from 22:00 to 07:00");
        eventually(
                "the quiet hours",
                () -> NoticeSettings.of(UserSettings.open(home)).quiet().text().equals("22:00-07:00"));
        notices("Notices of the desktop");
        eventually(
                "no notices", () -> !NoticeSettings.of(UserSettings.open(home)).desktop());
        notices("No quiet hours");
        eventually(
                "no quiet hours",
                () -> NoticeSettings.of(UserSettings.open(home)).quiet().isNone());
    }

    @Test
    void whatComesUpWhileTheWindowIsOpenIsSaidAtItsFoot() throws Exception {
        open();
        Objects.requireNonNull(app.shell());
        robot.interact(() -> app.shell()
                .context()
                .noticed(List.of(
                        new Concern("a", Concern.Kind.FINDING, "Front desk: lease.odt was emptied"),
                        new Concern("b", Concern.Kind.COPY, "a copy is away"))));
        eventually(
                "what came",
                () -> robot.lookup("2 new things need attention. Front desk: lease.odt was emptied")
                        .tryQuery()
                        .isPresent());
    }
}
