package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import picocli.CommandLine;

class HelpTest extends TerminalTest {

    static Stream<List<String>> commands() {
        List<List<String>> all = new ArrayList<>();
        collect(Main.line(new Surroundings(
                Map.of(),
                java.time.Clock.systemUTC(),
                new java.io.PrintWriter(System.out),
                new java.io.PrintWriter(System.err),
                Optional.empty())), List.of(), all);
        return all.stream();
    }

    private static void collect(CommandLine line, List<String> path, List<List<String>> all) {
        all.add(path);
        line.getSubcommands().forEach((name, sub) -> {
            List<String> deeper = new ArrayList<>(path);
            deeper.add(name);
            collect(sub, deeper, all);
        });
    }

    @ParameterizedTest
    @MethodSource("commands")
    void everyCommandExplainsItself(List<String> command) {
        for (String asked : new String[] {"--help", "-h"}) {
            List<String> arguments = new ArrayList<>(command);
            arguments.add(asked);
            assertThat(run(arguments.toArray(String[]::new))).as(err).isZero();
            assertThat(out)
                    .startsWith(("Usage: mended-leaf " + String.join(" ", command)).strip())
                    .contains("Show this help.")
                    .doesNotContain("${");
            assertThat(err).isEmpty();
        }
    }
}
