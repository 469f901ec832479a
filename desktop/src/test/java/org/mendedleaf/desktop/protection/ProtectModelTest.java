package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.UsualRules;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.shell.ModelTest;

/** The model without a window: the test's own thread is the thread of the screen. */
class ProtectModelTest extends ModelTest {

    private AppContext context;
    private ProtectModel model;
    private Path folder;

    @BeforeEach
    void open() throws Exception {
        context = new AppContext(UserSettings.open(temp.resolve("home")), Clock.system(ZoneOffset.UTC), screen::add);
        model = new ProtectModel(context);
        folder = Files.createDirectory(temp.resolve("papers"));
        Files.writeString(folder.resolve("a.txt"), "12345");
        Files.writeString(folder.resolve("film.iso"), "1234567890");
    }

    @AfterEach
    void close() {
        context.close();
    }

    @Test
    void nothingChosenIsNotReadyAndSaysWhatToDo() {
        model.folderProperty().set("");
        model.vaultProperty().set("x");
        assertThat(model.readyProperty().get()).isFalse();
        assertThat(model.outlookProperty().get()).contains("Choose the folder");
    }

    @Test
    void theOutlookFollowsWhatIsLeftOut() throws Exception {
        model.folderProperty().set(folder.toString());
        model.vaultProperty().set(temp.resolve("vault").toString());
        until(() -> model.outlookProperty().get().startsWith("2 files, 15 B"));
        model.exclusionsProperty().set("*.iso");
        until(() -> model.outlookProperty().get().startsWith("1 file, 5 B"));
        assertThat(model.outlookProperty().get())
                .contains("protects against mistakes, not against the loss of the drive");
        assertThat(model.readyProperty().get()).isTrue();
    }

    @Test
    void whatCannotBeIsSaidBeforeItIsTried() throws Exception {
        model.vaultProperty().set(temp.resolve("vault").toString());
        model.folderProperty().set(temp.resolve("nowhere").toString());
        until(() -> model.problemProperty().get().contains("is not there"));
        model.folderProperty().set(folder.toString());
        model.exclusionsProperty().set("[");
        until(() -> model.problemProperty().get().contains("cannot be read"));
        assertThat(model.readyProperty().get()).isFalse();
        model.exclusionsProperty().set("");
        until(() -> model.readyProperty().get());
    }

    @Test
    void aFolderIsProtectedAndItsFirstCaptureIsThere() throws Exception {
        model.folderProperty().set(folder.toString());
        model.vaultProperty().set(temp.resolve("vault").toString());
        model.rhythmProperty().set(Rhythm.BY_HAND);
        until(() -> model.readyProperty().get());
        OpenPlace[] openPlace = new OpenPlace[1];
        model.protect(h -> openPlace[0] = h);
        until(() -> openPlace[0] != null);
        assertThat(context.places()).containsExactly(openPlace[0]);
        assertThat(context.settings().vaults()).hasSize(1);
        until(() -> context.overviewProperty().get().space().versions() == 2);
    }

    @Test
    void aVaultThatHoldsOtherThingsIsRefusedAndSaid() throws Exception {
        Path full = Files.createDirectory(temp.resolve("full"));
        Files.writeString(full.resolve("letter.txt"), "dear");
        model.folderProperty().set(folder.toString());
        model.vaultProperty().set(full.toString());
        until(() -> model.readyProperty().get());
        model.protect(h -> {});
        until(() -> model.problemProperty().get().contains("holds other files"));
        assertThat(context.settings().vaults()).isEmpty();
    }

    /** What is chosen beside the folder. */
    private final class Chosen implements ProtectModel.Steps {
        private final List<String> done = new ArrayList<>();
        private String refuses = "";

        @Override
        public synchronized void copy(OpenPlace openPlace, Path to) throws IOException {
            if (!refuses.isEmpty()) {
                throw new IOException(refuses);
            }
            done.add("copy to " + to.getFileName());
        }

        @Override
        public synchronized void keep(OpenPlace openPlace, UsualRules rules) {
            done.add("keep " + rules);
        }

        @Override
        public synchronized void always() {
            done.add("always");
        }

        synchronized List<String> done() {
            return done.stream().sorted().toList();
        }
    }

