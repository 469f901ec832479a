package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;

/** How often a folder is captured, and whether at all, chosen in the window. */
@SuppressWarnings("unchecked")
class ProtectionScreenTest extends WindowTest {

    private Place stored() throws IOException {
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5));
                Reading reading = vault.read()) {
            return reading.places().get(0);
        }
    }

    private void office() throws Exception {
        fill();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        robot.push(KeyCode.ALT, KeyCode.DIGIT3);
        eventually(
                "the folder", () -> visible("#coverage") && !table().getItems().isEmpty());
        robot.interact(() -> table().getSelectionModel().select(0));
        eventually("its settings", () -> visible("#place-rhythm") && visible("#setting-versioning"));
    }

    private TableView<Coverage.Row> table() {
        return robot.lookup("#coverage").queryAs(TableView.class);
    }

    private <T> void choose(String id, T value) {
        robot.interact(() -> ((ComboBox<T>) robot.lookup(id).queryAs(ComboBox.class)).setValue(value));
    }

    private CoverageState state() {
        return table().getItems().get(0).state();
    }

    private boolean says(String words) {
        Set<Label> labels = robot.lookup("#coverage .badge").queryAllAs(Label.class);
        return labels.stream().anyMatch(l -> l.getText().equals(words));
    }

    private void type(String time) {
        robot.interact(() ->
                robot.lookup("#place-rhythm-time").queryAs(TextField.class).clear());
        robot.clickOn("#place-rhythm-time").write(time).push(KeyCode.ENTER);
    }

    @Test
    void aFolderIsCapturedEachDayOrWeekAtAChosenTime() throws Exception {
        office();
        assertThat(visible("#place-rhythm-time")).isFalse();
        assertThat(text("#status-folders")).isEqualTo("1 folder protected, none watched");
        choose("#place-rhythm", Rhythm.daily(Rhythm.EVENING));
        eventually("each day", () -> stored().rhythm().equals(Rhythm.parse("daily 18:00")));
        eventually("the time", () -> visible("#place-rhythm-time") && !visible("#place-rhythm-day"));
        type("7.30");
        eventually("that time", () -> stored().rhythm().equals(Rhythm.parse("daily 7:30")));
        type("half past");
        // What the pane shows is made anew when the place is known better.
        eventually(
                "it is marked",
                () -> robot.lookup("#place-rhythm-time")
                        .tryQuery()
                        .filter((Node n) -> n.getStyleClass().contains("field-wrong"))
                        .isPresent());
        assertThat(stored().rhythm()).isEqualTo(Rhythm.parse("daily 7:30"));
        choose("#place-rhythm", Rhythm.parse("weekly fri 18:00"));
        eventually("the day", () -> visible("#place-rhythm-day"));
        choose("#place-rhythm-day", java.time.DayOfWeek.TUESDAY);
        eventually("that day", () -> stored().rhythm().equals(Rhythm.parse("weekly tue 18:00")));
        eventually(
                "it stands in the list", () -> table().getItems().get(0).next().isPresent());
    }

    @Test
    void whatSomebodyIsTypingStaysWhenThePlaceIsLookedAtAgainMeanwhile() throws Exception {
        office();
        choose("#place-rhythm", Rhythm.daily(Rhythm.EVENING));
        eventually("the time", () -> visible("#place-rhythm-time"));
        eventually("stored", () -> stored().rhythm().equals(Rhythm.daily(Rhythm.EVENING)));
        eventually(
                "known",
                () -> table().getItems().get(0).place().orElseThrow().rhythm().equals(Rhythm.daily(Rhythm.EVENING)));
        TextField time = robot.lookup("#place-rhythm-time").queryAs(TextField.class);
        robot.interact(time::clear);
        robot.clickOn("#place-rhythm-time").write("half pa");
        // As after a capture: how the place stands is known anew, with other numbers.
        save("one more.txt", "text", java.time.Instant.now());
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            capture(vault, stored(), java.time.Instant.now());
        }
        long files = table().getItems().get(0).files();
        robot.push(KeyCode.F5);
        eventually("the new numbers", () -> table().getItems().get(0).files() == files + 1);
        eventually(
                "they are shown",
                () -> robot.lookup(".place-body .dim").queryAllAs(Label.class).stream()
                        .anyMatch(l -> l.getText().contains(String.valueOf(files + 1))));
        assertThat(robot.lookup("#place-rhythm-time").queryAs(TextField.class)).isSameAs(time);
        assertThat(time.getText()).isEqualTo("half pa");
        assertThat(time.isFocused()).isTrue();
        robot.write("st").push(KeyCode.ENTER);
        assertThat(time.getText()).isEqualTo("half past");
        assertThat(time.getStyleClass()).contains("field-wrong");
    }

    @Test
    void theStatusBarSaysThatAFolderIsWatchedAndWhenTheLastSaveCameIn() throws Exception {
        office();
        choose("#place-rhythm", Rhythm.ON_SAVE);
        eventually("it is watched", () -> text("#status-folders").equals("1 folder watched"));
        save("ledger.csv", "saved while the window is open", java.time.Instant.now());
        eventually("the save", () -> text("#status-last").equals("last save came in just now"));
    }

    @Test
    void whatIsWrongIsOneClickAway() throws Exception {
        fill();
        java.nio.file.Files.move(desk, temp.resolve("moved away"));
        show();
        eventually("what is wrong", () -> visible("#status-trouble"));
        robot.clickOn("#status-trouble");
        eventually("where it stands", () -> visible("#coverage"));
    }

    @Test
    void aFolderIsPausedAndGoesOnWithWordsOnWhatWasMissed() throws Exception {
        office();
        choose("#setting-versioning", "paused");
        eventually("it is paused", () -> stored().versioning() == Versioning.PAUSED && state() == CoverageState.PAUSED);
        eventually("its badge", () -> says("paused"));
        save("ledger.csv", "saved while it was paused", java.time.Instant.now());
        robot.push(KeyCode.F5);
        eventually("why nothing is done", () -> text("#message").contains("is paused: nothing is captured"));
        choose("#setting-versioning", "off");
        eventually("it has ended", () -> says("ended"));
        choose("#setting-versioning", "on");
        eventually("what was missed", () -> text("#message").contains("1 file has changed since then"));
        eventually("it is covered", () -> state() == CoverageState.GOOD);
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5));
                Reading reading = vault.read()) {
            assertThat(reading.line(reading.places().get(0), "ledger.csv")
                            .orElseThrow()
                            .versions())
                    .hasSize(4);
        }
    }

    @Test
    void howEverythingIsCoveredIsWrittenDown() throws Exception {
        office();
        java.nio.file.Path report = temp.resolve("coverage.html");
        robot.interact(() -> app.shell().setSaveAsk(name -> java.util.Optional.of(report.toFile())));
        robot.clickOn("#coverage-report");
        eventually("the report", () -> text("#protection-said").equals("The report is in " + report + "."));
        assertThat(java.nio.file.Files.readString(report))
                .contains("How everything is covered")
                .contains("desk");
        robot.interact(() -> app.shell()
                .setSaveAsk(name -> java.util.Optional.of(temp.resolve("x.doc").toFile())));
        robot.clickOn("#coverage-report");
        eventually("what is wrong", () -> text("#protection-said").contains(".csv, .json or .html"));
    }
}
