package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.ExitCodes;

/** The background service, as far as it is asked and ended from the command line. */
class ServiceCommandLineTest extends TerminalTest {

    private final StringWriter said = new StringWriter();
    private final AtomicInteger code = new AtomicInteger(-1);

    private Thread service() {
        Thread thread = new Thread(() -> code.set(Main.run(
                new String[] {"service", "run"},
                Map.of("MENDED_LEAF_HOME", temp.resolve("home").toString()),
                Clock.fixed(now.plusSeconds(600), ZoneOffset.UTC),
                new PrintWriter(said),
                new PrintWriter(said))));
        thread.start();
        return thread;
    }

    private void until(Callable<Boolean> there) throws Exception {
        for (int i = 0; i < 600 && !there.call(); i++) {
            Thread.sleep(100);
        }
        assertThat(there.call()).as(said + "\n" + out + err).isTrue();
    }

    @Test
    void itKeepsTheVaultsSaysSoAndEndsWhenItIsTold() throws Exception {
        save("a.txt", "one");
        protect();
        assertThat(run("service", "status")).isEqualTo(ExitCodes.SOME_FAILED);
        assertThat(out).contains("The service does not run.");

        Thread running = service();
        until(() -> run("service", "status") == 0);
        until(() -> {
            run("service", "status");
            return out.contains("keeps " + temp.resolve("vault"));
        });
        save("b.txt", "two");
        until(() -> run("line", desk.resolve("b.txt").toString()) == 0);
        assertThat(run("service", "status", "--json")).isZero();
        assertThat(new ObjectMapper()
                        .readTree(out)
                        .path("vaults")
                        .get(0)
                        .path("trouble")
                        .asText())
                .isEmpty();
        assertThat(run("service", "run")).as("a second one").isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("runs already");
        assertThat(run("watch")).as("what it keeps is kept").isEqualTo(ExitCodes.SOME_FAILED);

        assertThat(run("service", "stop")).as(err).isZero();
        running.join(60_000);
        assertThat(code).hasValue(0);
        assertThat(run("service", "status")).isEqualTo(ExitCodes.SOME_FAILED);
        assertThat(run("status", "--verbose")).isZero();
        assertThat(out.lines().filter(l -> l.contains("service["))).anyMatch(l -> l.contains("keeps your vaults"));
    }

    @Test
    void aVaultThatIsAwayIsWaitedForAndOneThatComesLaterIsKeptToo() throws Exception {
        save("a.txt", "one");
        protect();
        Path vault = temp.resolve("vault");
        Path away = temp.resolve("away");
        Files.move(vault, away);
        Thread running = service();
        until(() -> run("service", "status") == 0 && out.contains(vault.toString()));
        assertThat(out).doesNotContain("keeps " + vault);
        Files.move(away, vault);
        until(() -> run("service", "status") == 0 && out.contains("keeps " + vault));
        save("c.txt", "three");
        until(() -> run("line", desk.resolve("c.txt").toString()) == 0);
        assertThat(run("service", "stop")).as(err).isZero();
        running.join(60_000);
        assertThat(code).hasValue(0);
    }

    @Test
    void aFolderThatCannotBeCapturedIsNamedWithTheVaultUntilItIsThereAgain() throws Exception {
        save("a.txt", "one");
        protect();
        Thread running = service();
        until(() -> run("service", "status") == 0 && out.contains("keeps "));
        Path away = temp.resolve("away");
        Files.move(desk, away);
        until(() -> run("service", "status") == 0 && out.contains(desk + " is not there"));
        assertThat(run("service", "status", "--json")).isZero();
        assertThat(out).contains("\"keptByOthers\" : false").contains("is not there");
        Files.move(away, desk);
        until(() -> run("service", "status") == 0 && !out.contains("is not there"));
        assertThat(run("service", "stop")).as(err).isZero();
        running.join(60_000);
    }
}
