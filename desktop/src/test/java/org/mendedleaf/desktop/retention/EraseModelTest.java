package org.mendedleaf.desktop.retention;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.protection.FolderRulesModel;

/** What erasing would do is said before it is done. */
class EraseModelTest extends AppContextTest {

    private Line line(String path) throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            return reading.line(openPlace.place(), path).orElseThrow();
        }
    }

    private EraseModel erase(Erasing.What what, int number) throws Exception {
        EraseModel model = new EraseModel(context, openPlace, line("ledger.csv"), what, number);
        until(() -> model.consequencesProperty().get() != null
                || !model.problemProperty().get().isEmpty());
        return model;
    }

    @Test
    void whatWouldBeLostIsSaidInSentencesAndNothingIsDoneYet() throws Exception {
        EraseModel model = erase(Erasing.What.VERSION, 1);
        assertThat(model.heading()).contains("ledger.csv");
        assertThat(model.words()).isNotEmpty();
        assertThat(line("ledger.csv").versions()).hasSize(2);
    }

    @Test
    void erasingLetsTheVersionGoAndSaysUntilWhenItCanBeTakenBack() throws Exception {
        EraseModel model = erase(Erasing.What.VERSION, 1);
        List<String> said = new ArrayList<>();
        model.erase(said::add);
        until(() -> !said.isEmpty());
        assertThat(said.get(0)).contains("ledger.csv");
        try (Reading reading = openPlace.vault().read()) {
            assertThat(PendingDeletionStore.of(reading).waiting())
                    .as("it waits until its grace ends")
                    .anyMatch(p -> p.number() == 1);
        }
    }

    @Test
    void whoMayNotEraseIsToldSoAndNothingGoes() throws Exception {
        FolderRulesModel rules = new FolderRulesModel(context, openPlace);
        until(() -> rules.rulesProperty().get() != null);
        rules.member("Ines", Role.OWNER);
        until(() -> rules.rulesProperty().get().settings().members().size() == 1);
        rules.member("Tomas", Role.EDITOR);
        until(() -> rules.rulesProperty().get().settings().members().size() == 2);
        context.settings().workAs("Tomas");
        EraseModel model = erase(Erasing.What.VERSION, 1);
        List<String> said = new ArrayList<>();
        model.erase(said::add);
        until(() -> !model.problemProperty().get().isEmpty());
        assertThat(said).isEmpty();
        assertThat(model.problemProperty().get()).contains("Tomas");
    }
}
