package org.mendedleaf.cli;

import picocli.CommandLine;
import picocli.CommandLine.Command;

/** Places in other systems: make one, change its settings, list them. */
@Command(
        name = "place",
        description = "${bundle:cli.place}",
        mixinStandardHelpOptions = true,
        subcommands = {PlaceCreateCommand.class, PlaceSetCommand.class, PlaceListCommand.class})
final class PlaceCommand implements Runnable {

    @CommandLine.Spec
    @SuppressWarnings("NullAway.Init")
    CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
