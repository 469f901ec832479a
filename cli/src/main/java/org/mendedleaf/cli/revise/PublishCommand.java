package org.mendedleaf.cli.revise;

import java.nio.file.Path;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.intake.LineWork;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Makes the newest draft of a file the next published version. */
@Command(name = "publish", description = "${bundle:cli.publish}")
public final class PublishCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--note", paramLabel = "TEXT", descriptionKey = "cli.put.note")
    String note = "";

    public PublishCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file)) {
            LineWork.Done done = lineWork(located).publish(located.path(), note);
            if (json) {
                printJson(Map.of("path", located.path(), "version", done.label()));
            } else {
                say("cli.publish.done", located.path(), done.label());
            }
            return ExitCodes.DONE;
        }
    }
}
