package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.Outcome;

/** Moments, snapshots, comparing, rolling back and archives, as typed by a user. */
class MomentsCommandLineTest extends TerminalTest {

    private String ledger;

    /** Two files, then a change, a removal and a new one. */
    private void history() throws IOException {
        ledger = save("Seasons/ledger.csv", "kind,kilos\nKaty,412\n");
        save("Seasons/old.txt", "goes");
        protect();
        later(60);
        save("Seasons/ledger.csv", "saved over by a letter");
        Files.delete(desk.resolve("Seasons/old.txt"));
        save("Seasons/new.txt", "came later");
        assertThat(run("capture", desk.toString())).isZero();
    }

    private String folder() {
        return desk.resolve("Seasons").toString();
    }

    @Test
    void momentsAreTypedInWords() throws IOException {
        history();
        later(20);
        assertThat(run("list", folder(), "--at", "before the last change")).isZero();
        assertThat(out).as("the removal was found last").contains("old.txt").contains("new.txt");
        assertThat(run("list", folder(), "--at", "50 minutes ago")).isZero();
        assertThat(out).contains("old.txt").doesNotContain("new.txt");
        assertThat(run("list", folder(), "--at", "tonight")).isEqualTo(2);
        assertThat(err).contains("has not come yet");
        assertThat(run("list", folder(), "--at", "last year")).isEqualTo(2);
        assertThat(err).contains("stretch of time");
        assertThat(run("list", folder(), "--at", "yesterday")).isEqualTo(2);
        assertThat(err).contains("before anything is known");
    }

    @Test
    void snapshotsAreTakenListedNamedHeldErasedAndUndone() throws IOException {
        history();
        JsonNode taken = json("snapshot", "take", folder(), "--label", "before pressing");
        String id = taken.get("id").asText();
        later(5);
        save("Seasons/ledger.csv", "after");
        assertThat(run("capture", desk.toString())).isZero();
        assertThat(run("list", folder(), "--at", "snapshot before pressing")).isZero();
        assertThat(run("restore", ledger, "--at", "snapshot before pressing")).isZero();
        assertThat(desk.resolve("Seasons/ledger.csv")).hasContent("saved over by a letter");
        assertThat(run("snapshot", "rename", folder(), id, "pressing 2026")).isZero();
        assertThat(run("snapshot", "hold", folder(), "pressing 2026", "--reason", "audit"))
                .isZero();
        assertThat(run("snapshot", "erase", folder(), id)).isEqualTo(2);
        assertThat(err).contains("is held: audit");
        assertThat(run("snapshot", "hold", folder(), id)).isEqualTo(2);
        assertThat(run("snapshot", "hold", folder(), id, "--reason", "audit", "--until", "10 years"))
                .isZero();
        assertThat(out).contains("is held until").contains(": audit");
        assertThat(json("snapshot", "list", folder()).get(0).get("holdUntil").asText())
                .isNotEmpty();
        assertThat(run("snapshot", "hold", folder(), id, "--end")).isZero();
        JsonNode listed = json("snapshot", "list", folder()).get(0);
        assertThat(listed.get("label").asText()).isEqualTo("pressing 2026");
        assertThat(listed.get("files").asInt()).isEqualTo(2);
        assertThat(run("snapshot", "list", folder())).isZero();
        assertThat(out).contains("pressing 2026").contains("2 files");
        assertThat(run("snapshot", "erase", folder(), id)).as("without a yes").isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(json("snapshot", "list", folder())).hasSize(1);
        assertThat(run("snapshot", "erase", folder(), id, "--plan")).isZero();
        assertThat(json("snapshot", "list", folder())).hasSize(1);
        assertThat(run("snapshot", "erase", folder(), id, "--yes")).isZero();
        assertThat(out).contains("undo brings it back");
        assertThat(run("snapshot", "rename", folder(), id, "x")).isEqualTo(2);
        assertThat(run("undo")).isZero();
        assertThat(run("snapshot", "list", folder())).isZero();
        assertThat(out).contains("pressing 2026");
    }

    @Test
    void schedulesAreMadeListedExportedImportedAndEnded() throws IOException {
        history();
        assertThat(run("snapshot", "schedule", folder(), "--daily", "18:00", "--keep", "14", "--label", "evening"))
                .isZero();
        assertThat(out).contains("every day at 18:00, the last 14 are kept").contains("next: ");
        assertThat(run("snapshot", "schedule", folder(), "--rule", "FREQ=SOMETIMES"))
                .isEqualTo(2);
        assertThat(err).contains("no recurrence rule");
        assertThat(run("snapshot", "schedule", folder(), "--daily", "25:00")).isEqualTo(2);
        Path file = temp.resolve("snapshots.ics");
        assertThat(run("snapshot", "schedule", folder(), "--export", file.toString()))
                .isZero();
        assertThat(file).content().contains("RRULE:FREQ=DAILY");
        assertThat(run("snapshot", "schedule", folder(), "--export", file.toString()))
                .as("what is there is not written over")
                .isEqualTo(1);
        long id = json("snapshot", "schedule", folder()).get(0).get("id").asLong();
        assertThat(run("snapshot", "schedule", folder(), "--end", String.valueOf(id)))
                .isZero();
        assertThat(out).contains("No snapshots are taken at set times");
        assertThat(run("snapshot", "schedule", folder(), "--import", file.toString()))
                .isZero();
        assertThat(out).contains("every day at 18:00").contains("evening");
    }

