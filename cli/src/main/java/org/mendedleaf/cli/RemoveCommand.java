package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Removes a file from its folder; its past stays. */
@Command(name = "remove", description = "${bundle:cli.remove}")
final class RemoveCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    RemoveCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file)) {
            if (!located.place().isOutside()
                    && java.nio.file.Files.isDirectory(located.file(), java.nio.file.LinkOption.NOFOLLOW_LINKS)) {
                throw new IllegalArgumentException(Words.of("cli.remove.folder", located.file()));
            }
            try (Reading reading = located.vault().read()) {
                boolean gone = reading.line(located.place(), located.path())
                        .map(Line::removed)
                        .map(java.util.Optional::isPresent)
                        .orElse(false);
                if (gone && !java.nio.file.Files.exists(located.file(), java.nio.file.LinkOption.NOFOLLOW_LINKS)) {
                    throw new IllegalArgumentException(Words.of("cli.remove.already", located.file()));
                }
            }
            FileWork.Removal removal = work(located).remove(List.of(located.path()));
            removal.failed().forEach(this::complain);
            if (json) {
                printJson(Map.of("removed", removal.removed(), "failed", removal.failed()));
            } else {
                removal.removed().forEach(path -> line(Words.of("cli.remove.done", path)));
            }
            return removal.failed().isEmpty() ? Main.DONE : Main.SOME_FAILED;
        }
    }
}
