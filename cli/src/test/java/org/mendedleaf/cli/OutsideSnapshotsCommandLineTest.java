package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.Outcome;
import org.mendedleaf.standins.StandIns;

/** Snapshots of a file server, from the command line: taken, listed and erased there, and nothing that only they hold is lost. */
class OutsideSnapshotsCommandLineTest extends TerminalTest {

    private StandIns outside;

    @BeforeEach
    void share() throws IOException {
        outside = new StandIns(temp.resolve("outside"), "ines");
        assertThat(run(
                        "connect",
                        "Server",
                        outside.files().address(),
                        "--token",
                        outside.files().token("ines"),
                        "--vault",
                        temp.resolve("vault").toString()))
                .as(err)
                .isZero();
        assertThat(run("place", "create", "Server:share")).as(err).isZero();
    }

    @AfterEach
    void end() throws IOException {
        outside.close();
    }

    private void put(String text) throws IOException {
        Path file = Files.writeString(temp.resolve("plan.txt"), text);
        assertThat(run("put", file.toString(), "--as", "Server:share/plan.txt", "--yes"))
                .as(err)
                .isZero();
    }

    private String only() throws IOException {
        JsonNode all = json("snapshot", "list", "Server:share");
        assertThat(all).hasSize(1);
        return all.get(0).path("id").asText();
    }

    @Test
    void withoutOneThatIsSaid() throws IOException {
        assertThat(run("snapshot", "list", "Server:share")).isZero();
        assertThat(out).contains("no snapshot of Server:share yet");
        assertThat(json("snapshot", "list", "Server:share")).isEmpty();
    }

    @Test
    void oneIsTakenThereAndListed() throws IOException {
        put("the plan\n");
        assertThat(run("snapshot", "take", "Server:share")).as(err).isZero();
        assertThat(run("snapshot", "list", "Server:share")).isZero();
        assertThat(out.lines()).hasSize(1);
        assertThat(json("snapshot", "list", "Server:share").get(0).path("at").asText())
                .isNotEmpty();
    }

    @Test
    void whatOnlyItHeldIsInTheVaultBeforeItIsErased() throws IOException {
        put("the plan as it was\n");
        assertThat(run("snapshot", "take", "Server:share")).as(err).isZero();
        put("another plan altogether\n");
        String id = only();
        assertThat(run("snapshot", "erase", "Server:share", id, "--plan"))
                .as(err)
                .isZero();
        assertThat(out).contains("would be erased in Server:share").contains("cannot be undone there");
        assertThat(run("snapshot", "erase", "Server:share", id)).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(only()).as("without a yes nothing happens").isEqualTo(id);
        assertThat(run("snapshot", "erase", "Server:share", id, "--yes"))
                .as(err)
                .isZero();
        assertThat(out).contains("is erased. 1 version that only it held is in the vault now.");
        assertThat(json("snapshot", "list", "Server:share")).isEmpty();
        assertThat(run("preview", "Server:share/plan.txt", "--version", "1"))
                .as(err)
                .isZero();
        assertThat(out).contains("the plan as it was");
    }

    @Test
    void whatIsSetInThatSystemIsRefusedHereInWords() throws IOException {
        put("the plan\n");
        assertThat(run("snapshot", "take", "Server:share")).as(err).isZero();
        String id = only();
        for (String[] refused : new String[][] {
            {"snapshot", "rename", "Server:share", id, "another"},
            {"snapshot", "hold", "Server:share", id, "--reason", "audit"}
        }) {
            assertThat(run(refused)).as(String.join(" ", refused)).isEqualTo(Outcome.WRONG_USE.code());
            assertThat(err).contains("are set in that system");
        }
        assertThat(run("snapshot", "erase", "Server:share", "none", "--yes")).isEqualTo(Outcome.WRONG_USE.code());
        assertThat(err).contains("\"none\"");
    }
}
