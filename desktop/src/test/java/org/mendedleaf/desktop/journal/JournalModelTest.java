package org.mendedleaf.desktop.journal;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.desktop.context.AppContextTest;

/** What people did, narrowed down and written into a file, without its scene. */
class JournalModelTest extends AppContextTest {

    private JournalModel restored() throws Exception {
        Line line;
        try (Reading reading = openPlace.vault().read()) {
            line = reading.line(openPlace.place(), "ledger.csv").orElseThrow();
        }
        context.recovery(openPlace)
                .restore(
                        RestoreRequest.restore(
                                List.of(new RestoreItem(line.version(1).orElseThrow(), "ledger.csv")),
                                Collisions.all(Collision.REPLACE)),
                        Progress.NONE);
        JournalModel model = new JournalModel(context);
        model.reload();
        until(() -> model.rowsProperty().get().size() == 2);
        return model;
    }

    @Test
    void anEntryHasItsPlaceItsFilesAndWhetherItCanBeUndone() throws Exception {
        JournalModel.Row row = restored().rowsProperty().get().get(0);
        assertThat(row.place()).isEqualTo("papers");
        assertThat(row.files()).hasSize(1);
        assertThat(row.undoable()).isTrue();
        assertThat(row.entry().words()).isEqualTo("ledger.csv restored");
        context.recovery(openPlace).undo(row.entry().action().orElseThrow(), Progress.NONE);
        JournalModel again = new JournalModel(context);
        again.reload();
        until(() -> again.rowsProperty().get().size() == 3);
        assertThat(again.rowsProperty().get())
                .as("neither the undo nor what was undone")
                .noneMatch(JournalModel.Row::undoable);
    }

    @Test
    void eachFieldNarrowsItAtOnce() throws Exception {
        JournalModel model = restored();
        model.whoProperty().set("nobody");
        until(() -> model.rowsProperty().get().isEmpty());
        model.whoProperty().set("ines");
        until(() -> model.rowsProperty().get().size() == 2);
        model.kindProperty().set("SETTING_CHANGED");
        until(() -> model.rowsProperty().get().size() == 1);
        assertThat(model.rowsProperty().get().get(0).entry().words()).startsWith("protected, captured");
        model.kindProperty().set("REMOVED");
        until(() -> model.rowsProperty().get().isEmpty());
        model.kindProperty().set("RESTORED");
        until(() -> model.rowsProperty().get().size() == 1);
        model.fileProperty().set("plan");
        until(() -> model.rowsProperty().get().isEmpty());
        model.fileProperty().set("");
        model.sinceProperty().set("no such day");
        assertThat(model.problemProperty().get()).contains("is not a moment");
        model.sinceProperty().set("yesterday");
        assertThat(model.problemProperty().get()).isEmpty();
        until(() -> model.rowsProperty().get().size() == 1);
        assertThat(JournalModel.KINDS).contains("", "RESTORED", "MENDED", "HELD");
    }

    @Test
    void whatIsShownIsWrittenIntoANewFileOnly() throws Exception {
        JournalModel model = restored();
        Path csv = temp.resolve("out.csv");
        boolean[] done = {false};
        model.export(csv, () -> done[0] = true);
        until(() -> done[0]);
        assertThat(Files.readAllLines(csv)).hasSize(3).anyMatch(l -> l.contains("ledger.csv"));
        model.export(csv, () -> done[0] = false);
        until(() -> model.problemProperty().get().contains("nothing was written"));
        Path lines = temp.resolve("out.jsonl");
        model.export(lines, () -> done[0] = false);
        until(() -> !done[0]);
        assertThat(Files.readString(lines)).startsWith("{\"at\"");
    }
}
