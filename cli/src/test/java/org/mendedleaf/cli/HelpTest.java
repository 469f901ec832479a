package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine;

class HelpTest extends TerminalTest {

    static Stream<List<String>> commands() {
        List<List<String>> all = new ArrayList<>();
        collect(ALL, List.of(), all);
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

    private static final CommandLine ALL = all();

    /** The program with all its commands. */
    static CommandLine all() {
        return Main.line(new Surroundings(
                Map.of(),
                java.time.Clock.systemUTC(),
                new java.io.PrintWriter(System.out),
                new java.io.PrintWriter(System.err),
                Optional.empty()));
    }

    private static CommandLine sub(List<String> path) {
        CommandLine line = ALL;
        for (String name : path) {
            line = line.getSubcommands().get(name);
        }
        return line;
    }

    /** As a shell takes a line apart. */
    private static List<String> words(String line) {
        List<String> words = new ArrayList<>();
        java.util.regex.Matcher m =
                java.util.regex.Pattern.compile("'([^']*)'|\"([^\"]*)\"|(\\S+)").matcher(line);
        while (m.find()) {
            words.add(m.group(1) != null ? m.group(1) : m.group(2) != null ? m.group(2) : m.group(3));
        }
        return words;
    }

    @Test
    void theHelpListsEachCommandOnceInTheSectionOfItsPackage() {
        String help = ALL.getUsageMessage();
        Map<String, List<String>> sections = new java.util.LinkedHashMap<>();
        ALL.getSubcommands()
                .forEach((name, sub) -> sections.computeIfAbsent(
                                CommandSections.section(
                                        sub.getCommandSpec().userObject().getClass()),
                                s -> new ArrayList<>())
                        .add(name));
        assertThat(sections)
                .containsOnlyKeys("protect", "past", "recover", "revise", "keep", "care", "systems", "program");
        int at = 0;
        for (Map.Entry<String, List<String>> section : sections.entrySet()) {
            at = help.indexOf("\n" + Words.of("cli.section." + section.getKey()) + "\n", at);
            assertThat(at).as(section.getKey()).isPositive();
            for (String name : section.getValue()) {
                at = help.indexOf("\n  " + name + " ", at);
                assertThat(at).as(name).isPositive();
                assertThat(help.indexOf("\n  " + name + " ", at + 1))
                        .as("another %s", name)
                        .isNegative();
            }
        }
    }

    @ParameterizedTest
    @MethodSource("commands")
    void everyCommandHasExamplesThatItUnderstands(List<String> command) {
        CommandLine line = sub(command);
        if (!line.getSubcommands().isEmpty()) {
            return;
        }
        String[] examples = line.getCommandSpec().usageMessage().footer();
        assertThat(examples).hasSizeBetween(2, 3);
        for (String example : examples) {
            List<String> words = words(example);
            assertThat(words.get(0)).isEqualTo("mended-leaf");
            assertThat(words.subList(1, 1 + command.size())).isEqualTo(command);
            CommandLine.ParseResult parsed =
                    ALL.parseArgs(words.subList(1, words.size()).toArray(String[]::new));
            assertThat(parsed.errors()).as(example).isEmpty();
        }
    }

    @Test
    void theHelpOfTheWholeSaysTheSameWithoutGoingThroughTheOptionsOfEachCommand() {
        String whole = ALL.getUsageMessage();
        for (String[] asked : new String[][] {{}, {"-h"}, {"--help"}}) {
            assertThat(run(asked)).isZero();
            assertThat(out).isEqualTo(whole);
        }
        assertThat(run("--help", "list")).isZero();
        assertThat(run("--no-such")).isEqualTo(ExitCodes.WRONG_USE);
    }

    @Test
    void aSlipIsAnsweredInOneLineWithWhatMayHaveBeenMeant() {
        assertThat(run("restor", "x")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err.lines()).hasSize(1);
        assertThat(err).contains("Did you mean").contains("restore").contains("mended-leaf --help");
        assertThat(run("restore", "x", "--verison", "3")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err).contains("--version").contains("mended-leaf restore --help");
        assertThat(run("copy", "x")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(err.lines()).hasSize(1);
        assertThat(err).contains("--to").contains("mended-leaf copy --help");
        assertThat(out).isEmpty();
    }

    @Test
    void errorsAreJsonWhereJsonWasAskedFor() throws Exception {
        assertThat(run("line", "nowhere.txt", "--json")).isEqualTo(ExitCodes.WRONG_USE);
        var error =
                new com.fasterxml.jackson.databind.ObjectMapper().readTree(out).get("error");
        assertThat(error.get("code").asText()).isEqualTo("wrongUse");
        assertThat(error.get("message").asText()).isNotBlank();
        assertThat(err).isEmpty();
        run("line", "--json", "--no-such");
        assertThat(new com.fasterxml.jackson.databind.ObjectMapper()
                        .readTree(out)
                        .at("/error/code")
                        .asText())
                .isEqualTo("wrongUse");
        assertThat(run("place", "set", "Nowhere:Place", "--json")).isNotZero();
        assertThat(out).contains("\"error\"");
        assertThat(run("line", "--", "--json")).isEqualTo(ExitCodes.WRONG_USE);
        assertThat(out).as("that is a file").isEmpty();
    }

    @Test
    void theManualIsMadeFromTheSameWords() throws Exception {
        assertThat(run("man", "--to", temp.resolve("man").toString())).isZero();
        assertThat(Files.readString(temp.resolve("man/mended-leaf-restore.1")))
                .startsWith(".TH \"MENDED\\-LEAF\\-RESTORE\"".replace("\\-", "-"))
                .contains(".SH EXAMPLES")
                .contains("\\-\\-version");
        assertThat(run("man")).isZero();
        assertThat(out).contains(".SH COMMANDS").contains(".B unprotect");
        assertThat(run("completion", "bash")).isZero();
        assertThat(out).contains("complete -F").contains("unprotect");
        assertThat(run("completion", "fish")).isEqualTo(ExitCodes.WRONG_USE);
    }

    @ParameterizedTest
    @MethodSource("commands")
    void everyCommandExplainsItself(List<String> command) {
        for (String asked : List.of(command.size() % 2 == 0 ? "--help" : "-h")) {
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
