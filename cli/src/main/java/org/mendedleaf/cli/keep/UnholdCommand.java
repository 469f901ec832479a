package org.mendedleaf.cli.keep;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.retention.HoldEffect;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Lifts holds by number, and says what the rules would let go then. */
@Command(name = "unhold", description = "${bundle:cli.unhold}")
public final class UnholdCommand extends RetentionBase {

    @Parameters(arity = "1..*", paramLabel = "HOLD", descriptionKey = "cli.unhold.which")
    List<Long> which = List.of();

    @Option(names = "--plan", descriptionKey = "cli.unhold.plan")
    boolean plan;

    public UnholdCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Long> missing = new ArrayList<>(which);
        List<Map<String, Object>> rows = new ArrayList<>();
        int code = eachVault((folder, open) -> {
            Holds holds = new Holds(open, clock(), who());
            for (Hold h : holds.standing()) {
                if (!which.contains(h.id())) {
                    continue;
                }
                missing.remove(h.id());
                ThinPlan then = without(open, h);
                if (!plan) {
                    holds.lift(h.id());
                }
                if (json) {
                    Map<String, Object> map = new LinkedHashMap<>();
                    map.put("hold", h.id());
                    map.put("lifted", !plan);
                    map.put("versions", then.versions());
                    map.put("freedBytes", then.freedBytes());
                    rows.add(map);
                    continue;
                }
                if (!plan) {
                    say("cli.unhold.done", String.valueOf(h.id()));
                }
                say("cli.unhold.then", then.versions(), Formats.size(then.freedBytes()));
            }
            return ExitCodes.DONE;
        });
        if (!missing.isEmpty()) {
            throw new IllegalArgumentException(Words.of("hold.none", String.valueOf(missing.get(0))));
        }
        if (json) {
            printJson(rows);
        }
        return code;
    }

    /** What the rules would let go if a hold were not there. */
    private ThinPlan without(OpenVault open, Hold hold) throws java.io.IOException {
        try (Reading reading = open.read()) {
            Verdicts with = verdicts(reading);
            return HoldEffect.lifting(with, new SpaceTable(with.table()), hold, now(), calendar());
        }
    }
}
