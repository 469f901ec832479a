package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.Outcome;

/** Space and retention with nothing but the command line. */
class RetentionCommandLineTest extends TerminalTest {

    private String noise(int seed) {
        StringBuilder text = new StringBuilder();
        Random r = new Random(seed);
        for (int i = 0; i < 3000; i++) {
            text.append(Integer.toHexString(r.nextInt()));
        }
        return text.toString();
    }

    /** A ledger of six versions on six days, and a picture that was removed. */
    private String history() throws IOException {
        String ledger = save("ledger.txt", noise(0));
        save("art.png", "picture");
        protect();
        for (int i = 1; i < 6; i++) {
            later(24 * 60);
            save("ledger.txt", noise(i));
            assertThat(run("capture")).isZero();
        }
        Files.delete(desk.resolve("art.png"));
        run("capture");
        return ledger;
    }

    private String rules(String text) throws IOException {
        return Files.writeString(temp.resolve("rules.yaml"), text).toString();
    }

    @Test
    void whatIsKeptAndUntilWhenIsSaidAndWrittenDown() throws Exception {
        String ledger = history();
        run("rules", "set", rules("rules: [{name: Short, everything: P2D}]"));
        run("hold", ledger, "--version", "1", "--reason", "the audit");
        assertThat(run("kept", ledger)).isZero();
        assertThat(out)
                .contains("1 file with 6 versions")
                .contains("some may go now")
                .contains("what the file holds now")
                .contains("Of all files, keep every version for 2 days")
                .contains("the audit");
        Path page = temp.resolve("kept.html");
        assertThat(run("kept", "--report", page.toString())).isZero();
        assertThat(out).contains("The report is in " + page);
        assertThat(page)
                .content()
                .contains("<h2>The rules</h2>")
                .contains("<h2>Holds</h2>")
                .contains("ledger.txt");
        run("thin");
        run("reclaim", "--now", "--yes");
        JsonNode then = json("kept", "--on", "2026-05-06").get(0);
        assertThat(then.get("versions").asLong()).as("of that day").isEqualTo(4);
        assertThat(then.get("goneSince").asLong()).isEqualTo(2);
        assertThat(then.get("rules")).as("they were set later").isEmpty();
        assertThat(then.at("/files/0/path").asText()).isEqualTo("art.png");
        assertThat(then.at("/files/1/oldest").asText()).startsWith("2026-05-04T");
        assertThat(run("kept", "--on", "2026-05-06")).isZero();
        assertThat(out).contains("2 of these versions have gone since").contains("The rules were changed");
        assertThat(run("kept", "--on", "1 January 1990")).isZero();
        assertThat(out).contains("Nothing was kept here then.").doesNotContain("Oldest");
        assertThat(run("kept", "--report", "kept.doc")).isEqualTo(2);
        assertThat(run("kept", "--on", "some day")).isEqualTo(2);
    }

    @Test
    void aLineAPlanTheCoverageAndTheJournalGoOntoPaper() throws Exception {
        String ledger = history();
        run("note", ledger, "as <agreed>");
        Path line = temp.resolve("line.html");
        assertThat(run("line", ledger, "--report", line.toString())).isZero();
        assertThat(line).content().contains("<h1>The past of ledger.txt</h1>").contains("as &lt;agreed&gt;");
        Path table = temp.resolve("line.csv");
        assertThat(run("line", ledger, "--report", table.toString())).isZero();
        assertThat(Files.readAllLines(table))
                .hasSize(7)
                .first()
                .isEqualTo("version,at,who,bytes,what,note,kept,sha256");
        Path plan = temp.resolve("plan.html");
        assertThat(run("restore", ledger, "--version", "2", "--plan", "--report", plan.toString()))
                .isZero();
        assertThat(plan).content().contains("Recovering ledger.txt: the plan").contains("replace");
        assertThat(run(
                        "restore",
                        ledger,
                        "--version",
                        "2",
                        "--report",
                        plan.toString().replace(".html", ".json")))
                .isZero();
        assertThat(temp.resolve("plan.json")).content().contains("\"step\" : \"REPLACE\"");
        assertThat(Path.of(ledger)).hasContent(noise(1));
        Path coverage = temp.resolve("coverage.csv");
        run("status", "--report", coverage.toString());
        assertThat(Files.readAllLines(coverage).get(1))
                .contains(desk.toString())
                .contains(",1,8,");
        Path journal = temp.resolve("journal.html");
        assertThat(run("journal", "--export", journal.toString())).isZero();
        assertThat(journal).content().contains("<h1>The journal</h1>").contains("ledger.txt");
        assertThat(run("journal", "--export", journal.toString()))
                .as("it is there")
                .isNotZero();
    }

