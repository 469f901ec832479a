package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A damaged vault heals from the files that are there, as it is typed. */
class HealCommandLineTest extends TerminalTest {

    private static String noise(long seed) {
        byte[] noise = new byte[40_000];
        new Random(seed).nextBytes(noise);
        return Base64.getEncoder().encodeToString(noise);
    }

    /** A byte at a third of the only pack, which is within what was captured first. */
    private void damage() throws IOException {
        try (var all = Files.walk(temp.resolve("vault"))) {
            Path pack =
                    all.filter(p -> p.toString().endsWith(".pack")).findFirst().orElseThrow();
            byte[] bytes = Files.readAllBytes(pack);
            bytes[bytes.length / 3] ^= 0x55;
            Files.write(pack, bytes);
        }
    }

    @Test
    void whatTheFolderStillHoldsIsWholeAgain() throws Exception {
        String file = save("a.txt", noise(1));
        protect();
        damage();
        assertThat(run("check", "--full")).isNotZero();
        assertThat(run("check", "--heal")).isZero();
        assertThat(out)
                .contains("a.txt, version 1: whole again, from a file that is there")
                .contains("versions are whole");
        Files.delete(Path.of(file));
        assertThat(run("capture")).isZero();
        assertThat(run("restore", file, "--version", "1")).isZero();
        assertThat(Path.of(file)).content().isEqualTo(noise(1));
    }

    @Test
    void aCatalogueIsMadeAnewAndSaysOutOfWhat() throws Exception {
        save("a.txt", noise(1));
        protect();
        assertThat(run("check", "--rebuild")).as(err).isZero();
        assertThat(out)
                .containsPattern(
                        "A new catalogue was made from \\d+ commits and (1 chunk|\\d+ chunks); the old one is ");
    }

    @Test
    void whatNobodyHasIsNamed() throws Exception {
        String file = save("a.txt", noise(1));
        protect();
        save("a.txt", "saved over");
        assertThat(run("capture")).isZero();
        damage();
        assertThat(run("check", "--heal")).isNotZero();
        assertThat(err).contains("a.txt");
        JsonNode json = json("check", "--heal").get(0);
        assertThat(json.get("healed")).isEmpty();
        assertThat(json.at("/lost/0/path").asText()).isEqualTo("a.txt");
        assertThat(run(
                        "copy",
                        file,
                        "--version",
                        "2",
                        "--to",
                        temp.resolve("out.txt").toString()))
                .as("all else works on")
                .isZero();
    }

    @Test
    void aVaultThatIsWholeIsLeftAlone() throws Exception {
        save("a.txt", noise(1));
        protect();
        assertThat(run("check", "--heal")).isZero();
        assertThat(out).doesNotContain("whole again");
    }

    @Test
    void whenTheLastFullCheckWasAndWhatCameOfItIsSaid() throws Exception {
        String file = save("a.txt", noise(1));
        protect();
        run("status");
        assertThat(out).contains("The vault was never checked in full.");
        assertThat(run("check")).isZero();
        run("status");
        assertThat(out).as("that one was not full").contains("never checked");
        assertThat(run("check", "--full")).isZero();
        run("status");
        assertThat(out).contains("Last full check of the vault:").contains("all whole");
        save("a.txt", "saved over");
        assertThat(run("capture")).isZero();
        damage();
        assertThat(run("check", "--heal")).isNotZero();
        run("status");
        assertThat(out).contains("1 version lost");
        assertThat(Files.exists(Path.of(file))).isTrue();
    }
}
