package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.Map;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.systems.OutsideWork;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Erases a version in another system; the vault takes it first. */
@Command(name = "erase", description = "${bundle:cli.erase}", mixinStandardHelpOptions = true)
final class EraseCommand extends Base {

    @Parameters(paramLabel = "SYSTEM:PLACE/PATH", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--version", required = true, paramLabel = "N", descriptionKey = "cli.option.version")
    @SuppressWarnings("NullAway.Init")
    String version;

    @Option(names = "--yes", descriptionKey = "cli.erase.yes")
    boolean yes;

    EraseCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file)) {
            if (!located.place().isOutside()) {
                throw new IllegalArgumentException(Words.of("cli.erase.outsideOnly", located.file()));
            }
            Version wanted;
            try (Reading reading = located.vault().read()) {
                wanted = version(line(located, reading), version);
            }
            if (!yes) {
                complain(Words.of(
                        "cli.erase.what",
                        wanted.path(),
                        version,
                        located.place().where()));
                return Main.SOME_FAILED;
            }
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                new OutsideWork(located.vault(), located.place(), book(), clock(), who()).erase(wanted, progress);
            }
            if (json) {
                printJson(Map.of("erased", version, "path", wanted.path()));
            } else {
                say("cli.erase.done", wanted.path(), version, located.place().where());
            }
            return Main.DONE;
        }
    }
}
