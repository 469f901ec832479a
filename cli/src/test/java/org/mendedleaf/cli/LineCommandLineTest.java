package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What `line` says of a file besides its versions: that it was removed, who has it, what is said of it, and copies beside it. */
class LineCommandLineTest extends TerminalTest {

    private String letter = "";

    @BeforeEach
    void versions() throws IOException {
        letter = save("letter.txt", "Dear members, the press opens on Friday at nine in the morning.\n".repeat(40));
        assertThat(protect()).isZero();
        save("letter.txt", "Dear members, the press opens on Monday at nine in the morning.\n".repeat(40));
        assertThat(run("capture")).isZero();
    }

    private String line(String... options) {
        String[] all = new String[options.length + 2];
        all[0] = "line";
        all[1] = letter;
        System.arraycopy(options, 0, all, 2, options.length);
        assertThat(run(all)).as(err).isZero();
        return out;
    }

    @Test
    void aRemovedFileSaysWhenItWent() throws IOException {
        Files.delete(Path.of(letter));
        assertThat(run("capture")).isZero();
        assertThat(line()).contains("removed ").contains("2 versions");
        assertThat(json("line", letter).path("removed").asText()).startsWith("2026-05-04T");
    }

    @Test
    void whoHasItCheckedOutStandsAboveItsVersions() throws IOException {
        assertThat(run("checkout", letter, "--working-as", "Tomas")).as(err).isZero();
        assertThat(line()).contains("Checked out by Tomas since").contains("2 versions");
        assertThat(json("line", letter).at("/checkedOut/who").asText()).isEqualTo("Tomas");
    }

    @Test
    void itsCategoryItsNotesAndItsCommentsAreSaid() throws IOException {
        assertThat(run("note", letter, "--category", "Round letters", "--visible", "editors"))
                .as(err)
                .isZero();
        assertThat(run("note", letter, "sent to all", "--version", "1")).as(err).isZero();
        assertThat(run("note", letter, "one name was wrong", "--comment", "--version", "2"))
                .as(err)
                .isZero();
        assertThat(line()).contains("Round letters").contains("“sent to all”").contains(": “one name was wrong”");
        JsonNode json = json("line", letter);
        assertThat(json.path("category").asText()).isEqualTo("Round letters");
        assertThat(json.path("visible").asText()).isEqualTo("EDITORS");
        assertThat(json.at("/points/0/comments/0/words").asText()).isEqualTo("one name was wrong");
        assertThat(json.at("/points/1/note").asText()).isEqualTo("sent to all");
    }

    @Test
    void aRestoredVersionSaysWhereItCameFrom() throws IOException {
        assertThat(run("restore", letter, "--version", "1")).as(err).isZero();
        assertThat(line()).contains("restored from 1");
        JsonNode newest = json("line", letter).at("/points/0");
        assertThat(newest.path("restoredFrom").asText()).isEqualTo("1");
        assertThat(newest.path("origin").asText()).isEqualTo("RESTORED");
    }

    @Test
    void anotherNameIsAnEventOnTheLine() throws IOException {
        Path renamed = desk.resolve("round letter.txt");
        Files.move(Path.of(letter), renamed);
        assertThat(run("capture")).isZero();
        letter = renamed.toString();
        assertThat(line()).contains("renamed from letter.txt");
        JsonNode event = json("line", letter).at("/points/0");
        assertThat(event.path("type").asText()).isEqualTo("event");
        assertThat(event.path("kind").asText()).isEqualTo("RENAMED");
    }

    @Test
    void aSafetyCopyBesideItIsNamed() throws IOException {
        String text = "Dear members, the press opens on Sunday at nine in the morning.\n".repeat(40);
        save("letter.txt~", text);
        assertThat(line()).contains("letter.txt~").contains("strays");
    }

    @Test
    void untilWhenAVersionStaysIsSaidOnceThereAreRules() throws IOException {
        assertThat(json("line", letter).at("/points/1/kept").asText()).isEmpty();
        assertThat(run("hold", letter, "--reason", "the lawyer reads it", "--version", "1"))
                .as(err)
                .isZero();
        assertThat(line()).contains("the lawyer reads it");
        assertThat(json("line", letter).at("/points/1/kept").asText()).contains("the lawyer reads it");
    }
}
