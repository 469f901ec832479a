package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;

class CommandLineTest extends TerminalTest {

    @Test
    void aFolderIsProtectedEditedAndGotBackWithNothingButTheCommandLine() throws Exception {
        String file = save("a.txt", "one");
        assertThat(protect()).isZero();
        assertThat(out).contains("is protected");
        save("a.txt", "two");
        assertThat(run("capture")).isZero();
        assertThat(out).contains("1 changed");
        assertThat(run("restore", file, "--version", "1")).isZero();
        assertThat(Path.of(file)).hasContent("one");
        assertThat(run("undo")).isZero();
        assertThat(Path.of(file)).hasContent("two");
        assertThat(run("remove", file)).isZero();
        assertThat(Path.of(file)).doesNotExist();
        assertThat(run("restore", file)).isZero();
        assertThat(Path.of(file)).hasContent("two");
        assertThat(run(
                        "copy",
                        file,
                        "--version",
                        "1",
                        "--to",
                        temp.resolve("copies").toString()))
                .isZero();
        assertThat(temp.resolve("copies"))
                .isDirectoryContaining(f -> f.getFileName().toString().startsWith("a – v1, "));
        assertThat(run("check", "--full")).isZero();
        assertThat(run("status")).isZero();
        assertThat(out).contains("captured on every save");
    }

    @Test
    void protectingAgainChangesOnlyWhatIsNamed() throws Exception {
        save("a.txt", "one");
        save("b.iso", "image");
        String vault = temp.resolve("vault").toString();
        assertThat(run("protect", desk.toString(), "--vault", vault, "--exclude", "*.iso", "--every", "30"))
                .isZero();
        assertThat(out).contains("every 30 minutes").contains("*.iso");

        JsonNode more = json("protect", desk.toString(), "--vault", vault, "--exclude", "*.tmp");
        assertThat(more.at("/every").asText()).isEqualTo("30");
        assertThat(more.at("/excluded")).extracting(JsonNode::asText).containsExactly("*.iso", "*.tmp");

        JsonNode hand = json("protect", desk.toString(), "--vault", vault, "--every", "hand");
        assertThat(hand.at("/every").asText()).isEqualTo("hand");
        assertThat(hand.at("/excluded")).hasSize(2);

        JsonNode fewer = json("protect", desk.toString(), "--vault", vault, "--include", "*.iso");
        assertThat(fewer.at("/every").asText()).isEqualTo("hand");
        assertThat(fewer.at("/excluded")).extracting(JsonNode::asText).containsExactly("*.tmp");
        assertThat(fewer.at("/capture/added").asInt()).as("b.iso").isEqualTo(1);
    }

    @Test
    void everyCommandThatPrintsDataPrintsJson() throws Exception {
        String file = save("a.txt", "one");
        assertThat(json(
                                "protect",
                                desk.toString(),
                                "--vault",
                                temp.resolve("vault").toString())
                        .at("/capture/added")
                        .asInt())
                .isEqualTo(1);
        save("a.txt", "two!");
        assertThat(json("capture").at("/0/changed").asInt()).isEqualTo(1);
        JsonNode line = json("line", file);
        assertThat(line.at("/points/0/version").asText()).isEqualTo("2");
        assertThat(line.at("/points/0/sequence").asInt()).isEqualTo(2);
        String sha = HexFormat.of()
                .formatHex(MessageDigest.getInstance("SHA-256").digest("two!".getBytes(StandardCharsets.UTF_8)));
        assertThat(line.at("/points/0/sha256").asText()).as("the plain SHA-256").isEqualTo(sha);
        assertThat(json("list", desk.toString()).at("/entries/0/versions").asInt())
                .isEqualTo(2);
        assertThat(json("restore", file, "--version", "1", "--plan")
                        .at("/0/step")
                        .asText())
                .isEqualTo("REPLACE");
        assertThat(Path.of(file)).as("a plan changes nothing").hasContent("two!");
        assertThat(json("restore", file, "--version", "1").at("/0/outcome").asText())
                .isEqualTo("DONE");
        assertThat(json("undo").at("/done/0").asText()).isEqualTo("a.txt");
        assertThat(json("remove", file).at("/removed/0").asText()).isEqualTo("a.txt");
        assertThat(json("check", "--full").at("/0/clean").asBoolean()).isTrue();
        assertThat(json("status").at("/0/places/0/every").asText()).isEqualTo("save");
    }

    @Test
    void whatIsLateIsSaidAndAMonitorCanTell() throws Exception {
        save("a.txt", "one");
        protect();
        assertThat(run("status")).isZero();
        now = now.plusSeconds(10 * 86_400);
        assertThat(run("status")).isEqualTo(4);
        assertThat(err).contains("late: what was saved since is not kept");
        assertThat(run("status", "--json")).isEqualTo(4);
        assertThat(out).contains("\"late\" : true");
        run("capture");
        assertThat(run("status")).isZero();
        Files.move(desk, temp.resolve("away"));
        assertThat(run("status")).isEqualTo(4);
        assertThat(err).contains("is not there");
    }

