package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Path;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.TextFile;
import org.mendedleaf.core.retention.Rule;
import org.mendedleaf.core.retention.RuleFile;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Verdicts;

/** What commands on rules have in common. */
abstract class RulesBase extends RetentionBase {

    public RulesBase(Surroundings surroundings) {
        super(surroundings);
    }

    static RuleSet read(Path file) throws IOException {
        return RuleFile.read(TextFile.read(file));
    }

    /** Rules as sentences, with what they would let go now. */
    void print(Reading reading, RuleSet rules) throws IOException {
        if (rules.rules().isEmpty()) {
            say("cli.rules.none");
        }
        for (Rule r : rules.rules()) {
            line(r.name() + ": " + r.sentence());
        }
        say(
                rules.standing() ? "cli.rules.standing" : "cli.rules.onRequest",
                rules.grace().words());
        ThinPlan plan = mayGo(reading, rules);
        line(plan.mayGoWords());
        plan.warnings().forEach(this::line);
    }

    /** What these rules would let go now. */
    ThinPlan mayGo(Reading reading, RuleSet rules) throws IOException {
        Verdicts v = verdicts(reading, rules);
        return ThinPlan.of(v, new SpaceTable(v.table()), ThinPlan.Limits.RULES);
    }
}
