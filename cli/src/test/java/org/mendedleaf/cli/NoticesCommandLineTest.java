package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.ExitCodes;

/** What needs attention, and how people are told, as it is typed. */
class NoticesCommandLineTest extends TerminalTest {

    private static final String ROTA = "Monday Ada, Tuesday Tomas, Wednesday Wilma. ".repeat(40);

    @Test
    void whatNeedsSomebodyIsListedUntilItIsMended() throws Exception {
        assertThat(run("notices")).isZero();
        assertThat(out).contains("Nothing needs attention.");
        save("rota.txt", ROTA);
        protect();
        save("rota.txt", "");
        assertThat(run("capture")).isZero();
        String id = json("findings").get(0).get("id").asText();
        run("notices");
        assertThat(out).contains("rota.txt was emptied");
        assertThat(json("notices").at("/concerns/0/kind").asText()).isEqualTo("FINDING");
        assertThat(run("mend", id)).isZero();
        run("notices");
        assertThat(out).contains("Nothing needs attention.");
    }

    @Test
    void howPeopleAreToldIsChosenAndKept() throws Exception {
        assertThat(run("notices", "--desktop", "off", "--quiet-hours", "21:30-6:00"))
                .isZero();
        assertThat(out).contains("Notices of the desktop: off. Quiet hours: 21:30-06:00.");
        JsonNode json = json("notices");
        assertThat(json.get("desktop").asBoolean()).isFalse();
        assertThat(json.get("quietHours").asText()).isEqualTo("21:30-06:00");
        assertThat(run("notices", "--quiet-hours", "at night")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("expected quiet hours such as 20:00-07:00");
        assertThat(json("notices").get("quietHours").asText()).isEqualTo("21:30-06:00");
    }

    @Test
    void findingsNameWhatIsWrongWithProtectionToo() throws Exception {
        save("rota.txt", ROTA);
        protect();
        String copy = temp.toRealPath().resolve("drive").toString();
        assertThat(run("copy-vault", "add", copy)).isZero();
        save("rota.txt", ROTA + "More.");
        assertThat(run("capture")).isZero();
        assertThat(run("findings", "--exit-code")).isZero();
        java.nio.file.Files.move(temp.resolve("drive"), temp.resolve("away"));
        assertThat(run("findings", "--exit-code")).isNotZero();
        assertThat(out).contains("Its drive is away");
        JsonNode concern = json("findings").get(0);
        assertThat(concern.get("kind").asText()).isEqualTo("COPY");
        String id = concern.get("id").asText();
        assertThat(run("dismiss", id)).as("a reason is wanted").isEqualTo(ExitCodes.WRONG_USE);
        assertThat(run("dismiss", id, "--reason", "in the safe", "--fine", "file"))
                .isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("this is about something else");
        assertThat(run("dismiss", id, "--reason", "in the safe")).isZero();
        assertThat(out).contains("as long as it is so");
        assertThat(run("findings", "--exit-code")).isZero();
        assertThat(out).doesNotContain("Its drive is away");
        run("findings", "--all");
        assertThat(out).contains(id, "Its drive is away", "in the safe");
        run("notices");
        assertThat(out).contains("Nothing needs attention.");
        assertThat(json("dismiss", id, "--take-back").get("state").asText()).isEqualTo("OPEN");
        assertThat(run("findings", "--exit-code")).isNotZero();
    }
}
