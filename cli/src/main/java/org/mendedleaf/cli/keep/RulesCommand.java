package org.mendedleaf.cli.keep;

import org.mendedleaf.cli.base.Group;
import picocli.CommandLine.Command;

/** Retention rules: what is kept, and for how long. */
@Command(
        name = "rules",
        description = "${bundle:cli.rules}",
        subcommands = {RulesShowCommand.class, RulesSetCommand.class, RulesCheckCommand.class})
public final class RulesCommand extends Group {}
