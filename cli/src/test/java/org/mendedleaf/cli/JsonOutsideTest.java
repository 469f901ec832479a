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
import org.mendedleaf.standins.StandIn;
import org.mendedleaf.standins.StandIns;

/** What commands answer as data about other systems, and about what is not there or not kept, has the form that is published. */
class JsonOutsideTest extends TerminalTest {

    private StandIns outside;

    @BeforeEach
    void start() throws IOException {
        outside = new StandIns(temp.resolve("outside"), "ines");
    }

    @AfterEach
    void end() throws IOException {
        outside.close();
    }

    private void connect(StandIn system, String name) {
        String vault = temp.resolve("vault").toString();
        assertThat(run("connect", name, system.address(), "--token", system.token("ines"), "--vault", vault))
                .as(err)
                .isZero();
    }

    private void put(String to, String text) throws IOException {
        Path file = Files.writeString(temp.resolve("plan.txt"), text);
        assertThat(run("put", file.toString(), "--as", to, "--yes")).as(err).isZero();
    }

    @Test
    void versionsThatAreErasedThere() throws IOException {
        connect(outside.objects(), "Archive");
        assertThat(json("place", "create", "Archive:papers").path("kind").asText())
                .isEqualTo("object-store");
        for (String text : new String[] {"one\n", "one\ntwo\n", "one\ntwo\nthree\n", "one\ntwo\nthree\nfour\n"}) {
            put("Archive:papers/plan.txt", text);
        }
        String plan = "Archive:papers/plan.txt";
        JsonNode would = json("erase", plan, "--version", "2", "--plan");
        assertThat(would.path("versions").get(0).asText()).isEqualTo("2");
        assertThat(would.path("words").get(0).asText()).contains("would be erased in Archive:papers");
        assertThat(json("erase", plan, "--version", "2", "--yes").path("erased").asText())
                .isEqualTo("2");
        assertThat(json("erase", plan, "--older", "--plan").path("versions")).hasSize(2);
        JsonNode older = json("erase", plan, "--older", "--yes");
        assertThat(older.path("erased").asInt()).isEqualTo(2);
        assertThat(older.path("failed")).isEmpty();
        assertThat(json("line", plan).path("points")).hasSize(4);
    }

    @Test
    void placesThatAreLookedAtBackedUpOrAway() throws IOException {
        save("a.txt", "one\n");
        assertThat(protect()).isZero();
        connect(outside.objects(), "Archive");
        connect(outside.drive(), "Drive");
        assertThat(run("place", "create", "Archive:papers")).as(err).isZero();
        assertThat(run("place", "create", "Drive:desk")).as(err).isZero();
        assertThat(run("place", "set", "Drive:desk", "--backs-up", desk.toString()))
                .as(err)
                .isZero();
        put("Archive:papers/plan.txt", "one\n");
        JsonNode all = json("capture");
        assertThat(all).hasSize(3);
        assertThat(all).anySatisfy(row -> {
            assertThat(row.path("folder").asText()).isEqualTo("Archive:papers");
            assertThat(row.path("files").asInt()).isEqualTo(1);
        });
        assertThat(all).anySatisfy(row -> {
            assertThat(row.path("folder").asText()).isEqualTo("Drive:desk");
            assertThat(row.path("sent").asInt()).isEqualTo(1);
            assertThat(row.path("failed").isObject()).isTrue();
        });
        assertThat(json("place", "list")).hasSize(2);
        outside.close();
        assertThat(json("capture").findValuesAsText("error")).hasSize(2);
        assertThat(json("place", "list").findValuesAsText("awaySince")).hasSize(2);
    }

    @Test
    void foldersThatAreLeftOutOfTheIndexPausedOrGone() throws IOException {
        save("a.txt", "one\n");
        assertThat(protect()).isZero();
        assertThat(json("index", desk.toString(), "--off").path("searched").asBoolean())
                .isFalse();
        assertThat(json("index", desk.toString(), "--on").path("searched").asBoolean())
                .isTrue();
        json("set", desk.toString(), "--versions", "paused");
        assertThat(json("capture").get(0).path("versions").asText()).isEqualTo("paused");
        save("a.txt", "two\n");
        assertThat(json("set", desk.toString(), "--versions", "on")
                        .path("missed")
                        .asText())
                .contains("1 file");
        Files.move(desk, temp.resolve("away"));
        assertThat(json("capture").get(0).path("error").asText()).contains("is not there");
    }

    @Test
    void whatCannotBeKeptIsNamedWithItsReason() throws IOException {
        save("a.txt", "one\n");
        Path deep = desk;
        for (int i = 0; i < 510; i++) {
            deep = deep.resolve("d");
        }
        Files.createDirectories(deep);
        String vault = temp.resolve("vault").toString();
        JsonNode first = json("protect", desk.toString(), "--vault", vault);
        JsonNode trouble = first.path("capture").path("troubles").get(0);
        assertThat(trouble.path("reason").asText()).isEqualTo("TOO_DEEP");
        assertThat(trouble.path("since").asText()).startsWith("2026-");
        assertThat(json("status").findValues("skipped").get(0)).hasSize(1);
    }

    @Test
    void aFileOfWhichNothingCanBeErasedAndOneThatIsNotThere() throws IOException {
        String file = save("a.txt", "one\n");
        assertThat(protect()).isZero();
        assertThat(run("hold", file, "--reason", "audit")).as(err).isZero();
        assertThat(run("erase", file, "--version", "1", "--json")).isEqualTo(1);
        assertThat(out).contains("\"versions\" : [ ]");
        assertThat(json("remove", save("b.txt", "never captured\n")).path("failed"))
                .isEmpty();
        assertThat(run("line", desk.resolve("none.txt").toString(), "--json")).isEqualTo(Outcome.WRONG_USE.code());
        assertThat(out).contains("\"wrongUse\"");
    }
}
