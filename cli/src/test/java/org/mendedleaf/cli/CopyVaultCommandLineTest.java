package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcome;

/** Copies of the vault, as it is typed. */
class CopyVaultCommandLineTest extends TerminalTest {

    private String file;
    private Path copy;

    @BeforeEach
    void start() throws Exception {
        file = save("letter.txt", "Dear Tomas, the first one");
        protect();
        copy = temp.toRealPath().resolve("drive/copy");
    }

    private void add() {
        assertThat(run("copy-vault", "add", copy.toString())).isZero();
    }

    @Test
    void aCopyIsPlannedMadeListedAndEnded() throws Exception {
        run("copy-vault", "list");
        assertThat(out).contains("No copy of the vault is kept");
        assertThat(run("copy-vault", "add", copy.toString(), "--plan")).isZero();
        assertThat(copy).doesNotExist();
        add();
        assertThat(out).contains("A copy is kept in " + copy + " from now on").contains("Brought in step");
        assertThat(err).contains("same drive as the vault");
        JsonNode listed = json("copy-vault", "list").get(0);
        assertThat(listed.get("standing").asText()).isEqualTo("IN_STEP");
        assertThat(listed.get("commitsBehind").asLong()).isZero();
        assertThat(run("copy-vault", "end", copy.toString())).isZero();
        assertThat(run("copy-vault", "end", copy.toString())).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("No copy is kept in");
    }

    @Test
    void whatWasCapturedSinceComesWithTheNextRun() throws Exception {
        add();
        save("letter.txt", "Dear Tomas, the second one");
        assertThat(run("capture")).isZero();
        run("status");
        assertThat(out).contains("Copy of the vault in " + copy).contains("is still to come");
        assertThat(json("copy-vault", "run").get(0).get("writtenBytes").asLong())
                .isPositive();
        assertThat(json("status").get(0).at("/copies/0/standing").asText()).isEqualTo("IN_STEP");
        run("line", file, "--vault", copy.toString());
        assertThat(out).contains("2 versions");
    }

    @Test
    void aCopyThatIsAwayIsSaidAndLosesNothing() throws Exception {
        add();
        save("letter.txt", "Dear Tomas, the second one");
        assertThat(run("capture")).isZero();
        Path away = temp.resolve("away");
        Files.move(copy.getParent(), away);
        assertThat(run("copy-vault", "run")).isEqualTo(ExitCodes.SOME_FAILED);
        assertThat(err).contains("is not there").contains("bring the drive back");
        assertThat(run("copy-vault", "list")).isEqualTo(ExitCodes.LATE);
        assertThat(run("status")).isEqualTo(ExitCodes.LATE);
        assertThat(err).contains("Its drive is away");
        Files.move(away, copy.getParent());
        assertThat(run("copy-vault", "run")).isZero();
        assertThat(run("status")).isZero();
    }

    @Test
    void aCopyIsReadAndIsHealedByTheVault() throws Exception {
        add();
        Path pack = copy.resolve("packs/00000001.pack");
        byte[] bytes = Files.readAllBytes(pack);
        bytes[bytes.length / 2] ^= 0x21;
        Files.write(pack, bytes);
        assertThat(run("copy-vault", "check")).isZero();
        assertThat(out).contains("again from the vault").contains("nothing wrong");
        assertThat(run("check", "--full", "--vault", copy.toString())).isZero();
    }

    @Test
    void whenTheVaultIsGoneItsCopyIsUsed() throws Exception {
        add();
        assertThat(run("copy-vault", "use", copy.toString())).isEqualTo(Outcome.NEEDS_YES.code());
        assertThat(err).contains("Use --yes");
        delete(temp.resolve("vault"));
        assertThat(run("copy-vault", "use", copy.toString(), "--yes")).isZero();
        Files.writeString(Path.of(file), "Dear Tomas, the second one");
        assertThat(run("capture", "--vault", copy.toString())).isZero();
        run("line", file, "--vault", copy.toString());
        assertThat(out).contains("2 versions");
        assertThat(run("copy-vault", "use", copy.toString(), "--yes")).isEqualTo(ExitCodes.WRONG_USE);
    }

    private static void delete(Path folder) throws IOException {
        try (var all = Files.walk(folder)) {
            for (Path each : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.delete(each);
            }
        }
    }

    @Test
    void intoACopyNothingIsWritten() throws Exception {
        add();
        for (String[] command :
                new String[][] {{"capture"}, {"note", file, "--version", "1", "changed"}, {"check", "--every", "7"}}) {
            String[] with = java.util.Arrays.copyOf(command, command.length + 2);
            with[command.length] = "--vault";
            with[command.length + 1] = copy.toString();
            assertThat(run(with)).isEqualTo(ExitCodes.NO_VAULT);
            assertThat(err).contains("is a copy of a vault");
        }
    }

    @Test
    void whatWasErasedStaysInTheCopyNoLongerThanItSays() throws Exception {
        save("letter.txt", "Dear Tomas, the second one");
        assertThat(run("capture")).isZero();
        add();
        assertThat(run("erase", file, "--version", "1", "--yes")).isZero();
        assertThat(run("reclaim", "--now", "--yes")).isZero();
        assertThat(err).contains("The copy of the vault in " + copy + " still holds what went");
        assertThat(run("copy-vault", "run")).isZero();
        assertThat(run("reclaim")).isZero();
        assertThat(err).doesNotContain("still holds");
    }

    @Test
    void howOftenEveryByteIsReadIsChosen() throws Exception {
        assertThat(run("check", "--every", "7")).isZero();
        assertThat(out).contains("every 7 days");
        assertThat(run("check", "--every", "off")).isZero();
        assertThat(out).contains("only when somebody asks");
        assertThat(run("check", "--every", "often")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("got often");
    }
}
