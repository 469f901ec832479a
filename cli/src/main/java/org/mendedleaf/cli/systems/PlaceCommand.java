package org.mendedleaf.cli.systems;

import org.mendedleaf.cli.base.Group;
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
public final class PlaceCommand extends Group {}
