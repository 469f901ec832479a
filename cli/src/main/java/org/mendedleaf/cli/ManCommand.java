package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Prints the manual page, or writes one for each command. */
@Command(name = "man", description = "${bundle:cli.man}")
final class ManCommand extends Base {

    @Spec
    @SuppressWarnings("NullAway.Init")
    CommandSpec spec;

    @Option(names = "--to", paramLabel = "DIR", descriptionKey = "cli.man.to")
    @Nullable
    Path to;

    ManCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws IOException {
        Map<String, String> pages = new TreeMap<>();
        collect(spec.root(), pages);
        Path folder = to;
        if (folder == null) {
            surroundings.out().println(pages.get(spec.root().name()));
            return ExitCodes.DONE;
        }
        Files.createDirectories(folder);
        for (Map.Entry<String, String> page : pages.entrySet()) {
            Files.writeString(folder.resolve(page.getKey() + ".1"), page.getValue());
        }
        say("cli.man.written", pages.size(), folder);
        return ExitCodes.DONE;
    }

    private static void collect(CommandSpec command, Map<String, String> pages) {
        pages.put(command.qualifiedName("-"), ManPage.of(command));
        command.subcommands().forEach((name, sub) -> collect(sub.getCommandSpec(), pages));
    }
}
