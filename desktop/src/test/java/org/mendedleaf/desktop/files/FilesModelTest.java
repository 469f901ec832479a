package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.context.Navigator;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.context.PutService;

/** The Files screen without its scene, in the past. */
class FilesModelTest extends AppContextTest {

    private FilesModel files() throws Exception {
        FilesModel files = new FilesModel(context);
        files.open(openPlace, "");
        until(() -> !files.listingProperty().get().top().isEmpty());
        return files;
    }

    private static Optional<FileRow> row(FilesModel files, String folder, String name) {
        return files.listingProperty().get().rows().getOrDefault(folder, List.of()).stream()
                .filter(r -> r.entry().name().equals(name))
                .findFirst();
    }

    @Test
    void thePastIsMarkedAgainstNowAndFoldersSumItUp() throws Exception {
        FilesModel files = files();
        files.momentProperty().set(between());
        until(() -> !files.listingProperty().get().since().isNothing());
        assertThat(files.listingProperty().get().since()).isEqualTo(new ChangesSince(1, 1, 1, 0));
        assertThat(row(files, "", "ledger.csv").orElseThrow().against()).isEqualTo(FileRow.Change.CHANGED);
        assertThat(row(files, "", "sub").orElseThrow().since().words()).isEqualTo("1 removed, 1 added");
        files.unfold("sub", true);
        until(() -> row(files, "sub", "new.txt").isPresent());
        assertThat(row(files, "sub", "new.txt").orElseThrow().isAdded()).isTrue();
        assertThat(row(files, "sub", "plan.txt").orElseThrow().against()).isEqualTo(FileRow.Change.SAME);
        files.showAddedProperty().set(false);
        until(() -> row(files, "sub", "new.txt").isEmpty());
        files.momentProperty().set(null);
        until(() -> files.listingProperty().get().since().isNothing());
    }

    @Test
    void ticksBelongToOneMomentAndLeadToAPlan() throws Exception {
        FilesModel files = files();
        List<Navigator.What> led = new ArrayList<>();
        files.routes().setNavigator(new Navigator() {
            @Override
            public void plan(What what) {
                led.add(what);
            }

            @Override
            public void compare(
                    OpenPlace of, String folderPath, java.time.@org.jspecify.annotations.Nullable Instant from) {}

            @Override
            public void snapshots(OpenPlace of, String folderPath) {}

            @Override
            public void guard(PutService.Doubt doubt) {}

            @Override
            public void intake(OpenPlace of, List<Path> files, String folderPath) {}

            @Override
            public void fold(OpenPlace of, String folderPath) {}

            @Override
            public void strays(OpenPlace of, String folderPath) {}

            @Override
            public void erase(
                    OpenPlace of,
                    org.mendedleaf.core.line.Line line,
                    org.mendedleaf.core.retention.Erasing.What what,
                    int number) {}

            @Override
            public void hold(OpenPlace openPlace, List<org.mendedleaf.core.line.Hold> choices, String version) {}
        });
        files.routes().recover();
        assertThat(led).as("nothing is chosen").isEmpty();
        files.tickAll();
        assertThat(files.ticks().paths()).containsExactly("ledger.csv", "sub");
        files.routes().recover();
        files.routes().rollBack();
        assertThat(led).as("now is not rolled back to").hasSize(1);
        files.tickAll();
        assertThat(files.ticks().paths()).isEmpty();
        files.momentProperty().set(between());
        until(() -> !files.listingProperty().get().since().isNothing());
        files.tick(row(files, "", "sub").orElseThrow(), true);
        files.routes().rollBack();
        assertThat(led.get(1).paths()).containsExactly("sub");
        assertThat(led.get(1).rollBack()).isTrue();
        files.momentProperty().set(null);
        assertThat(files.ticks().paths()).isEmpty();
    }

    @Test
    void aJobWorksOnWhatWasChosenWhenItWasAskedForWhateverIsChosenMeanwhile() throws Exception {
        FilesModel files = files();
        choose(files, "", "ledger.csv");
        var first = files.line().lineProperty().get().version("1").orElseThrow();
        CountDownLatch busy = new CountDownLatch(1);
        context.jobs()
                .start(
                        "something long",
                        progress -> {
                            busy.await();
                            return "";
                        },
                        done -> {},
                        e -> {});

        files.restore(first);
        files.unfold("sub", true);
        until(() -> row(files, "sub", "new.txt").isPresent());
        choose(files, "sub", "new.txt");
        busy.countDown();

        until(() -> files.messageProperty().get().words().startsWith("ledger.csv: version 1 is current again"));
        assertThat(Files.readString(folder.resolve("sub/new.txt"))).isEqualTo("came later");
        files.undo();
        until(() -> files.messageProperty().get().offer() == Offer.REDO);
        assertThat(files.messageProperty().get().words()).startsWith("Undone: ledger.csv");
        files.redo();
        until(() -> files.messageProperty().get().undo());
        assertThat(files.messageProperty().get().words()).startsWith("Done again: ");
        assertThat(folder.resolve("ledger.csv")).hasContent("kind,kilos\nKaty,412\n");
    }

    private void choose(FilesModel files, String folder, String name) throws InterruptedException {
        files.select(row(files, folder, name).orElseThrow());
        until(() -> files.line().lineProperty().get() != null
                && files.line().lineProperty().get().name().equals(name));
    }

    @Test
    void aTypedMomentIsUnderstoodHereOrRefusedInWords() throws Exception {
        FilesModel files = files();
        assertThat(files.steps().understand("before the last change"))
                .isAfter(then)
                .isBefore(later.plusSeconds(10));
        assertThatThrownBy(() -> files.steps().understand("2 weeks ago"))
                .hasMessageContaining("before anything is known");
        assertThatThrownBy(() -> files.steps().understand("sometime")).hasMessageContaining("not a moment");
    }
}
