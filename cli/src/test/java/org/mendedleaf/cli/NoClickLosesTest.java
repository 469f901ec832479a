package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.Outcome;

/** What cannot be taken back asks first, what can be taken back says how, and a vault that is away costs itself. */
class NoClickLosesTest extends TerminalTest {

    private String ledger = "";

    private void history() throws IOException {
        ledger = save("ledger.txt", "version 1");
        protect();
        for (int i = 2; i < 6; i++) {
            later(24 * 60);
            save("ledger.txt", "version " + i);
            assertThat(run("capture")).isZero();
        }
    }

    private void members() {
        run("people", "Ines", "--works-here");
        assertThat(run("place", "set", desk.toString(), "--member", "Adele=reader"))
                .isZero();
    }

    @Test
    void aReaderEndsNobodysGraceOrProtection() throws Exception {
        history();
        members();
        assertThat(run("erase", ledger, "--older", "--yes")).isZero();
        assertThat(run("reclaim", "--now", "--yes", "--working-as", "Adele")).isEqualTo(Outcome.NOT_ALLOWED.code());
        assertThat(err).contains("Adele is a reader");
        assertThat(json("space").get(0).get("waiting").asLong()).isPositive();
        String vault = temp.resolve("vault").toString();
        assertThat(run("protect", desk.toString(), "--vault", vault, "--exclude", "*", "--working-as", "Adele"))
                .isEqualTo(Outcome.NOT_ALLOWED.code());
        assertThat(err).contains("Adele is a reader");
        save("new.txt", "still protected");
        assertThat(json("capture").at("/0/added").asInt()).isEqualTo(1);
        assertThat(run("undo")).isZero();
        assertThat(run("restore", ledger, "--version", "1")).isZero();
    }

    @Test
    void whatEndsForGoodNeedsAYesAndHasAPlan() throws Exception {
        history();
        assertThat(run("erase", ledger, "--all", "--plan")).isZero();
        assertThat(Path.of(ledger)).exists();
        assertThat(run("erase", ledger, "--older")).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(run("erase", ledger, "--older", "--yes")).isZero();
        assertThat(run("reclaim", "--now")).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(err).contains("--yes");
        assertThat(run("reclaim", "--plan")).isZero();
        assertThat(out).contains("no version would be gone for good");
        assertThat(run("undo")).isZero();
        assertThat(json("line", ledger).findValuesAsText("version")).hasSize(5);
    }

    @Test
    void thinningToNothingIsRefusedAndWhatWasAskedForIsNotBlamedOnARule() throws Exception {
        history();
        assertThat(run("thin", desk.toString(), "--keep-last", "0")).isEqualTo(2);
        assertThat(run("thin", desk.toString(), "--keep-last", "2", "--plan", "--json"))
                .isZero();
        assertThat(out).doesNotContain("TOO_MANY");
        assertThat(run("thin", desk.toString(), "--keep-last", "2")).isZero();
        assertThat(run("line", ledger)).isZero();
        assertThat(out).contains("thinned by").doesNotContain("(rule");
    }

    @Test
    void aLimitIsSaidBeforeItTakesAnything() throws Exception {
        history();
        String file = Files.writeString(
                        temp.resolve("rules.yaml"),
                        "rules: [{name: Office papers, everything: P365D, atLeast: 1, capBytes: 20}]\n")
                .toString();
        assertThat(run("rules", "check", file)).isZero();
        assertThat(out).doesNotContain("nothing may go").contains("may go");
        assertThat(run("rules", "set", file, "--plan")).isZero();
        assertThat(run("rules", "show")).isZero();
        assertThat(out).contains("There are no rules");
        assertThat(run("rules", "set", file)).isZero();
        assertThat(run("line", ledger)).isZero();
        assertThat(out).contains("by the limit of 20 B on “Office papers”");
        assertThat(run("thin", "--plan")).isZero();
        assertThat(out).doesNotContain("Nothing goes");
    }

    @Test
    void undoAndRedoWorkWhenAnotherVaultIsAway() throws Exception {
        history();
        Path other = Files.createDirectory(temp.resolve("other")).toRealPath();
        Files.writeString(other.resolve("b.txt"), "b");
        String second = temp.resolve("second").toString();
        assertThat(run("protect", other.toString(), "--vault", second)).isZero();
        Files.move(Path.of(second), temp.resolve("unplugged"));

        assertThat(run("restore", ledger, "--version", "2")).isZero();
        JsonNode undone = json("undo");
        assertThat(undone.get("done")).isNotEmpty();
        assertThat(Path.of(ledger)).hasContent("version 5");
        assertThat(run("redo")).isZero();
        assertThat(Path.of(ledger)).hasContent("version 2");
        assertThat(run("redo")).as("nothing is left to do again").isEqualTo(2);
        assertThat(run("undo", "--plan")).isZero();
        assertThat(Path.of(ledger)).hasContent("version 2");
    }
}
