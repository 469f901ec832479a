package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** What looks wrong, and mending it, as it is typed. */
class FindingsCommandLineTest extends TerminalTest {

    private static final String ROTA = "On Monday Ines sees to the press and Tomas to the hives.\n".repeat(12);

    private String rota = "";

    private void emptied() throws IOException {
        rota = save("rota.txt", ROTA);
        protect();
        save("rota.txt", "");
        assertThat(run("capture")).isZero();
    }

    private String id() throws Exception {
        return json("findings").get(0).get("id").asText();
    }

    @Test
    void whereNothingIsWrongThatIsSaid() throws Exception {
        save("rota.txt", ROTA);
        protect();
        assertThat(run("findings", "--as-it-is")).isZero();
        assertThat(out).contains("has not been checked yet");
        assertThat(run("findings", "--exit-code")).isZero();
        assertThat(out).contains("Nothing looks wrong in");
        assertThat(json("findings")).isEmpty();
    }

    @Test
    void aFindingSaysWhatAndWhyAndIsMendedAndUndone() throws Exception {
        emptied();
        assertThat(run("findings", "--exit-code")).isEqualTo(1);
        assertThat(out)
                .contains("rota.txt was emptied · certain")
                .contains("It had 684 B and has nothing now.")
                .contains("last good: version 1 (text, 12 lines)");
        JsonNode finding = json("findings").get(0);
        assertThat(finding.get("kind").asText()).isEqualTo("EMPTIED");
        assertThat(finding.at("/files/0/stands").asText()).isEqualTo("TO_MEND");
        String id = finding.get("id").asText();
        assertThat(run("mend", id, "--plan")).isZero();
        assertThat(out).contains("rota.txt").contains("with version 1");
        assertThat(Files.size(Path.of(rota))).isZero();
        assertThat(run("mend", id.substring(0, 4)))
                .as("its beginning is enough")
                .isZero();
        assertThat(Path.of(rota)).hasContent(ROTA);
        assertThat(run("findings", "--exit-code")).isZero();
        assertThat(run("findings", "--all")).isZero();
        assertThat(out).contains("mended by");
        assertThat(run("mend", id)).isNotZero();
        assertThat(err).contains("nothing to mend");
        assertThat(run("undo")).isZero();
        assertThat(Files.size(Path.of(rota))).isZero();
        assertThat(run("findings", "--exit-code")).as("it is as it was").isEqualTo(1);
    }

    @Test
    void itIsDismissedWithAReason() throws Exception {
        emptied();
        String id = id();
        assertThat(run("dismiss", id)).isNotZero();
        assertThat(err).contains("--reason");
        assertThat(run("dismiss", id, "--reason", "the season is over")).isZero();
        assertThat(json("findings")).isEmpty();
        assertThat(run("findings", "--all")).isZero();
        assertThat(out).contains("the season is over");
        assertThat(run("dismiss", id, "--take-back")).isZero();
        assertThat(json("findings")).hasSize(1);
        assertThat(run("dismiss", id, "--reason", "x", "--fine", "everything")).isNotZero();
        assertThat(err).contains("“file” or “folder”");
        assertThat(run("dismiss", id, "--reason", "it is emptied each year", "--fine", "file"))
                .isZero();
        assertThat(json("findings")).isEmpty();
        assertThat(run("mend", "zzzzzz")).isNotZero();
        assertThat(err).contains("There is no finding “zzzzzz”");
    }

    @Test
    void eachVersionSaysWhetherItCanBeUsed() throws Exception {
        String list = save("list.json", "{\"a\": [1, 2]}");
        protect();
        save("list.json", "{\"a\": [1, 2");
        assertThat(run("capture")).isZero();
        assertThat(run("health", list)).isZero();
        assertThat(out).contains("doubtful").contains("line 1").contains("good");
        Path picture = Path.of(save("picture.png", ""));
        Files.write(picture, new byte[300]);
        assertThat(run("capture")).isZero();
        assertThat(run("health", picture.toString())).as("it is broken").isEqualTo(1);
        assertThat(out).contains("broken").contains("all its bytes are the same");
        JsonNode json = json("health", list, "--version", "1");
        assertThat(json.get(0).get("health").asText()).isEqualTo("GOOD");
        assertThat(run("health", list, "--version", "9")).isNotZero();
    }
}
