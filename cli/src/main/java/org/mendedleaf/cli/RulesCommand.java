package org.mendedleaf.cli;

import picocli.CommandLine.Command;

/** Retention rules: what is kept, and for how long. */
@Command(
        name = "rules",
        description = "${bundle:cli.rules}",
        subcommands = {RulesShowCommand.class, RulesSetCommand.class, RulesCheckCommand.class})
final class RulesCommand extends Group {}
