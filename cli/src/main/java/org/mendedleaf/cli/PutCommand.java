package org.mendedleaf.cli;

import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Puts a file in as the next version of a line, in a folder or in another system. */
@Command(name = "put", description = "${bundle:cli.put}", mixinStandardHelpOptions = true)
final class PutCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.put.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--as", required = true, paramLabel = "PATH", descriptionKey = "cli.put.as")
    @SuppressWarnings("NullAway.Init")
    Path as;

    @Option(names = "--note", paramLabel = "TEXT", descriptionKey = "cli.put.note")
    String note = "";

    PutCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (!Files.exists(file)) {
            throw new NoSuchFileException(file.toString());
        }
        if (!Files.isRegularFile(file)) {
            throw new IllegalArgumentException(Words.of("cli.put.noFile", file));
        }
        try (Located located = locate(as);
                TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            PutResult result = work(located).put(List.of(new Revision(file, located.path(), note)), progress);
            if (!result.failed().isEmpty()) {
                result.failed().forEach((path, why) -> complain(path + ": " + why));
                return Main.SOME_FAILED;
            }
            int number = result.numbers().getOrDefault(located.path(), 0);
            if (json) {
                printJson(Map.of("path", located.path(), "version", number));
            } else {
                say("cli.put.done", located.path(), number);
            }
            return Main.DONE;
        }
    }
}
