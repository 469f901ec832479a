package org.mendedleaf.cli.base;

import picocli.CommandLine;

/** A command that only holds others: by itself it shows them. */
public abstract class Group implements Runnable {

    @CommandLine.Option(
            names = {"-h", "--help"},
            usageHelp = true,
            descriptionKey = "cli.option.help")
    boolean help;

    @CommandLine.Spec
    @SuppressWarnings("NullAway.Init")
    CommandLine.Model.CommandSpec spec;

    @Override
    public final void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
