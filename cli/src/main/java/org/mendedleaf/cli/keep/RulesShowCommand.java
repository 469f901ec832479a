package org.mendedleaf.cli.keep;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.retention.RuleFile;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Shows the rules that count. */
@Command(name = "show", description = "${bundle:cli.rules.show}")
public final class RulesShowCommand extends RulesBase {

    @Option(names = "--yaml", descriptionKey = "cli.rules.yaml")
    boolean yaml;

    public RulesShowCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        return eachVault((folder, open) -> {
            try (Reading reading = open.read()) {
                RuleSet rules = RuleSets.of(reading);
                if (json) {
                    surroundings.out().println(RuleFile.json(rules));
                } else if (yaml) {
                    surroundings.out().print(RuleFile.yaml(rules));
                } else {
                    print(reading, rules);
                }
                return ExitCodes.DONE;
            }
        });
    }
}