    @Test
    void rulesAreCheckedSetAndShown() throws Exception {
        history();
        String file = rules("rules:\n  - {name: Short, everything: P2D, removed: P30D}\n");
        assertThat(run("rules", "check", file)).isZero();
        assertThat(out)
                .contains("Short: Of all files, keep every version for 2 days; removed files for 30 days.")
                .contains("Now 3 versions of 1 file may go")
                .contains("ledger.txt: 6 kept as it is, 3 proposed");
        assertThat(run("rules", "show")).isZero();
        assertThat(out).contains("There are no rules: everything is kept.");
        assertThat(run("rules", "set", file)).isZero();
        assertThat(run("rules", "show", "--yaml")).isZero();
        assertThat(out).contains("everything: P2D");
        assertThat(run("rules", "set", rules("rules: [{name: a, everything: soon}]")))
                .isEqualTo(2);
        assertThat(err).contains("rules[0].everything: A time is written as P30D");
        assertThat(run("rules", "show")).isZero();
        assertThat(out).contains("Short");
    }

    @Test
    void thinningCanBeTakenBackUntilItsRoomIsGiven() throws Exception {
        String ledger = history();
        run("rules", "set", rules("rules: [{name: Short, everything: P2D}]"));
        assertThat(run("thin", "--plan")).isZero();
        assertThat(out).contains("3 versions go of 1 file");
        assertThat(run("line", ledger)).isZero();
        assertThat(out).contains("may go since").contains("kept until 11 May (rule “Short”)");
        assertThat(run("thin", "--report", temp.resolve("report.txt").toString()))
                .isEqualTo(2);
        assertThat(json("space").get(0).get("waiting").asLong())
                .as("nothing was let go")
                .isZero();
        Path report = temp.resolve("report.csv");
        assertThat(run("thin", "--report", report.toString())).isZero();
        assertThat(out).contains("3 versions are let go").contains("waiting in grace");
        assertThat(Files.readAllLines(report))
                .hasSize(4)
                .first()
                .isEqualTo("place,path,version,saved,bytes,reason,rule");
        JsonNode space = json("space").get(0);
        assertThat(space.get("waiting").asLong()).isPositive();
        assertThat(space.get("inUse").asLong()
                        + space.get("waiting").asLong()
                        + space.get("unused").asLong()
                        + space.get("bookkeeping").asLong())
                .isEqualTo(space.get("all").asLong());
        assertThat(run("undo")).isZero();
        assertThat(json("space").get(0).get("waiting").asLong()).isZero();
        run("thin");
        assertThat(run("line", ledger)).isZero();
        assertThat(out).contains("unless it is taken back: no time kept it any longer (rule “Short”)");
        assertThat(run("reclaim")).isZero();
        assertThat(out).contains("No version is gone");
        assertThat(run("reclaim", "--now")).as("without a yes").isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(err).contains("--yes");
        assertThat(run("reclaim", "--now", "--plan")).isZero();
        assertThat(out).contains("3 versions");
        assertThat(json("space").get(0).get("waiting").asLong()).isPositive();
        assertThat(run("reclaim", "--now", "--yes")).isZero();
        assertThat(out).contains("3 versions are gone.");
        assertThat(run("line", ledger)).isZero();
        assertThat(out).contains("gone since 9 May: no time kept it any longer (rule “Short”)");
        assertThat(run("restore", ledger, "--version", "1")).isNotZero();
        assertThat(run("check", "--full")).isZero();
    }

