package org.mendedleaf.cli.keep;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.ThinPlan;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Sets rules from a file. Nothing goes by that: letting go is a step of its own, or the work of standing rules. */
@Command(name = "set", description = "${bundle:cli.rules.set}")
public final class RulesSetCommand extends RulesBase {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.rules.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--plan", descriptionKey = "cli.rules.plan")
    boolean plan;

    public RulesSetCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        RuleSet rules = read(file);
        return eachVault((folder, open) -> {
            if (!plan) {
                RuleSets.set(open, rules, clock(), who());
            }
            try (Reading reading = open.read()) {
                if (json) {
                    ThinPlan then = mayGo(reading, rules);
                    Map<String, Object> map = new LinkedHashMap<>();
                    map.put("vault", folder.toString());
                    map.put("set", !plan);
                    map.put("versions", then.versions());
                    map.put("freedBytes", then.freedBytes());
                    map.put("warnings", then.warnings());
                    printJson(map);
                    return ExitCodes.DONE;
                }
                say(plan ? "cli.rules.wouldBeSet" : "cli.rules.isSet", folder);
                print(reading, rules);
                return ExitCodes.DONE;
            }
        });
    }
}
