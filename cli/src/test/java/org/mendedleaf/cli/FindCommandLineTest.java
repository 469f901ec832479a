package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** Finding, as it is typed. */
class FindCommandLineTest extends TerminalTest {

    private String lease = "";

    private void versions() throws Exception {
        lease = save("lease.txt", "The rent is 400.");
        protect();
        save("lease.txt", "The rent is 400. A cat may be kept.");
        assertThat(run("capture")).isZero();
        save("lease.txt", "The rent is 450.");
        assertThat(run("capture")).isZero();
    }

    @Test
    void aPhraseIsAnsweredWithTheVersionsThatHeldIt() throws Exception {
        versions();
        assertThat(run("find", "cat may be kept")).isZero();
        assertThat(out)
                .contains(lease)
                .contains("in version 2 only")
                .contains("gone since version 3")
                .contains("[cat may be kept]");
        JsonNode hit = json("find", "\"cat may\"").get(0);
        assertThat(hit.at("/spans/0/first").asText()).isEqualTo("2");
        assertThat(hit.at("/spans/0/gone").asText()).isEqualTo("3");
        assertThat(run("find", "nothing like it")).isZero();
        assertThat(out).contains("Nothing found.");
        assertThat(run("find", "rent", "--kind", "odt")).isZero();
        assertThat(out).contains("Nothing found.");
        assertThat(run("find", "lease", "--names")).isZero();
        assertThat(out).contains("name: lease.txt");
    }

    @Test
    void removedFilesAreMarkedAndCanBeAskedForAlone() throws Exception {
        versions();
        save("here.txt", "the rent too");
        Files.delete(Path.of(lease));
        assertThat(run("capture")).isZero();
        assertThat(run("find", "rent", "--removed")).isZero();
        assertThat(out).contains("lease.txt (removed)").doesNotContain("here.txt");
        assertThat(run("find", "rent", "--present")).isZero();
        assertThat(out).contains("here.txt").doesNotContain("lease.txt");
        assertThat(run("find", "rent", "--in", desk.toString())).isZero();
        assertThat(out).contains("here.txt").contains("lease.txt");
    }

    @Test
    void theIndexIsMadeAnewLeftOutAndTakenInAgain() throws Exception {
        versions();
        JsonNode first = json("index").get(0);
        assertThat(first.get("added").asInt()).isEqualTo(3);
        assertThat(json("index").get(0).get("added").asInt()).isZero();
        assertThat(json("index", "--anew").get(0).get("added").asInt()).isEqualTo(3);
        assertThat(run("index", desk.toString(), "--off")).isZero();
        assertThat(run("find", "rent")).isZero();
        assertThat(out).contains("Nothing found.");
        assertThat(run("index", desk.toString(), "--on")).isZero();
        assertThat(run("find", "rent")).isZero();
        assertThat(out).contains("lease.txt");
        assertThat(run("index", "--off")).isNotZero();
        assertThat(err).contains("Name one folder");
    }
}
