package org.mendedleaf.desktop.retention;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.retention.RuleFile;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.desktop.context.AppContextTest;

/** What is kept and what goes, holds, and thinning, without their scenes. */
class RetentionModelTest extends AppContextTest {

    private static final RuleSet NEWEST_ONLY =
            RuleFile.read("rules:\n  - name: Newest\n    everything: P1Y\n    atMost: 1\ngrace: P3D\n");

    private final List<String> said = new ArrayList<>();

    /** Eight more versions of the ledger, one a day until yesterday. */
    private void history() throws IOException {
        for (int i = 1; i <= 8; i++) {
            Instant at = Instant.now().minus(Duration.ofHours(12 - i));
            save("ledger.csv", "kind,kilos\nKaty," + (400 + i) + "\n", at);
            new Capture(openPlace.vault(), openPlace.place(), Clock.fixed(at, ZoneOffset.UTC), (p, o) -> "Tomas")
                    .run(CaptureScope.WHOLE, Progress.NONE);
        }
    }

    private Line ledger() throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            return reading.line(openPlace.place(), "ledger.csv").orElseThrow();
        }
    }

    private RetentionModel model() throws Exception {
        RetentionModel model = new RetentionModel(context);
        model.reload();
        until(() -> model.pictureProperty().get() != null
                && model.proposal().effectProperty().get() != null);
        return model;
    }

    private void proposed(RetentionModel model, RuleSet rules) throws InterruptedException {
        RuleProposal.Effect before = model.proposal().effectProperty().get();
        model.proposal().propose(rules);
        until(() -> model.proposal().effectProperty().get() != before);
    }

    @Test
    void withoutRulesNothingGoesAndTheSpaceIsThatOfTheVersions() throws Exception {
        history();
        RetentionModel model = model();
        assertThat(model.proposal().proposedProperty().get()).isEqualTo(RuleSet.NONE);
        assertThat(model.proposal().isChanged()).isFalse();
        assertThat(model.proposal().effectProperty().get().plan().going().cardinality())
                .isZero();
        assertThat(model.pictureProperty().get().removed())
                .extracting(r -> r.path())
                .containsExactly("sub/deep/note.txt");
        until(() -> model.proposal().effectProperty().get().ahead().isPresent());
    }

    @Test
    void aReportIsOfOnePlaceOrOfAll() throws Exception {
        history();
        RetentionModel model = model();
        assertThat(model.places()).containsExactly(openPlace.place());
        assertThat(report(model, openPlace.place().id(), "one.json"))
                .contains(openPlace.place().where())
                .contains("ledger.csv");
        assertThat(report(model, 0, "all.json"))
                .doesNotContain(openPlace.place().where())
                .contains("ledger.csv");
        assertThat(report(model, 4711, "none.json")).doesNotContain("ledger.csv");
    }

    private String report(RetentionModel model, long place, String name) throws Exception {
        File file = temp.resolve(name).toFile();
        model.report(place, "", file.toPath());
        until(() -> model.messageProperty().get().contains(name));
        return Files.readString(file.toPath());
    }

    @Test
    void whatRulesWouldDoIsKnownBeforeTheyCount() throws Exception {
        history();
        RetentionModel model = model();
        proposed(model, NEWEST_ONLY);
        assertThat(model.proposal().isChanged()).isTrue();
        int would = model.proposal().effectProperty().get().plan().going().cardinality();
        assertThat(would).as("all but the newest of the ledger").isEqualTo(9);
        assertThat(ledger().versions()).hasSize(10);
        model.proposal().revert();
        assertThat(model.proposal().isChanged()).isFalse();
        until(() -> model.proposal().effectProperty().get().plan().going().cardinality() == 0);
        proposed(model, NEWEST_ONLY);
        model.proposal().use();
        until(() -> !model.messageProperty().get().isEmpty());
        assertThat(model.messageProperty().get()).isEqualTo("These rules count from now on.");
        until(() -> !model.proposal().isChanged());
        assertThat(model.pictureProperty().get().rules()).isEqualTo(NEWEST_ONLY);
        assertThat(ledger().versions()).as("to set rules lets nothing go").hasSize(10);
    }

    @Test
    void thinningIsLimitedPlannedCarriedOutAndTakenBack() throws Exception {
        history();
        RetentionModel model = model();
        proposed(model, NEWEST_ONLY);
        ThinModel thin = new ThinModel(model, Optional.empty(), ThinPlan.Limits.RULES);
        until(() -> thin.planProperty().get() != null);
        assertThat(thin.planProperty().get().going().cardinality()).isEqualTo(9);
        assertThat(thin.scopes().all(thin.limitsProperty().get()))
                .extracting(thin.scopes()::words)
                .containsExactly("everywhere", "papers");
        thin.in(openPlace.place().id(), "sub");
        until(() -> thin.planProperty().get() != null);
        assertThat(thin.planProperty().get().going().cardinality())
                .as("nothing of it lies there")
                .isZero();
        thin.in(0, "");
        thin.keepLast(4);
        until(() -> thin.planProperty().get() != null);
        assertThat(thin.planProperty().get().going().cardinality()).isEqualTo(6);
        LocalDate tomorrow = LocalDate.now(context.zone()).plusDays(1);
        thin.days(Optional.empty(), Optional.of(tomorrow.minusDays(30)));
        until(() -> thin.planProperty().get() != null);
        assertThat(thin.planProperty().get().going().cardinality())
                .as("the ledger was changed after that")
                .isZero();
        thin.days(Optional.empty(), Optional.empty());
        until(() -> thin.planProperty().get() != null);
        thin.go();
        assertThat(thin.isStarted()).isTrue();
        until(() -> thin.wordsProperty().get().contains("6 versions were let go"));
        until(() -> model.pictureProperty().get().waiting().size() == 6);
        thin.go();
        File report = temp.resolve("thinned.csv").toFile();
        thin.report(report);
        until(() -> model.messageProperty().get().contains("thinned.csv"));
        assertThat(Files.readString(report.toPath())).contains("ledger.csv");
        model.takeBack(model.pictureProperty().get().waiting().get(0).journal());
        until(() -> model.pictureProperty().get().waiting().isEmpty());
        assertThat(ledger().versions()).hasSize(10);
    }

    private HoldModel hold(String version) throws Exception {
        Line line = ledger();
        return new HoldModel(
                context, openPlace, Hold.ofFile(openPlace.place(), line, version.isEmpty() ? 0 : 1), version);
    }

    @Test
    void whatCanBeHeldIsOfferedFromTheVersionToThePlace() throws Exception {
        HoldModel hold = hold("1");
        assertThat(hold.choices())
                .extracting(hold::words)
                .containsExactly("Version 1 of ledger.csv", "All versions of ledger.csv", "Everything in papers");
        assertThat(hold.heading()).isEqualTo("Hold ledger.csv");
        assertThat(Hold.ofFolder(openPlace.place(), "sub/deep"))
                .extracting(Hold::path)
                .containsExactly("sub/deep", "sub", "");
        assertThat(hold("").choices()).as("of a file there is no version").hasSize(2);
    }

    @Test
    void aHoldWantsAReasonSaysWhatItKeepsAndKeepsIt() throws Exception {
        history();
        HoldModel hold = hold("1");
        until(() -> hold.effectProperty().get() != null);
        assertThat(hold.effectWords()).startsWith("1 version of 1 file is kept by it");
        hold.hold(said::add);
        assertThat(hold.problemProperty().get()).isEqualTo("A hold needs a reason.");
        hold.whatProperty().set(hold.choices().get(1));
        assertThat(hold.effectProperty().get()).as("it is weighed anew").isNull();
        until(() -> hold.effectProperty().get() != null);
        assertThat(hold.effectWords()).startsWith("10 versions of 1 file are kept by it");
        hold.reasonProperty().set("court case");
        assertThat(hold.problemProperty().get()).isEmpty();
        hold.lastDayProperty().set(hold.today().plusDays(10));
        hold.hold(said::add);
        until(() -> !said.isEmpty());
        assertThat(said.get(0)).startsWith("All versions of ledger.csv: held until ");
        RetentionModel model = model();
        proposed(model, NEWEST_ONLY);
        assertThat(model.proposal().effectProperty().get().plan().going().cardinality())
                .as("what is held does not go")
                .isZero();
        Hold standing = model.pictureProperty().get().holds().get(0);
        assertThat(standing.reason()).isEqualTo("court case");
        List<ThinPlan> without = new ArrayList<>();
        model.without(standing, without::add);
        until(() -> !without.isEmpty());
        assertThat(without.get(0).going().cardinality()).as("without the hold").isEqualTo(0);
        model.lift(standing);
        until(() -> model.pictureProperty().get().holds().isEmpty());
        until(() -> model.proposal().effectProperty().get().plan().going().cardinality() == 9);
    }

    @Test
    void aHoldThatWouldEndInThePastIsRefused() throws Exception {
        HoldModel hold = hold("1");
        hold.reasonProperty().set("too late");
        hold.lastDayProperty().set(hold.today().minusDays(2));
        hold.hold(said::add);
        until(() -> !hold.problemProperty().get().isEmpty());
        assertThat(hold.problemProperty().get()).isEqualTo("A hold cannot end in the past.");
        assertThat(said).isEmpty();
    }

    @Test
    void removedFilesAreBroughtBackOrLetGo() throws Exception {
        RetentionModel model = model();
        List<RemovedFiles.Erased> told = new ArrayList<>();
        model.removedFiles().beforeErasing(model.pictureProperty().get().removed(), told::add);
        until(() -> !told.isEmpty());
        assertThat(told.get(0).rows().cardinality()).isEqualTo(1);
        assertThat(told.get(0).freedBytes()).isPositive();
        model.removedFiles().bringBack(model.pictureProperty().get().removed());
        until(() -> Files.exists(folder.resolve("sub/deep/note.txt")));
        until(() -> model.pictureProperty().get().removed().isEmpty());
        assertThat(folder.resolve("sub/deep/note.txt")).hasContent("a note");
    }
}
