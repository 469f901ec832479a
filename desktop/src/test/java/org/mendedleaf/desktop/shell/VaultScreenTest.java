package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.vault.VaultFolder;

/** The vault and its copies in the real window: begun, kept in step, read, healed, ended. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class VaultScreenTest extends WindowTest {

    private Path copy;

    private void protection() throws Exception {
        fill();
        copy = temp.toRealPath().resolve("drive");
        show();
        Objects.requireNonNull(app.shell()).setFolderAsk(() -> Optional.of(copy.toFile()));
        listed();
        robot.push(KeyCode.ALT, KeyCode.DIGIT3);
        eventually(
                "the vault and the way to a copy",
                () -> robot.lookup("#vault-box .vault-line").queryAll().size() == 2);
    }

    private void listed() {
        eventually("the listing", () -> !rows().isEmpty());
    }

    private String box() {
        return said("#vault-box");
    }

    private void choose(String menu, String words) {
        MenuButton more = robot.lookup(menu).queryAs(MenuButton.class);
        MenuItem item = more.getItems().stream()
                .filter(i -> words.equals(i.getText()))
                .findFirst()
                .orElseThrow();
        robot.interact(item::fire);
    }

    /** Damages the pack where this text stands in it, which is short enough to be stored as it is. */
    private void damage(String text) throws IOException {
        Path pack = temp.resolve("vault/packs/00000001.pack");
        String bytes = Files.readString(pack, StandardCharsets.ISO_8859_1);
        assertThat(bytes).contains(text);
        Files.writeString(pack, bytes.replace(text, text.toUpperCase(Locale.ROOT)), StandardCharsets.ISO_8859_1);
    }

    private void begin() throws Exception {
        robot.clickOn("#copy-add");
        // It is on the drive of the vault, which is asked about.
        eventually("the question", () -> robot.lookup("#vault-go").tryQuery().isPresent());
        assertThat(text("#vault-asked")).contains("on the same drive as the vault");
        robot.clickOn("#vault-go");
        eventually("the copy in step", () -> box().contains("in step"));
    }

    @Test
    void aCopyIsBegunKeptInStepAndEnded() throws Exception {
        protection();
        assertThat(box()).contains("There is no copy of the vault").contains("not read yet");
        begin();
        assertThat(VaultFolder.open(copy).isCopy()).isTrue();
        assertThat(box()).contains(copy.toString()).doesNotContain("There is no copy");
        choose("#copy-more", "Stop keeping it in step…");
        eventually("the question", () -> robot.lookup("#vault-go").tryQuery().isPresent());
        robot.clickOn("#vault-leave");
        eventually("no question", () -> robot.lookup("#vault-go").tryQuery().isEmpty());
        assertThat(box()).contains("in step");
        choose("#copy-more", "Stop keeping it in step…");
        eventually("the question", () -> robot.lookup("#vault-go").tryQuery().isPresent());
        robot.clickOn("#vault-go");
        eventually("no copy any more", () -> box().contains("There is no copy of the vault"));
        assertThat(VaultFolder.open(copy).isCopy()).isTrue();
    }

    @Test
    void whatIsAskedStaysWhenSomethingElseAboutTheVaultChanges() throws Exception {
        protection();
        robot.clickOn("#copy-add");
        eventually("the question", () -> robot.lookup("#vault-go").tryQuery().isPresent());
        Node go = robot.lookup("#vault-go").query();
        robot.interact(go::requestFocus);
        choose("#vault-more", "Read it only by hand");
        eventually("the other state", () -> box().contains("Only by hand."));
        assertThat(go.isFocused()).isTrue();
        robot.clickOn(go);
        eventually("the copy in step", () -> box().contains("in step"));
    }

    @Test
    void everyByteIsReadAndWhatNobodyHasIsNamedWithAWayToIt() throws Exception {
        protection();
        robot.clickOn("#vault-read");
        eventually("a vault that is whole", () -> box().contains("whole\n"));
        assertThat(text("#vault-said")).contains("all whole");
        damage("Katy,412");
        robot.clickOn("#vault-read");
        eventually("what is lost", () -> box().contains("nobody has it whole"));
        assertThat(box()).contains("1 version lost");
        assertThat(robot.lookup(".lost-version").queryAll()).isNotEmpty();
        robot.clickOn("Show the file");
        eventually("the listing", () -> robot.lookup("#listing").tryQuery().isPresent());
    }

    @Test
    void aCopyHealsTheVault() throws Exception {
        protection();
        begin();
        damage("Katy,412");
        robot.clickOn("#vault-read");
        eventually("what was healed", () -> text("#vault-said").contains("healed"));
        assertThat(text("#vault-said")).contains("versions are whole");
        assertThat(box()).doesNotContain("nobody has it whole");
    }

    @Test
    void theCatalogueIsMadeAnewWithTheOldOneBesideIt() throws Exception {
        protection();
        choose("#vault-more", "Make the catalogue anew…");
        eventually("the question", () -> robot.lookup("#vault-go").tryQuery().isPresent());
        robot.clickOn("#vault-go");
        eventually("the new catalogue", () -> text("#vault-said").contains("A new catalogue was made"));
        try (var files = Files.list(temp.resolve("vault"))) {
            assertThat(files.map(f -> f.getFileName().toString())).anyMatch(n -> n.startsWith("catalogue.db.old-"));
        }
        robot.push(KeyCode.ALT, KeyCode.DIGIT1);
        listed();
    }

    @Test
    void aVaultWhoseCatalogueIsGoneGetsItBackByOneButton() throws Exception {
        fill();
        for (String ending : List.of("", "-wal", "-shm")) {
            Files.deleteIfExists(temp.resolve("vault/catalogue.db" + ending));
        }
        show();
        eventually(
                "the window", () -> robot.lookup("#tab-protection").tryQuery().isPresent());
        robot.push(KeyCode.ALT, KeyCode.DIGIT3);
        eventually("the vault that is not opened", () -> box().contains("not opened"));
        assertThat(box()).contains("has packs and no catalogue");
        robot.clickOn("#vault-rebuild-closed");
        eventually("the question", () -> robot.lookup("#vault-go").tryQuery().isPresent());
        robot.clickOn("#vault-go");
        eventually("what was done", () -> text("#vault-said").contains("A new catalogue was made"));
        assertThat(box()).doesNotContain("not opened").contains("There was no old one.");
        robot.push(KeyCode.ALT, KeyCode.DIGIT1);
        listed();
    }

    @Test
    void howOftenEveryByteIsReadIsChosen() throws Exception {
        protection();
        choose("#vault-more", "Read it only by hand");
        eventually("the choice", () -> box().contains("Only by hand."));
    }

    @Test
    void aCopyOpensInTheWindowAndIsNotWrittenTo() throws Exception {
        fill();
        copy = temp.toRealPath().resolve("drive");
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Copies copies = new Copies(vault, at(java.time.Instant.now()), "Ines");
            copies.run(copies.add(copy).copy(), org.mendedleaf.core.jobs.Progress.NONE);
        }
        Files.delete(home.resolve("settings.json"));
        org.mendedleaf.core.settings.UserSettings settings = org.mendedleaf.core.settings.UserSettings.open(home);
        settings.addVault(copy);
        show();
        listed();
        assertThat(Objects.requireNonNull(app.shell())
                        .context()
                        .troubleProperty()
                        .get())
                .contains("is a copy of a vault");
        assertThat(new String(Files.readAllBytes(copy.resolve("VAULT")))).contains("copy");
    }

    @Test
    void noTabIsCutOffInASmallWindow() throws Exception {
        fill();
        Home1024.in(home);
        show();
        listed();
        for (String tab : List.of("#tab-files", "#tab-mend", "#tab-protection", "#tab-retention", "#tab-journal")) {
            Button button = robot.lookup(tab).queryButton();
            assertThat(button.getWidth()).as(tab).isGreaterThanOrEqualTo(Math.floor(button.prefWidth(-1)));
        }
        assertThat(robot.lookup("#find-open").queryButton().getBoundsInParent().getMaxX())
                .isLessThan(1024);
    }

    private static final class Home1024 {
        static void in(Path home) throws IOException {
            org.mendedleaf.core.settings.UserSettings settings = org.mendedleaf.core.settings.UserSettings.open(home);
            settings.remember("width", "1024");
            settings.remember("height", "640");
            settings.save();
        }
    }
}