    @Test
    void twoMomentsAreComparedAndWrittenAsCsv() throws IOException {
        history();
        Path csv = temp.resolve("changes.csv");
        assertThat(run("compare", folder(), "--from", "50 minutes ago", "--csv", csv.toString()))
                .isZero();
        assertThat(out).contains("1 added, 1 removed, 1 changed; ");
        assertThat(csv).content().contains("REMOVED,,Seasons/old.txt,1,,4,").startsWith("change,path,");
        JsonNode changes = json("compare", folder(), "--from", "50 minutes ago", "--to", "now")
                .get("changes");
        assertThat(changes.findValuesAsText("change")).containsExactly("CHANGED", "ADDED", "REMOVED");
        assertThat(run("compare", folder(), "--from", "now", "--to", "50 minutes ago"))
                .isEqualTo(2);
        assertThat(run("compare", folder(), "--from", "now")).isZero();
        assertThat(out).contains("Nothing differs.");
    }

    @Test
    void aFolderIsRolledBackAsAPlanFirstAndUndoneFromAList() throws IOException {
        history();
        assertThat(run("rollback", folder(), "--at", "50 minutes ago", "--later", "remove", "--plan"))
                .isZero();
        assertThat(out).contains("replace    Seasons/ledger.csv").contains("remove     Seasons/new.txt");
        assertThat(desk.resolve("Seasons/new.txt")).as("a plan does nothing").exists();
        assertThat(run("rollback", folder(), "--at", "50 minutes ago", "--later", "remove"))
                .isZero();
        assertThat(desk.resolve("Seasons/ledger.csv")).content().contains("Katy,412");
        assertThat(desk.resolve("Seasons/old.txt")).hasContent("goes");
        assertThat(desk.resolve("Seasons/new.txt")).doesNotExist();
        assertThat(run("rollback", folder(), "--at", "52 minutes ago")).isZero();
        assertThat(out).contains("Everything is as it was then");
        assertThat(run("rollback", folder(), "--at", "50 minutes ago", "--later", "ask"))
                .isEqualTo(2);
        assertThat(run("undo", "--list")).isZero();
        assertThat(out).contains("3 files rolled back");
        long action = json("undo", "--list").get(0).get("action").asLong();
        assertThat(run("undo", "--action", "4711")).isEqualTo(2);
        assertThat(run("undo", "--action", String.valueOf(action))).isZero();
        assertThat(desk.resolve("Seasons/ledger.csv")).hasContent("saved over by a letter");
        assertThat(desk.resolve("Seasons/new.txt")).hasContent("came later");
        assertThat(desk.resolve("Seasons/old.txt")).doesNotExist();
    }

    @Test
    void aFolderOfTheMomentGoesIntoAZipAndABag() throws IOException {
        history();
        Path zip = temp.resolve("seasons.zip");
        assertThat(run("restore", folder(), "--at", "50 minutes ago", "--to", zip.toString()))
                .isZero();
        assertThat(out).contains("old.txt: version 1 is written").doesNotContain("version 0");
        try (ZipFile file = new ZipFile(zip.toFile())) {
            assertThat(file.stream().map(e -> e.getName()))
                    .containsExactlyInAnyOrder("Seasons/", "Seasons/ledger.csv", "Seasons/old.txt");
        }
        assertThat(run("restore", folder(), "--at", "50 minutes ago", "--to", zip.toString()))
                .isEqualTo(1);
        assertThat(err).contains("already");
        Path bag = temp.resolve("bag");
        assertThat(run("restore", folder(), "--at", "50 minutes ago", "--to", bag.toString(), "--as", "bag", "--plan"))
                .isZero();
        assertThat(bag).doesNotExist();
        assertThat(run("restore", folder(), "--at", "50 minutes ago", "--to", bag.toString(), "--as", "bag"))
                .isZero();
        assertThat(bag.resolve("data/Seasons/old.txt")).hasContent("goes");
        assertThat(bag.resolve("bagit.txt")).content().startsWith("BagIt-Version: 1.0");
        assertThat(run("restore", folder(), "--at", "50 minutes ago", "--as", "bag"))
                .isEqualTo(2);
        assertThat(run("restore", folder(), "--at", "50 minutes ago", "--to", bag.toString(), "--as", "tar"))
                .isEqualTo(2);
    }

    @Test
    void whatIsThereGivesWayToWhatIsRestoredWhenTheOtherIsRenamed() throws IOException {
        history();
        assertThat(run("restore", ledger, "--version", "1", "--on-collision", "rename-other"))
                .isZero();
        assertThat(desk.resolve("Seasons/ledger.csv")).content().contains("Katy,412");
        assertThat(desk.resolve("Seasons/ledger (2).csv")).hasContent("saved over by a letter");
        assertThat(run("undo")).isZero();
        assertThat(desk.resolve("Seasons/ledger (2).csv")).doesNotExist();
        assertThat(List.of(desk.resolve("Seasons/ledger.csv")))
                .allSatisfy(f -> assertThat(f).hasContent("saved over by a letter"));
    }
}
