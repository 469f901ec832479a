package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import picocli.CommandLine;

/** Every command answers as data, in the form that docs/cli.schema.json promises; {@link TerminalTest} holds each answer to it. */
class JsonTest extends TerminalTest {

    /** Commands that only start something, or print what is no data. */
    private static final Set<String> NO_DATA = Set.of("completion", "guide", "man", "standins run");

    @Test
    void everyCommandThatDoesOrPrintsSomethingIsInTheSchema() throws IOException {
        Set<String> commands = new TreeSet<>();
        collect(
                Main.line(new Surroundings(
                        java.util.Map.of(),
                        java.time.Clock.systemUTC(),
                        new java.io.PrintWriter(new java.io.StringWriter()),
                        new java.io.PrintWriter(new java.io.StringWriter()),
                        java.util.Optional.empty())),
                "",
                commands);
        commands.removeAll(NO_DATA);
        assertThat(JsonAnswers.commands()).containsExactlyInAnyOrderElementsOf(commands);
    }

    @Test
    void everyNameOfAValueIsExplained() throws IOException {
        String page = Files.readString(Path.of("../docs/json.md"));
        assertThat(JsonAnswers.names())
                .filteredOn(name -> !page.contains("`" + name + "`")
                        && !Set.of("error", "code", "message").contains(name))
                .isEmpty();
    }

    private static void collect(CommandLine line, String path, Set<String> into) {
        if (line.getSubcommands().isEmpty()) {
            into.add(path);
        }
        line.getSubcommands().forEach((name, sub) -> collect(sub, path.isEmpty() ? name : path + " " + name, into));
    }

    private Path text(String name, String text) throws IOException {
        return Path.of(save(name, text));
    }

    @Test
    void whatIsDoneWithFilesIsAnswered() throws IOException {
        String a = text("a.txt", "one\ntwo\nthree\n").toString();
        String t = text("t.csv", "kind,kilos\nKaty,412\nBramley,1204\n").toString();
        text("gone.txt", "gone");
        json("protect", desk.toString(), "--vault", temp.resolve("vault").toString());
        save("a.txt", "one\n2\nthree\nfour\n");
        save("t.csv", "kind,kilos\nKaty,421\nBramley,1204\n");
        json("capture");
        json("set", desk.toString(), "--every", "30");
        json("list", desk.toString(), "--removed");
        json("list", desk.toString(), "--at", "2026-05-04T08:04:00Z");
        json("line", a);
        json("compare", a, "--from", "1");
        json("compare", desk.toString(), "--from", "2026-05-04T08:04:00Z", "--to", "now");
        json("preview", t, "--version", "1");
        json("preview", a);
        json("pick", a, "--from", "1", "--change", "1", "--plan");
        json("pick", a, "--from", "1", "--change", "1");
        json("find", "three");
        json("index");
        json("health", a);
        json("findings");
        json("notices");
        json("restore", a, "--version", "1", "--plan");
        json("restore", a, "--version", "1");
        json("copy", a, "--version", "1", "--to", temp.resolve("copies").toString());
        json("rollback", desk.toString(), "--at", "2026-05-04T08:04:00Z", "--plan");
        json("rollback", desk.toString(), "--at", "2026-05-04T08:04:00Z", "--later", "leave");
        json("remove", desk.resolve("gone.txt").toString());
        json("removed");
        json("undo", "--list");
        json("undo", "--plan");
        json("undo");
        json("redo", "--list");
        json("redo");
        json("journal");
        json("status");
        json("check");
        json("check", "--full");
        json("check", "--every", "14");
        json("check", "--rebuild");
        json("check", "--heal");
    }

    @Test
    void harmAndItsMendingAreAnswered() throws IOException {
        String rows = "kind,kilos\n" + "Katy,412\nBramley,1204\n".repeat(400);
        String t = save("t.csv", rows);
        assertThat(protect()).isZero();
        for (int i = 0; i < 3; i++) {
            later(600);
            save("t.csv", rows + "Perry," + i + "\n".repeat(i + 1));
            assertThat(run("capture")).isZero();
        }
        later(600);
        save("t.csv", "");
        assertThat(run("capture")).isZero();
        JsonNode found = json("findings");
        String id = found.findValue("id").asText();
        json("mend", id, "--plan");
        json("dismiss", id, "--reason", "a test");
        json("dismiss", id, "--take-back");
        json("mend", id);
        json("findings", "--all");
        json("health", t);
    }

    @Test
    void whatComesInIsAnswered() throws IOException {
        String a = save("Plan.txt", "one\ntwo\nthree\nfour\nfive\n");
        save("Plan v2.txt", "one\ntwo\nthree\nfour\nfive\nsix\n");
        save("Plan FINAL.txt", "one\ntwo\nthree\nfour\nfive\nsix\nseven\n");
        save("note.txt", "a note of some length\n".repeat(9));
        assertThat(protect()).isZero();
        json("fold", desk.toString(), "--plan");
        json("fold", desk.toString());
        Path in = Files.createDirectories(temp.resolve("in"));
        Files.writeString(in.resolve("note.txt"), "a note of some length\n".repeat(9) + "more\n");
        json(
                "arrivals",
                "--folders",
                in.toString(),
                "--for",
                desk.resolve("note.txt").toString());
        json(
                "put",
                in.resolve("note.txt").toString(),
                "--as",
                desk.resolve("note.txt").toString(),
                "--plan");
        json(
                "put",
                in.resolve("note.txt").toString(),
                "--as",
                desk.resolve("note.txt").toString());
        Files.writeString(in.resolve("new.txt"), "new");
        json("put", in.toString(), "--into", desk.toString(), "--plan");
        json("put", in.toString(), "--into", desk.toString());
        save("note.txt~", "a note of some length\n".repeat(8));
        json("strays", desk.toString());
        json("strays", desk.toString(), "--adopt");
        json("note", a, "signed");
        json("note", a);
        json("note", desk.toString(), "--find", "signed");
        json("people", "Wilma", "--mail", "wilma@orchard.example");
        json("language");
        json("place", "set", desk.toString(), "--set", "numbering=drafts", "--plan");
        json("place", "set", desk.toString(), "--set", "numbering=drafts");
        json("place", "list");
        json("place", "settings", "folder");
        json("checkout", a);
        json("checkout", desk.toString(), "--list");
        save("Plan.txt", "one\ntwo\nthree\nfour\nfive\nsix\nseven\neight\n");
        json("checkin", a);
        json("publish", a);
        json("systems");
    }

