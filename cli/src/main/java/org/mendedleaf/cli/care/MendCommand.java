package org.mendedleaf.cli.care;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcomes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.PlanReport;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreResult;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Mends what a finding says: each file goes back to its last good version. */
@Command(name = "mend", description = "${bundle:cli.mend}")
public final class MendCommand extends FindingsBase {

    @Parameters(paramLabel = "FINDING", descriptionKey = "cli.finding.id")
    @SuppressWarnings("NullAway.Init")
    String id;

    @Option(names = "--plan", descriptionKey = "cli.restore.plan")
    boolean planOnly;

    public MendCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        return with(id, this::mend);
    }

    private int mend(OpenVault vault, Findings.Listed listed) throws Exception {
        Findings findings = new Findings(vault, who());
        FileWork work = work(vault, listed.place());
        if (planOnly) {
            RestorePlan plan;
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                plan = findings.plan(listed, work, progress);
            }
            if (json) {
                printJson(PlanReport.items(plan));
            } else {
                Outcomes.print(this, plan);
            }
            return plan.preflight().isGood() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        }
        RestoreResult result;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            result = findings.mend(listed, work, now(), progress);
        }
        look(vault);
        if (json) {
            printJson(Outcomes.json(result));
            return result.count(RestoreResult.Outcome.FAILED) > 0 ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
        }
        return Outcomes.print(this, result);
    }
}