    @Test
    void aHeldVersionStaysUntilItsHoldIsLifted() throws Exception {
        String ledger = history();
        assertThat(run("rules", "show")).isZero();
        assertThat(out).contains("Under these rules nothing may go now.");
        run("rules", "set", rules("rules: [{name: Short, everything: P2D}]"));
        assertThat(run("hold", ledger, "--version", "1")).isEqualTo(2);
        assertThat(err).contains("A hold needs a reason.");
        assertThat(run("hold", ledger, "--version", "1", "--reason", "audit", "--until", "2027-03-01"))
                .isZero();
        assertThat(out).contains("Hold 1: version 1 of ledger.txt, until 1 Mar 2027.");
        assertThat(run("hold")).isZero();
        assertThat(out).contains("audit");
        run("thin");
        assertThat(out).contains("2 versions are let go");
        assertThat(run("unhold", "1", "--plan")).isZero();
        assertThat(out).contains("By the rules 1 version of it may go then");
        assertThat(run("unhold", "1")).isZero();
        assertThat(run("hold")).isZero();
        assertThat(out).contains("Nothing is held.");
        assertThat(run("unhold", "1")).isEqualTo(2);
        assertThat(run("hold", desk.toString(), "--reason", "inquiry", "--until", "3 months ago"))
                .isEqualTo(2);
        assertThat(err).contains("is not an end. Write it like 2027-05-04");
        assertThat(run("hold", desk.toString(), "--reason", "inquiry")).isZero();
        assertThat(out).contains("Hold 2: desk and all below. ").contains("What is saved later is held too.");
        run("thin");
        assertThat(out).contains("Nothing goes.");
    }

    @Test
    void erasingNeedsAYesAndProvesThatItIsGone() throws Exception {
        String ledger = history();
        assertThat(run("erase", ledger)).isEqualTo(2);
        assertThat(run("erase", ledger, "--version", "2")).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(out).contains("Version 2 of ledger.txt is erased:");
        assertThat(err).contains("Nothing was done. Use --yes to do it.");
        assertThat(run("erase", ledger, "--version", "2", "--yes")).isZero();
        assertThat(out).contains("\"undo\" takes it back until");
        assertThat(run("undo")).isZero();
        assertThat(run("erase", ledger, "--older", "--yes")).isZero();
        assertThat(run("reclaim", "--now", "--yes")).isZero();
        assertThat(out).contains("5 versions are gone.").contains("Proved: none of");
        assertThat(Path.of(ledger)).hasContent(noise(5));
        assertThat(run("erase", ledger, "--all", "--yes")).isZero();
        assertThat(Path.of(ledger)).doesNotExist();
        assertThat(run("undo")).isZero();
        assertThat(Path.of(ledger)).hasContent(noise(5));
    }

    @Test
    void removedFilesAndTheForecastAreSaid() throws Exception {
        history();
        run("rules", "set", rules("rules: [{name: Short, everything: P2D, removed: P30D}]"));
        assertThat(run("removed")).isZero();
        assertThat(out).contains("art.png").contains("kept until 8 Jun, the newest of a removed file");
        assertThat(run("forecast")).isZero();
        assertThat(out)
                .contains("versions a day")
                .contains("in a year")
                .contains("The drive is not full within a year.");
        assertThat(run("forecast", "--every", "60")).isZero();
        assertThat(out).contains("Capturing every 60 minutes instead of as now");
        assertThat(run("space", desk.toString(), "--largest")).isZero();
        assertThat(out).contains("ledger.txt");
    }

    @Test
    void somebodyWhoMayNotEraseIsRefused() throws Exception {
        String ledger = history();
        run("people", "owner", desk.toString(), "--working-as", "Ada");
        run("place", "set", desk.toString(), "--working-as", "Ada", "--member", "Ben=editor");
        assertThat(run("erase", ledger, "--version", "1", "--yes", "--working-as", "Ben"))
                .isNotZero();
        assertThat(json("space").get(0).get("waiting").asLong()).isZero();
    }
}
