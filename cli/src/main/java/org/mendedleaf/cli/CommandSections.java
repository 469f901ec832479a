package org.mendedleaf.cli;

import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine;

/** Lists the commands in sections: one for each package in which commands stand, in the order in which they are named. */
final class CommandSections implements CommandLine.IHelpSectionRenderer {

    @Override
    public String render(CommandLine.Help help) {
        Map<String, Map<String, CommandLine.Help>> sections = new LinkedHashMap<>();
        help.subcommands()
                .forEach((name, sub) -> sections.computeIfAbsent(
                                section(Commands.named(name)), s -> new LinkedHashMap<>())
                        .put(name, sub));
        StringBuilder text = new StringBuilder();
        sections.forEach((section, commands) -> text.append(String.format("%n"))
                .append(Words.of("cli.section." + section))
                .append(String.format("%n"))
                .append(help.commandList(commands)));
        return text.toString();
    }

    /** The section of a command: the last part of its package's name; what is in none of its own is about the program. */
    static String section(Class<?> command) {
        String name = command.getPackageName();
        return name.equals(Main.class.getPackageName()) ? "program" : name.substring(name.lastIndexOf('.') + 1);
    }
}
