package org.mendedleaf.cli;

import picocli.CommandLine.Command;

/** Places in other systems: make one, change its settings, list them. */
@Command(
        name = "place",
        description = "${bundle:cli.place}",
        subcommands = {
            PlaceCreateCommand.class,
            PlaceSetCommand.class,
            PlaceListCommand.class,
            PlaceSettingsCommand.class
        })
final class PlaceCommand extends Group {}
