package org.mendedleaf.cli.recover;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Removes a file from its folder; its past stays. */
@Command(name = "remove", description = "${bundle:cli.remove}")
public final class RemoveCommand extends Base {

    @Parameters(paramLabel = "FILE", arity = "1..*", descriptionKey = "cli.option.files")
    List<Path> files = List.of();

    public RemoveCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<String> removed = new ArrayList<>();
        List<String> failed = new ArrayList<>();
        // All is looked at before anything is removed.
        eachPlace(files, (located, paths) -> {
            for (Map.Entry<String, Path> each : paths.entrySet()) {
                check(located, each.getKey(), each.getValue());
            }
        });
        eachPlace(files, (located, paths) -> {
            FileWork.Removal removal = work(located).remove(List.copyOf(paths.keySet()));
            removed.addAll(removal.removed());
            failed.addAll(removal.failed());
        });
        failed.forEach(this::complain);
        if (json) {
            printJson(Map.of("removed", removed, "failed", failed));
        } else {
            removed.forEach(path -> line(Words.of("cli.remove.done", path)));
        }
        return failed.isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
    }

    private static void check(Located located, String path, Path file) throws IOException {
        boolean folder = Files.isDirectory(file, LinkOption.NOFOLLOW_LINKS);
        if (!located.place().isOutside() && folder) {
            throw new IllegalArgumentException(Words.of("cli.remove.folder", file));
        }
        try (Reading reading = located.vault().read()) {
            boolean gone = reading.line(located.place(), path)
                    .map(Line::removed)
                    .map(java.util.Optional::isPresent)
                    .orElse(false);
            if (gone && !Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
                throw new IllegalArgumentException(Words.of("cli.remove.already", file));
            }
        }
    }
}
