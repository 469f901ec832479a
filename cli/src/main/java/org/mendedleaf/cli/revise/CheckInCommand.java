package org.mendedleaf.cli.revise;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NeedsYesException;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.intake.LineWork;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Hands back a file that was taken, gives it up, or ends it for somebody else. */
@Command(name = "checkin", description = "${bundle:cli.checkin}")
public final class CheckInCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--note", paramLabel = "TEXT", descriptionKey = "cli.put.note")
    String note = "";

    @Option(names = "--with", paramLabel = "FILE", descriptionKey = "cli.checkin.with")
    @Nullable
    Path with;

    @Option(names = "--publish", descriptionKey = "cli.checkin.publish")
    boolean publish;

    @Option(names = "--give-up", descriptionKey = "cli.checkin.giveUp")
    boolean giveUp;

    @Option(names = "--end", descriptionKey = "cli.checkin.end")
    boolean end;

    @Option(names = "--yes", descriptionKey = "cli.put.yes")
    boolean yes;

    public CheckInCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file)) {
            LineWork work = lineWork(located);
            if (giveUp || end) {
                if (end) {
                    work.endCheckOut(located.path());
                } else {
                    work.giveUp(located.path());
                }
                say(end ? "cli.checkin.ended" : "cli.checkin.givenUp", located.path());
                return ExitCodes.DONE;
            }
            Path content = with;
            if (content != null && !put(located, content)) {
                return ExitCodes.SOME_FAILED;
            }
            LineWork.Done done = work.checkIn(located.path(), note, publish);
            if (json) {
                printJson(Map.of("path", located.path(), "version", done.label(), "changed", done.number() != 0));
            } else {
                say(done.number() == 0 ? "cli.checkin.unchanged" : "cli.checkin.done", located.path(), done.label());
            }
            return ExitCodes.DONE;
        }
    }

    private boolean put(Located located, Path content) throws IOException {
        Judgement judgement = evidence(located).judge(content, located.path());
        if (judgement.outcome() != Judgement.Outcome.SURE && !yes) {
            Intakes.complain(this, located.path(), judgement);
            if (!surroundings.confirms(Words.of("cli.put.anyway", located.path()))) {
                throw new NeedsYesException(
                        Words.of(surroundings.terminal().isPresent() ? "cli.put.left" : "cli.put.needsYes"));
            }
        }
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            PutResult result = work(located).put(List.of(new Revision(content, located.path(), "")), progress);
            result.failed().forEach((path, why) -> complain(path + ": " + why));
            return result.failed().isEmpty();
        }
    }
}
