package org.mendedleaf.desktop.mend;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.desktop.context.AppContextTest;

/** What looks wrong, and mending it, without its scene. */
class MendModelTest extends AppContextTest {

    private static final String ROTA = "On Monday Ines sees to the press and Tomas to the hives.\n".repeat(12);

    private final List<String> said = new ArrayList<>();

    private void capture() throws IOException {
        new Capture(openPlace.vault(), openPlace.place(), Clock.systemUTC(), (p, o) -> "Tomas")
                .run(CaptureScope.WHOLE, Progress.NONE);
    }

    /** A rota that was emptied, and what the model says of it. */
    private MendModel emptied() throws Exception {
        save("rota.txt", ROTA, Instant.now().minusSeconds(900));
        capture();
        save("rota.txt", "", Instant.now().minusSeconds(100));
        capture();
        MendModel model = new MendModel(context);
        model.look();
        until(() -> model.openProperty().get() == 1);
        return model;
    }

    @Test
    void aFindingIsChosenByItselfAndItsPlanIsMadeOnceItIsShown() throws Exception {
        MendModel model = emptied();
        assertThat(model.chosenProperty().get().finding().words()).isEqualTo("rota.txt was emptied");
        model.comeBack();
        until(() -> model.planProperty().get() != null);
        assertThat(model.planProperty().get().plan().bytes()).isEqualTo(ROTA.length());
        assertThat(model.planProperty().get().days()).isNotEmpty();
        assertThat(model.pictureProperty().get().looked()).isPresent();
        assertThat(model.pictureProperty().get().pausing()).as("it is one file").isFalse();
    }

    @Test
    void aPlanThatNobodyLooksAtIsNotMadeAndNotKept() throws Exception {
        MendModel model = emptied();
        model.comeBack();
        until(() -> model.planProperty().get() != null);
        model.leave();
        assertThat(model.planProperty().get()).isNull();
        model.reload();
        capture();
        until(() -> model.pictureProperty().get().looked().isPresent());
        whatIsUnderWay();
        assertThat(model.planProperty().get()).as("nobody sees it").isNull();
        model.comeBack();
        until(() -> model.planProperty().get() != null);
        assertThat(model.planProperty().get().plan().bytes()).isEqualTo(ROTA.length());
    }

    /** Waits for what was asked before. */
    private void whatIsUnderWay() throws Exception {
        List<String> answers = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            context.background().run(() -> "", answers::add, e -> answers.add("failed"));
        }
        until(() -> answers.size() == 6);
    }

    @Test
    void mendingBringsTheFileBackAndSaysSo() throws Exception {
        MendModel model = emptied();
        model.mend((words, undo) -> said.add(words + (undo ? " (undo)" : "")));
        until(() -> !said.isEmpty());
        assertThat(said).containsExactly("1 file mended. (undo)");
        assertThat(folder.resolve("rota.txt")).hasContent(ROTA);
        until(() -> model.openProperty().get() == 0
                && !model.pictureProperty().get().dealt().isEmpty());
        assertThat(model.pictureProperty().get().dealt())
                .extracting(r -> r.listed().state())
                .containsExactly(Findings.State.MENDED);
        model.mend((words, undo) -> said.add("twice"));
        assertThat(said).as("there is nothing to mend").hasSize(1);
    }

    @Test
    void whatIsThereNowStandsBesideTheLastGoodVersion() throws Exception {
        MendModel model = emptied();
        Pair pair = model.pair(model.chosenProperty().get(), 0);
        assertThat(pair.before().orElseThrow().content()).isEmpty();
        assertThat(pair.after().orElseThrow().content())
                .asString(StandardCharsets.UTF_8)
                .isEqualTo(ROTA);
        Files.delete(folder.resolve("rota.txt"));
        assertThat(model.pair(model.chosenProperty().get(), 0).before()).isEmpty();
    }

    @Test
    void itIsFineForThisFileFromNowOnUntilThatIsTakenBack() throws Exception {
        MendModel model = emptied();
        model.fine(MendModel.Reach.FILE, "it is emptied each year", (words, undo) -> said.add(words));
        until(() -> model.openProperty().get() == 0
                && !model.pictureProperty().get().dealt().isEmpty());
        assertThat(said).containsExactly("Fine: rota.txt was emptied");
        MendModel.Row dealt = model.pictureProperty().get().dealt().get(0);
        assertThat(dealt.listed().state()).isEqualTo(Findings.State.FINE);
        model.chosenProperty().set(dealt);
        model.reopen();
        until(() -> model.openProperty().get() == 1);
    }

    @Test
    void whereNothingIsWrongNothingIsChosen() throws Exception {
        MendModel model = new MendModel(context);
        model.look();
        until(() -> model.pictureProperty().get().looked().isPresent());
        assertThat(model.openProperty().get()).isZero();
        assertThat(model.chosenProperty().get()).isNull();
        model.mend((words, undo) -> said.add(words));
        model.fine(MendModel.Reach.ONCE, "nothing", (words, undo) -> said.add(words));
        model.reopen();
        assertThat(said).isEmpty();
    }

    @Test
    void aFolderThatIsGoneIsAWarning() throws Exception {
        MendModel model = new MendModel(context);
        Files.move(folder, folder.resolveSibling("moved away"));
        model.reload();
        until(() -> !model.pictureProperty().get().warnings().isEmpty());
        assertThat(model.pictureProperty().get().warnings().get(0).words()).contains("papers");
    }

    @Test
    void aCopyOfTheVaultThatIsAwayIsAWarning() throws Exception {
        Path copy = temp.resolve("drive");
        Copies copies = new Copies(context.vaults().values().iterator().next(), context.clock(), "Ines");
        copies.run(copies.add(copy).copy(), Progress.NONE);
        save("rota.txt", ROTA, Instant.now().minusSeconds(900));
        capture();
        MendModel model = new MendModel(context);
        model.reload();
        until(() -> model.pictureProperty().get().check().length() > 0);
        assertThat(model.pictureProperty().get().warnings()).isEmpty();
        Files.move(copy, temp.resolve("away"));
        model.reload();
        until(() -> !model.pictureProperty().get().warnings().isEmpty());
        assertThat(model.pictureProperty().get().warnings().get(0).words()).contains("drive", "is away");
    }
}
