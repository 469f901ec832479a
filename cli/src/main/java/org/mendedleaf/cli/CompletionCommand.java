package org.mendedleaf.cli;

import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.words.Words;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Prints what a shell needs to complete commands and options, made from the commands themselves. */
@Command(name = "completion", description = "${bundle:cli.completion}")
final class CompletionCommand extends Base {

    @Spec
    @SuppressWarnings("NullAway.Init")
    CommandSpec spec;

    @Parameters(paramLabel = "bash|zsh", descriptionKey = "cli.completion.shell")
    @SuppressWarnings("NullAway.Init")
    String shell;

    CompletionCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() {
        if (!shell.equals("bash") && !shell.equals("zsh")) {
            throw new IllegalArgumentException(Words.of("cli.completion.unknown", shell));
        }
        CommandLine root = spec.root().commandLine();
        // It completes in zsh too, by the functions that zsh has for it and which it loads itself.
        surroundings.out().println(AutoComplete.bash(root.getCommandName(), root));
        return ExitCodes.DONE;
    }
}
