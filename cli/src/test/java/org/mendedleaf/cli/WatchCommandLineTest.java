package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Predicate;
import org.junit.jupiter.api.Test;
import org.mendedleaf.cli.base.ExitCodes;

class WatchCommandLineTest extends TerminalTest {

    private final StringWriter said = new StringWriter();
    private final AtomicInteger code = new AtomicInteger(-1);

    private Thread watch(String... more) {
        List<String> arguments = new ArrayList<>(List.of("watch"));
        arguments.addAll(List.of(more));
        Clock clock = Clock.fixed(now.plusSeconds(600), ZoneOffset.UTC);
        Thread thread = new Thread(() -> code.set(Main.run(
                arguments.toArray(String[]::new),
                Map.of("MENDED_LEAF_HOME", temp.resolve("home").toString()),
                clock,
                new PrintWriter(said),
                new PrintWriter(said))));
        thread.start();
        return thread;
    }

    private void until(Predicate<String> there) throws InterruptedException {
        for (int i = 0; i < 600 && !there.test(said.toString()); i++) {
            Thread.sleep(100);
        }
        assertThat(there.test(said.toString())).as(said.toString()).isTrue();
    }

    @Test
    void itSaysWhatCameInWhenAndASecondOneLeavesTheVaultAlone() throws Exception {
        save("a.txt", "one");
        protect();
        Thread watching = watch();
        until(s -> s.contains("Watching. Stop with Ctrl+C."));
        save("sub/b.txt", "two");
        until(s -> s.contains("sub/b.txt"));
        assertThat(said.toString().lines().filter(l -> l.contains("sub/b.txt")))
                .allMatch(l -> l.matches("\\d\\d:\\d\\d:\\d\\d  desk: 1 new, .*: sub/b\\.txt"));
        assertThat(run("watch")).isEqualTo(ExitCodes.SOME_FAILED);
        assertThat(err).contains("Another program keeps the vault");
        watching.interrupt();
        watching.join(30_000);
        assertThat(code.get()).isZero();
        assertThat(said.toString()).contains("Watching has ended.");
        assertThat(run("line", desk.resolve("sub/b.txt").toString())).isZero();

        assertThat(run("status")).as(err).isZero();
        assertThat(out).contains("is noted in").contains("activity.log").doesNotContain("desk: 1 new");
        assertThat(run("status", "--verbose")).isZero();
        assertThat(out.lines().filter(l -> l.contains("watch[")))
                .anyMatch(l -> l.contains("Watching. Stop"))
                .anyMatch(l -> l.matches(".*Z  watch\\[\\d+]  desk: 1 new, .*"))
                .last()
                .asString()
                .contains("Watching has ended.");
    }

    @Test
    void asJsonEachEventIsALine() throws Exception {
        save("a.txt", "one");
        protect();
        Thread watching = watch("--json");
        until(s -> s.contains("started"));
        save("c.txt", "three");
        until(s -> s.contains("c.txt"));
        watching.interrupt();
        watching.join(30_000);
        JsonAnswers.hold(new String[] {"watch", "--json"}, said.toString());
        List<JsonNode> events = new ArrayList<>();
        for (String line : said.toString().lines().toList()) {
            events.add(new ObjectMapper().readTree(line));
        }
        assertThat(events).extracting(e -> e.get("event").asText()).contains("started", "captured", "ended");
        JsonNode captured = events.stream()
                .filter(e -> e.get("event").asText().equals("captured"))
                .reduce((x, y) -> y)
                .orElseThrow();
        assertThat(captured.get("files").get(0).asText()).isEqualTo("c.txt");
        assertThat(captured.get("added").asInt()).isEqualTo(1);
        assertThat(captured.get("place").asText()).isEqualTo(desk.toString());
    }
}
