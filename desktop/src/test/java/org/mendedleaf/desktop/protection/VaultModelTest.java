package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.check.CheckSchedule;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.shell.ModelTest;

/** The vault and its copies on the Protection screen, without a scene. */
class VaultModelTest extends ModelTest {

    private AppContext context;
    private VaultModel model;
    private Path folder;

    @BeforeEach
    void open() throws Exception {
        folder = Files.createDirectory(temp.resolve("papers")).toRealPath();
        Files.writeString(folder.resolve("a.txt"), "what it said at first");
        UserSettings home = UserSettings.open(temp.resolve("home"));
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, folder, Rhythm.BY_HAND, List.of(), Clock.systemUTC(), "Ines");
            new Capture(vault, place, Clock.systemUTC(), (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            home.addVault(vault.folder().root());
        }
        context = new AppContext(home, Clock.system(ZoneOffset.UTC), screen::add);
        model = new VaultModel(context);
        boolean[] ready = {false};
        context.open(() -> ready[0] = true);
        until(() -> ready[0]);
        model.reload();
        until(() -> !model.rowsProperty().get().isEmpty());
    }

    @AfterEach
    void close() throws IOException {
        context.close();
    }

    private VaultModel.Row row() {
        return model.rowsProperty().get().get(0);
    }

    private void go() throws Exception {
        until(() -> model.askedProperty().get() != null);
        Objects.requireNonNull(model.askedProperty().get()).work().run();
    }

    private Path begin() throws Exception {
        Path copy = temp.resolve("copy");
        model.add(row().vault(), copy);
        go();
        until(() -> row().copies().size() == 1 && row().copies().get(0).standing() == CopyStatus.Standing.IN_STEP);
        return copy;
    }

    @Test
    void aVaultThatWasNeverReadSaysSo() {
        assertThat(row().check()).isEmpty();
        assertThat(row().days()).isEqualTo(CheckSchedule.DEFAULT_DAYS);
        assertThat(row().lost()).isEmpty();
        assertThat(row().copies()).isEmpty();
        assertThat(row().storedBytes()).isPositive();
        assertThat(row().reading()).isEmpty();
    }

    @Test
    void onTheDriveOfTheVaultACopyIsAskedAboutFirst() throws Exception {
        Path copy = temp.resolve("copy");
        model.add(row().vault(), copy);
        until(() -> model.askedProperty().get() != null);
        assertThat(Objects.requireNonNull(model.askedProperty().get()).words()).contains("on the same drive");
        assertThat(copy).as("nothing is made before the answer").doesNotExist();
        model.leave();
        assertThat(model.askedProperty().get()).isNull();
        begin();
        assertThat(row().copies().get(0).sameDrive()).isTrue();
        assertThat(model.saidProperty().get()).contains("A copy is kept in " + copy);
    }

    @Test
    void whereACopyCannotBeThatIsSaidAndNothingIsAsked() throws Exception {
        model.add(row().vault(), folder.resolve("copy"));
        until(() -> !model.saidProperty().get().isEmpty());
        assertThat(model.saidProperty().get()).contains("protected folder");
        assertThat(model.askedProperty().get()).isNull();
        assertThat(folder.resolve("copy")).doesNotExist();
    }

    @Test
    void aCopyIsReadAndEnded() throws Exception {
        Path copy = begin();
        model.check(row().vault(), row().copies().get(0).copy());
        until(() -> model.saidProperty().get().contains("nothing wrong"));
        until(() -> row().copies().get(0).seen().checked().isPresent());
        model.end(row().vault(), row().copies().get(0).copy());
        go();
        until(() -> row().copies().isEmpty());
        assertThat(copy.resolve("VAULT")).exists();
    }

    @Test
    void aCopyThatIsAwayCannotBeBroughtInStepAndSaysWhatToDo() throws Exception {
        Path copy = begin();
        Files.move(copy, temp.resolve("away"));
        model.run(row().vault(), row().copies().get(0).copy());
        until(() -> model.saidProperty().get().contains("is not there"));
        until(() -> row().copies().get(0).standing() == CopyStatus.Standing.AWAY);
    }

    @Test
    void whatNobodyHasIsNamedWithItsPlace() throws Exception {
        Path pack = temp.resolve("vault/packs/00000001.pack");
        String bytes = Files.readString(pack, java.nio.charset.StandardCharsets.ISO_8859_1);
        Files.writeString(
                pack,
                bytes.replace("what it said at first", "WHAT IT SAID AT FIRST"),
                java.nio.charset.StandardCharsets.ISO_8859_1);
        Files.writeString(folder.resolve("a.txt"), "saved over");
        model.check(row().vault());
        until(() -> !row().lost().isEmpty());
        assertThat(row().lost().get(0).version().path()).isEqualTo("a.txt");
        assertThat(row().lost().get(0).openPlace()).isPresent();
        until(() -> model.saidProperty().get().contains("nobody has them whole"));
    }

    @Test
    void howOftenItIsReadIsChosen() throws Exception {
        model.every(row().vault(), 7);
        until(() -> row().days() == 7);
        assertThat(model.saidProperty().get()).contains("every 7 days");
    }
}