    @Test
    void aLargerContentHasItsPlainDigestToo() throws Exception {
        byte[] noise = new byte[3_000_000];
        new java.util.Random(8).nextBytes(noise);
        Files.write(desk.resolve("large.bin"), noise);
        protect();
        String sha =
                HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(noise));
        for (int i = 0; i < 2; i++) {
            assertThat(json("line", desk.resolve("large.bin").toString())
                            .at("/points/0/sha256")
                            .asText())
                    .isEqualTo(sha);
        }
    }

    @Test
    void theListingOfAMomentIsWhatWasThereThen() throws Exception {
        save("a.txt", "one");
        save("sub/b.txt", "two");
        protect();
        String then = now.toString();
        Files.delete(desk.resolve("a.txt"));
        run("capture");
        assertThat(json("list", desk.toString()).at("/entries")).hasSize(1);
        assertThat(json("list", desk.toString(), "--at", then).at("/entries")).hasSize(2);
        JsonNode removed = json("list", desk.toString(), "--removed").at("/entries/1");
        assertThat(removed.at("/name").asText()).isEqualTo("a.txt");
        assertThat(removed.has("removed")).isTrue();
    }

    @Test
    void aFolderOfAMomentIsRestoredElsewhereAsItWas() throws Exception {
        save("sub/a.txt", "one");
        save("sub/deep/b.txt", "two");
        protect();
        String then = now.toString();
        save("sub/a.txt", "changed");
        Files.delete(desk.resolve("sub/deep/b.txt"));
        run("capture");
        assertThat(run(
                        "restore",
                        desk.resolve("sub").toString(),
                        "--at",
                        then,
                        "--to",
                        temp.resolve("back").toString()))
                .isZero();
        assertThat(temp.resolve("back/sub/a.txt")).hasContent("one");
        assertThat(temp.resolve("back/sub/deep/b.txt")).hasContent("two");
        assertThat(run("restore", desk.resolve("sub/deep").toString())).isZero();
        assertThat(desk.resolve("sub/deep/b.txt")).hasContent("two");
    }

    @Test
    void wrongUseEndsWithTwoAndSaysWhatIsWrong() throws Exception {
        assertThat(run("status")).isEqualTo(2);
        assertThat(err).contains("There is no vault yet");
        String file = save("a.txt", "one");
        assertThat(run("protect", desk.toString(), "--vault", desk.resolve("v").toString()))
                .isEqualTo(2);
        assertThat(err).contains("lies in the folder");
        assertThat(run(
                        "protect",
                        temp.resolve("nowhere").toString(),
                        "--vault",
                        temp.resolve("vault").toString()))
                .isEqualTo(2);
        assertThat(err).contains("is not there");
        assertThat(temp.resolve("vault")).as("nothing half done").doesNotExist();
        protect();
        assertThat(run("restore", file, "--version", "7")).isEqualTo(2);
        assertThat(err).contains("has no version 7");
        assertThat(run("restore", file)).isEqualTo(2);
        assertThat(err).contains("Choose a version");
        assertThat(run("list", desk.toString(), "--at", "2020-01-01")).isEqualTo(2);
        assertThat(err).contains("before anything is known");
        assertThat(run("line", desk.resolve("never.txt").toString())).isEqualTo(2);
        assertThat(err).contains("was never captured");
        assertThat(run("list", temp.resolve("other").toString())).isEqualTo(2);
        assertThat(err).contains("in no protected folder");
        assertThat(run("nonsense")).isEqualTo(2);
        assertThat(run("remove", desk.toString())).isEqualTo(2);
        assertThat(run("undo")).isEqualTo(2);
    }

    @Test
    void aVaultThatIsAwayEndsWithThree() throws Exception {
        String file = save("a.txt", "one");
        protect();
        Files.move(temp.resolve("vault"), temp.resolve("unplugged"));
        assertThat(run("capture")).isEqualTo(3);
        assertThat(err).contains("There is no vault in");
        assertThat(run("line", file)).isEqualTo(3);
        Files.move(temp.resolve("unplugged"), temp.resolve("vault"));
        assertThat(run("line", file)).isZero();
    }

    @Test
    void aFolderThatIsAwayEndsWithOneAndNothingIsTakenToBeRemoved() throws Exception {
        save("a.txt", "one");
        protect();
        Files.move(desk, temp.resolve("elsewhere"));
        assertThat(run("capture")).isEqualTo(1);
        assertThat(err).contains("is not there");
        Files.move(temp.resolve("elsewhere"), desk);
        assertThat(run("capture")).isZero();
        assertThat(out).contains("nothing changed");
    }

    @Test
    void namesThatWouldDisturbATerminalAreShownEscaped() throws Exception {
        save("line\nbreak\u001b[31m.txt", "one");
        protect();
        assertThat(run("list", desk.toString())).isZero();
        assertThat(out).contains("line\\nbreak\\u001b[31m.txt");
    }
}
