package org.mendedleaf.cli;

import java.util.List;
import java.util.Locale;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Help;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** A page of the manual for one command, in the man macros that every Unix has (man(7)). */
final class ManPage {

    private final StringBuilder page = new StringBuilder();

    private ManPage() {}

    /** The page of a command. */
    static String of(CommandSpec command) {
        return new ManPage().write(command);
    }

    private String write(CommandSpec command) {
        Help help = new Help(command, Help.defaultColorScheme(Help.Ansi.OFF));
        String name = command.qualifiedName("-");
        String[] description = command.usageMessage().description();
        String about = description.length == 0
                ? Words.of("cli.man.title")
                : String.join(" ", help.description().split("\\s+"));
        macro(".TH \"" + name.toUpperCase(Locale.ROOT) + "\" 1");
        macro(".SH NAME");
        text(name + " - " + firstSentence(about));
        macro(".SH SYNOPSIS");
        text(String.join(" ", help.synopsis(0).strip().split("\\s+")));
        macro(".SH DESCRIPTION");
        text(about);
        if (!command.positionalParameters().isEmpty() || !command.options().isEmpty()) {
            macro(".SH OPTIONS");
            for (PositionalParamSpec p : command.positionalParameters()) {
                entry(p.paramLabel(), p.description());
            }
            for (OptionSpec o : command.options()) {
                boolean bare = o.arity().max() == 0;
                entry(String.join(", ", o.names()) + (bare ? "" : " " + o.paramLabel()), o.description());
            }
        }
        if (!command.subcommands().isEmpty()) {
            macro(".SH COMMANDS");
            command.subcommands()
                    .forEach((sub, line) ->
                            entry(sub, line.getCommandSpec().usageMessage().description()));
        }
        String[] examples = command.usageMessage().footer();
        if (examples.length > 0) {
            macro(".SH EXAMPLES");
            for (String example : examples) {
                macro(".PP");
                text(example.strip());
            }
        }
        macro(".SH " + Words.of("cli.man.exit"));
        text(Words.of("cli.man.exit.text"));
        return page.toString();
    }

    private static String firstSentence(String text) {
        int end = text.indexOf(". ");
        return end < 0 ? text : text.substring(0, end + 1);
    }

    private void entry(String term, String[] description) {
        macro(".TP");
        macro(".B " + escaped(term));
        text(String.join(" ", List.of(description)));
    }

    private void macro(String line) {
        page.append(line).append('\n');
    }

    private void text(String words) {
        String escaped = escaped(words);
        // A line that begins so would be taken for a macro.
        page.append(escaped.startsWith(".") || escaped.startsWith("'") ? "\\&" : "")
                .append(escaped)
                .append('\n');
    }

    private static String escaped(String words) {
        return words.replace("\\", "\\e").replace("-", "\\-");
    }
}