    private Chosen protectWith(String copy, boolean always, String refuses) throws Exception {
        Chosen chosen = new Chosen();
        chosen.refuses = refuses;
        ProtectModel with = new ProtectModel(context, chosen);
        with.folderProperty().set(folder.toString());
        with.vaultProperty().set(temp.resolve("vault").toString());
        with.rhythmProperty().set(Rhythm.BY_HAND);
        with.copyProperty().set(copy);
        with.alwaysProperty().set(always);
        until(() -> with.readyProperty().get());
        OpenPlace[] openPlace = new OpenPlace[1];
        with.protect(h -> openPlace[0] = h);
        until(() -> openPlace[0] != null);
        return chosen;
    }

    @Test
    void aCopyAndTheServiceBeginOnceTheFolderIsProtected() throws Exception {
        Chosen chosen = protectWith(" " + temp.resolve("attic") + " ", true, "");
        until(() -> chosen.done().equals(List.of("always", "copy to attic")));
        until(() -> context.keptByOthersProperty().get());
    }

    @Test
    void whatShallBeKeptIsARuleOfTheFolderOnceItIsProtected() throws Exception {
        model.folderProperty().set(folder.toString());
        model.vaultProperty().set(temp.resolve("vault").toString());
        model.rhythmProperty().set(Rhythm.BY_HAND);
        model.keepingProperty().set(UsualRules.SHORT);
        until(() -> model.forecastProperty().get().startsWith("2 files of it, 15 B, were changed in the last 30 days"));
        assertThat(model.forecastProperty().get()).contains("about 195 B in a year");
        until(() -> model.readyProperty().get());
        OpenPlace[] openPlace = new OpenPlace[1];
        model.protect(h -> openPlace[0] = h);
        until(() -> openPlace[0] != null);
        until(() -> isRuled(openPlace[0]));
        try (Reading reading = openPlace[0].vault().read()) {
            RuleSet rules = RuleSets.of(reading);
            assertThat(rules.standing()).as("carried out by themselves").isTrue();
            assertThat(rules.rules())
                    .singleElement()
                    .satisfies(r -> assertThat(r.sentence())
                            .contains("papers")
                            .contains("every version for 30 days")
                            .contains("the last of each month for 2 years"));
        }
    }

    private static boolean isRuled(OpenPlace openPlace) {
        try (Reading reading = openPlace.vault().read()) {
            return !RuleSets.of(reading).rules().isEmpty();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Test
    void aFolderInWhichNothingHappensTakesNextToNothing() throws Exception {
        FileTime old = FileTime.from(java.time.Instant.now().minus(java.time.Duration.ofDays(90)));
        Files.setLastModifiedTime(folder.resolve("a.txt"), old);
        Files.setLastModifiedTime(folder.resolve("film.iso"), old);
        model.folderProperty().set(folder.toString());
        model.vaultProperty().set(temp.resolve("vault").toString());
        until(() -> model.forecastProperty().get().startsWith("None of it was changed"));
    }

    @Test
    void whatWasNotChosenIsNotDone() throws Exception {
        Chosen chosen = protectWith("", false, "");
        until(() -> context.overviewProperty().get().space().versions() == 2);
        assertThat(chosen.done()).isEmpty();
    }

    @Test
    void aCopyThatCannotBeginIsSaidAndTheFolderIsProtectedAllTheSame() throws Exception {
        protectWith(temp.resolve("attic").toString(), false, "The drive is full.");
        until(() -> context.noticeProperty().get().words().contains("The drive is full."));
        assertThat(context.noticeProperty().get().words()).startsWith("The folder is protected");
        assertThat(context.places()).hasSize(1);
    }

    @Test
    void foldersThatPeopleHaveAreSuggestedWithWhatIsInThem() throws Exception {
        Path home = Files.createDirectory(temp.resolve("ines"));
        Files.createDirectories(home.resolve(".config"));
        Files.createDirectories(home.resolve("Dokumente/sub"));
        Files.writeString(home.resolve("Dokumente/a.txt"), "12345");
        Files.writeString(home.resolve("Dokumente/sub/b.txt"), "123");
        Files.writeString(home.resolve("Dokumente/.~lock.a.odt#"), "left out anyway");
        Files.createDirectories(home.resolve("Pictures"));
        Files.writeString(
                home.resolve(".config/user-dirs.dirs"),
                "XDG_DESKTOP_DIR=\"$HOME\"\nXDG_DOCUMENTS_DIR=\"$HOME/Dokumente\"\n");
        Map<String, String> environment = Map.of("HOME", home.toString());
        assertThat(FolderSuggestion.of(environment))
                .as("an empty folder and the home itself are none")
                .containsExactly(new FolderSuggestion(home.resolve("Dokumente"), 2, 8));
    }
}
