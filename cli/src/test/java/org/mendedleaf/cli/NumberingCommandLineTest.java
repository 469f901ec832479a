package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;

/** One numbering everywhere: what the line shows is what is typed, said, named in copies and printed. */
class NumberingCommandLineTest extends TerminalTest {

    private String lease = "";

    /** A place with drafts whose file has the versions 1, 1.1, 2, which was 1.2, and 2.1. */
    private void drafts() throws IOException {
        lease = save("lease.txt", "text of 1");
        protect();
        run("people", "Ines", "--works-here");
        assertThat(run("place", "set", desk.toString(), "--set", "numbering=drafts", "--member", "Tomas=editor"))
                .isZero();
        for (String label : List.of("1.1", "1.2")) {
            save("lease.txt", "text of " + label);
            assertThat(run("capture")).isZero();
        }
        assertThat(run("publish", lease)).isZero();
        save("lease.txt", "text of 2.1");
        assertThat(run("capture")).isZero();
        assertThat(json("line", lease).findValuesAsText("version")).startsWith("2.1", "2");
    }

    @Test
    void whatTheLineShowsIsWhatIsTypedSaidAndPrinted() throws Exception {
        drafts();
        List<String> shown = json("line", lease).findValuesAsText("version");
        for (String label : List.of("1", "1.1", "2.1")) {
            assertThat(shown).contains(label);
            Path to = temp.resolve("copies " + label);
            assertThat(run("copy", lease, "--version", label, "--to", to.toString()))
                    .isZero();
            try (var copies = Files.list(to)) {
                Path copy = copies.findFirst().orElseThrow();
                assertThat(copy.getFileName().toString()).contains("v" + label + ",");
                assertThat(copy).hasContent("text of " + label);
            }
        }
        JsonNode restored = json("restore", lease, "--version", "1.1").get(0);
        assertThat(Path.of(lease)).hasContent("text of 1.1");
        assertThat(restored.get("version").asText()).isEqualTo("1.1");
        String becomes = json("line", lease).findValuesAsText("version").get(0);
        assertThat(restored.get("newVersion").asText()).isEqualTo(becomes).isEqualTo("2.2");
        assertThat(run("erase", lease, "--version", "1.1", "--plan")).isZero();
        assertThat(out).contains("Version 1.1 of lease.txt");
        assertThat(run("list", desk.toString())).isZero();
        assertThat(out).containsPattern("(?m)^\\s*2\\.2\\s");
        assertThat(json("list", desk.toString()).at("/entries/0/version").asText())
                .isEqualTo("2.2");
    }

    @Test
    void aRunningNumberIsNotTakenForALabel() throws Exception {
        drafts();
        assertThat(json("line", lease).at("/points/0/sequence").asInt()).isEqualTo(4);
        assertThat(run(
                        "copy",
                        lease,
                        "--version",
                        "4",
                        "--to",
                        temp.resolve("c").toString()))
                .isEqualTo(2);
        assertThat(err).contains("4").contains("2.1");
        assertThat(temp.resolve("c")).doesNotExist();
    }

    @Test
    void theListingOfThePastNamesTheVersionThatWasCurrentThen() throws Exception {
        drafts();
        String then = now.toString();
        save("lease.txt", "later");
        assertThat(run("capture")).isZero();
        assertThat(json("list", desk.toString(), "--at", then)
                        .at("/entries/0/version")
                        .asText())
                .isEqualTo("2.1");
        assertThat(json("list", desk.toString()).at("/entries/0/version").asText())
                .isEqualTo("2.2");
    }

    @Test
    void aReaderGetsTheNewestVersionThatSheMaySee() throws Exception {
        drafts();
        String to = temp.resolve("back").toString();
        assertThat(run("restore", lease, "--at", "now", "--to", to, "--working-as", "Adele"))
                .isZero();
        assertThat(temp.resolve("back/lease.txt")).hasContent("text of 1.2");
        assertThat(err).doesNotContain("Exception");
    }

    @Test
    void aRenamedFileThatIsMadeAgainSaysSo() throws Exception {
        save("d/old name.txt", "the text that stays the same");
        protect();
        String then = now.toString();
        Files.move(desk.resolve("d/old name.txt"), desk.resolve("d/new name.txt"));
        assertThat(run("capture")).isZero();
        String folder = desk.resolve("d").toString();
        assertThat(run("restore", folder, "--at", then, "--plan")).isZero();
        assertThat(out).contains("new name.txt");
        assertThat(run("restore", folder, "--at", then)).isZero();
        assertThat(out).contains("new name.txt");
        assertThat(desk.resolve("d/old name.txt")).exists();
        assertThat(desk.resolve("d/new name.txt")).exists();
    }
}
