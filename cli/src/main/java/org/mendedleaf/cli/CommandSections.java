package org.mendedleaf.cli;

import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine;

/** Lists the commands in sections: one for each package in which commands stand, in the order in which they are named. */
final class CommandSections implements CommandLine.IHelpSectionRenderer {

    private static final String MARGIN = "  ";

    /**
     * The table of the parser would do, but it looks for where words may be broken in each language there is, and takes longer than all
     * else that the program does for its help.
     */
    @Override
    public String render(CommandLine.Help help) {
        Map<String, Map<String, String>> sections = new LinkedHashMap<>();
        help.commandSpec()
                .subcommands()
                .forEach((name, sub) -> sections.computeIfAbsent(
                                section(Commands.named(name)), s -> new LinkedHashMap<>())
                        .put(
                                name,
                                String.join(
                                        " ", sub.getCommandSpec().usageMessage().description())));
        int width = help.commandSpec().usageMessage().width();
        StringBuilder text = new StringBuilder();
        sections.forEach((section, commands) -> {
            text.append(System.lineSeparator())
                    .append(Words.of("cli.section." + section))
                    .append(System.lineSeparator());
            int longest =
                    commands.keySet().stream().mapToInt(String::length).max().orElse(0);
            int column = MARGIN.length() + longest + MARGIN.length();
            commands.forEach((name, what) -> row(text, name, what, column, width));
        });
        return text.toString();
    }

    private static void row(StringBuilder text, String name, String what, int column, int width) {
        String begin = MARGIN + name;
        text.append(begin).append(" ".repeat(column - begin.length()));
        int at = column;
        for (String word : what.split(" ")) {
            if (at > column && at + 1 + word.length() >= width) {
                text.append(System.lineSeparator()).append(" ".repeat(column));
                at = column;
            } else if (at > column) {
                text.append(' ');
                at++;
            }
            text.append(word);
            at += word.length();
        }
        text.append(System.lineSeparator());
    }

    /** The section of a command: the last part of its package's name; what is in none of its own is about the program. */
    static String section(Class<?> command) {
        String name = command.getPackageName();
        return name.equals(Main.class.getPackageName()) ? "program" : name.substring(name.lastIndexOf('.') + 1);
    }
}
