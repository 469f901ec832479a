package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.Control;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.Slider;
import javafx.scene.control.TableView;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.TreeTableCell;
import javafx.scene.control.TreeTableView;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Text;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.words.Words;

/** The window in another language, in the smallest size, and for who does not see it. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class LanguageScreenTest extends WindowTest {

    private static final List<KeyCode> SCREENS =
            List.of(KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT4, KeyCode.DIGIT5);

    @AfterEach
    void ofTheSystem() {
        Words.use((String) null);
        Locale.setDefault(Locale.Category.DISPLAY, Words.locale());
    }

    private void german() throws Exception {
        fill();
        UserSettings settings = UserSettings.open(home);
        settings.language("de");
        settings.remember("width", "1024");
        settings.remember("height", "640");
        settings.save();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        select("ledger.csv");
        eventually("the line", () -> visible("#restore"));
    }

    @Test
    void theWindowSpeaksTheLanguageThatIsChosenInItsMenu() throws Exception {
        german();
        assertThat(text("#tab-files")).isEqualTo("Dateien");
        assertThat(text("#restore")).isEqualTo("3 wiederherstellen");
        robot.clickOn("#who");
        robot.clickOn("Sprache");
        eventually("the languages", () -> robot.lookup("English").tryQuery().isPresent());
        robot.clickOn("English");
        eventually("what was chosen", () -> text("#message").startsWith("English"));
        assertThat(UserSettings.open(home).language()).isEqualTo("en");
    }

    @Test
    void howLargeEverythingIsIsChosenThereAndCountsFromTheNextStart() throws Exception {
        fill();
        show();
        robot.clickOn("#who");
        robot.clickOn("Size of everything");
        javafx.scene.control.MenuButton who = robot.lookup("#who").queryAs(javafx.scene.control.MenuButton.class);
        javafx.scene.control.MenuItem half = who.getItems().stream()
                .filter(item -> "scales".equals(item.getId()))
                .flatMap(item -> ((javafx.scene.control.Menu) item).getItems().stream())
                .filter(item -> "150 %".equals(item.getText()))
                .findFirst()
                .orElseThrow();
        robot.interact(half::fire);
        eventually("that it is said", () -> text("#message").startsWith("From the next start"));
        assertThat(UserSettings.open(home).scale()).isEqualTo(150);
        try {
            Launch.scale(UserSettings.open(home).scale());
            assertThat(System.getProperty("glass.gtk.uiScale")).isEqualTo("150%");
        } finally {
            System.clearProperty("glass.gtk.uiScale");
            System.clearProperty("glass.win.uiScale");
        }
    }

    @Test
    void onAScreenThatIsTooSmallForAllOfItItIsMovedAboutAndNothingIsCutOff() throws Exception {
        fill();
        show();
        Shell shell = java.util.Objects.requireNonNull(app.shell());
        robot.interact(() -> {
            javafx.scene.Scene scene = shell.getScene();
            scene.setRoot(new javafx.scene.Group());
            scene.setRoot(App.scrolled(shell));
            javafx.stage.Stage stage = (javafx.stage.Stage) scene.getWindow();
            stage.setMinWidth(1);
            stage.setMinHeight(1);
            stage.setWidth(640);
            stage.setHeight(400);
        });
        eventually(
                "all of it in a small window",
                () -> shell.getScene().getWidth() <= 640 && shell.getWidth() >= 1024 && shell.getHeight() >= 640);
        robot.interact(() -> robot.lookup("#moved-about")
                .queryAs(javafx.scene.control.ScrollPane.class)
                .setHvalue(1));
        eventually("the other end of it", () -> shell.localToScene(1024, 0).getX() <= 640);
    }

    @Test
    void whetherFormulasStayTextInExportedTablesIsChosenThereAndRemembered() throws Exception {
        fill();
        show();
        robot.clickOn("#who");
        robot.clickOn("In exported tables, formulas stay text");
        eventually("that it is said", () -> text("#message").startsWith("Tables are written so from now on."));
        assertThat(UserSettings.open(home).cells()).isEqualTo(CsvTable.Cells.AS_IS);
        robot.clickOn("#who");
        robot.clickOn("In exported tables, formulas stay text");
        eventually("that it is remembered", () -> UserSettings.open(home).cells() == CsvTable.Cells.TEXT);
    }

    @Test
    void noWordOfAButtonAndNoNumberIsCutInTheSmallestWindow() throws Exception {
        german();
        for (KeyCode screen : SCREENS) {
            robot.push(KeyCode.ALT, screen);
            settled();
            List<String> cut = new ArrayList<>();
            all(Labeled.class).stream()
                    .filter(l -> l instanceof ButtonBase || l instanceof TreeTableCell && figure(l))
                    .filter(LanguageScreenTest::isCut)
                    .forEach(l -> cut.add(l.getText()));
            assertThat(cut).as("cut on screen %s", screen).isEmpty();
        }
    }

    @Test
    void everythingThatTakesTheKeysHasANameForAScreenReader() throws Exception {
        german();
        for (KeyCode screen : SCREENS) {
            robot.push(KeyCode.ALT, screen);
            settled();
            List<String> nameless = all(Control.class).stream()
                    .filter(c -> c.isFocusTraversable() && !isNamed(c))
                    .map(c -> c.getClass().getSimpleName() + " " + c.getId() + " " + c.getStyleClass())
                    .toList();
            assertThat(nameless).as("without a name on screen %s", screen).isEmpty();
        }
    }

    private void settled() throws InterruptedException {
        // What a screen asks for in the background comes in a moment.
        Thread.sleep(1200);
        org.testfx.util.WaitForAsyncUtils.waitForFxEvents();
    }

    private <T extends Node> List<T> all(Class<T> type) {
        Set<Node> nodes = robot.lookup(n -> type.isInstance(n) && shown(n)).queryAll();
        return nodes.stream().map(type::cast).toList();
    }

    private static boolean figure(Labeled cell) {
        return cell.getStyleClass().contains("figure")
                && cell.getText() != null
                && cell.getText().matches(".*\\d.*");
    }

    private static boolean isCut(Labeled labeled) {
        return labeled.lookupAll(".text").stream()
                .filter(t -> t instanceof Text && t.getParent() == labeled)
                .map(t -> ((Text) t).getText())
                .anyMatch(t -> !t.equals(labeled.getText()) && t.contains("..."));
    }

    private static boolean isNamed(Control c) {
        if (c.getAccessibleText() != null && !c.getAccessibleText().isBlank()) {
            return true;
        }
        if (c instanceof TextInputControl text) {
            return text.getPromptText() != null && !text.getPromptText().isBlank();
        }
        if (c instanceof Labeled labeled) {
            return labeled.getText() != null && !labeled.getText().isBlank();
        }
        return !(c instanceof ListView
                || c instanceof TableView
                || c instanceof TreeTableView
                || c instanceof ComboBoxBase
                || c instanceof Slider);
    }
}