    @Test
    void retentionIsAnswered() throws IOException {
        String a = save("a.txt", "1");
        assertThat(protect()).isZero();
        for (int i = 2; i < 9; i++) {
            later(3000);
            save("a.txt", "version " + i);
            assertThat(run("capture")).isZero();
        }
        json("space");
        json("space", desk.toString(), "--largest");
        Path rules = Files.writeString(temp.resolve("rules.yaml"), "rules:\n  - name: All\n    everything: P1D\n");
        json("rules", "show");
        json("rules", "check", rules.toString());
        json("rules", "set", rules.toString(), "--plan");
        json("rules", "set", rules.toString());
        json("forecast");
        json("hold", a, "--version", "2", "--reason", "court");
        json("hold");
        json("unhold", "1", "--plan");
        json("unhold", "1");
        json("thin", "--plan");
        json("thin");
        json("reclaim", "--plan");
        json("reclaim");
        json("unfold", "--plan");
        json("unfold");
        json("erase", a, "--older", "--plan");
        json("erase", a, "--older", "--yes");
        json("snapshot", "take", desk.toString(), "--label", "year end");
        json("snapshot", "list", desk.toString());
        json("snapshot", "rename", desk.toString(), "1", "end");
        json("snapshot", "hold", desk.toString(), "1", "--reason", "audit");
        json("snapshot", "hold", desk.toString(), "1", "--end");
        json("snapshot", "schedule", desk.toString(), "--daily", "19:00");
        json("snapshot", "schedule", desk.toString());
        json("snapshot", "erase", desk.toString(), "1", "--plan");
        json("snapshot", "erase", desk.toString(), "1", "--yes");
        Path copy = temp.toRealPath().resolve("copy");
        json("copy-vault", "add", copy.toString(), "--plan");
        json("copy-vault", "add", copy.toString());
        json("copy-vault", "run");
        json("copy-vault", "check");
        json("copy-vault", "list");
        json("copy-vault", "end", copy.toString());
        json("copy-vault", "use", copy.toString(), "--yes");
        json(
                "unprotect",
                desk.toString(),
                "--plan",
                "--vault",
                temp.resolve("vault").toString());
        json("unprotect", desk.toString(), "--vault", temp.resolve("vault").toString());
    }

    @Test
    void whatGoesWrongIsAnsweredInOneForm() throws IOException {
        assertThat(run("line", desk.resolve("nothing.txt").toString(), "--json"))
                .isEqualTo(ExitCodes.WRONG_USE);
        assertThat(run("restore", "--json")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(out).contains("\"error\"");
    }

    @Test
    void wrongUseIsSaidInTheLanguageOfAllWords() throws IOException {
        assertThat(run("restore", "--nothing", "x")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("Unknown option: --nothing");
        assertThat(run("language", "de")).isZero();
        assertThat(run("restore")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("Es fehlt: FILE").contains("Mehr sagt");
        assertThat(run("restore", "--nothing", "x")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("Unbekannte Option: --nothing");
        assertThat(run("protect", desk.toString(), "--access", "nobody")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("--access kann nicht \"nobody\" sein");
        assertThat(run("restore", "x", "--version", "1", "--version", "2")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).startsWith("--version steht zweimal da").hasLineCount(1);
        assertThat(run("restore", "x", "--version")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("--version").doesNotContain("parameter").hasLineCount(1);
        assertThat(run("restore", "--help")).isZero();
        assertThat(out).startsWith("Aufruf: ").contains("Beispiele:");
        assertThat(run("language", "xx")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("Es gibt: en, de, system");
        save("a.txt", "1");
        assertThat(protect()).isZero();
        assertThat(out).contains("ist geschützt");
        assertThat(run("list", desk.toString(), "--at", "vor 1 Minute")).isZero();
        assertThat(run("language", "system")).isZero();
        assertThat(out).contains("Words are in English");
    }

    @Test
    void quietSaysNothingButWhatGoesWrong() throws IOException {
        save("a.txt", "1");
        assertThat(run(
                        "protect",
                        desk.toString(),
                        "--vault",
                        temp.resolve("vault").toString(),
                        "--quiet"))
                .isZero();
        assertThat(out + err).isEmpty();
        save("a.txt", "2");
        assertThat(run("capture", "--quiet")).isZero();
        assertThat(out + err).isEmpty();
        assertThat(run("line", desk.resolve("a.txt").toString(), "--json", "--quiet"))
                .isZero();
        assertThat(out).as("data was asked for").contains("\"points\"");
        assertThat(run("restore", desk.resolve("a.txt").toString(), "--version", "9", "--quiet"))
                .isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("no version 9");
    }
}
