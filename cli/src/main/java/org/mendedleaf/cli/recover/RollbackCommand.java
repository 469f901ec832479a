package org.mendedleaf.cli.recover;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Outcomes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.recovery.PlanReport;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Rollback;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Makes folders or files again what they were at a moment. */
@Command(name = "rollback", description = "${bundle:cli.rollback}")
public final class RollbackCommand extends Base {

    @Parameters(paramLabel = "FOLDER", arity = "1..*", descriptionKey = "cli.rollback.what")
    List<Path> what = List.of();

    @Option(names = "--at", required = true, paramLabel = "MOMENT", descriptionKey = "cli.option.at")
    @SuppressWarnings("NullAway.Init")
    String at;

    @Option(names = "--later", paramLabel = "leave|remove", descriptionKey = "cli.rollback.later")
    String later = "leave";

    @Option(names = "--plan", descriptionKey = "cli.restore.plan")
    boolean planOnly;

    public RollbackCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (!later.equals("leave") && !later.equals("remove")) {
            throw new IllegalArgumentException(Words.of("cli.rollback.badLater", later));
        }
        try (Located located = locate(what.get(0));
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            List<String> paths = new ArrayList<>();
            for (Path each : what) {
                try (Located other = locate(each)) {
                    boolean same = other.place().id() == located.place().id()
                            && other.vault()
                                    .folder()
                                    .root()
                                    .equals(located.vault().folder().root());
                    if (!same) {
                        throw new IllegalArgumentException(Words.of("cli.rollback.onePlace", each));
                    }
                    paths.add(other.path());
                }
            }
            Instant moment = moment(at, located);
            return run(located, new Rollback(paths, moment, later.equals("remove")), progress);
        }
    }

    private int run(Located located, Rollback rollback, Progress progress) throws Exception {
        if (planOnly) {
            RestorePlan plan = work(located).plan(rollback, progress);
            if (json) {
                printJson(PlanReport.items(plan));
            } else if (plan.items().isEmpty()) {
                say("plan.nothing");
            } else {
                Outcomes.print(this, plan);
            }
            return plan.preflight().isGood() && plan.count(RestorePlan.Step.REFUSE) == 0
                    ? ExitCodes.DONE
                    : ExitCodes.SOME_FAILED;
        }
        RestoreResult result = work(located).rollBack(rollback, progress);
        if (json) {
            printJson(Outcomes.json(result));
            return result.count(RestoreResult.Outcome.FAILED) > 0 ? ExitCodes.SOME_FAILED : ExitCodes.DONE;
        }
        if (result.items().isEmpty() && !result.cancelled()) {
            say("plan.nothing");
            return ExitCodes.DONE;
        }
        return Outcomes.print(this, result);
    }
}
