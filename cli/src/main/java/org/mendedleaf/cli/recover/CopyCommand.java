package org.mendedleaf.cli.recover;

import java.nio.file.Path;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.FolderRestore;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Saves a copy of a version somewhere else. */
@Command(name = "copy", description = "${bundle:cli.copy}")
public final class CopyCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--version", paramLabel = "N", required = true, descriptionKey = "cli.option.version")
    @SuppressWarnings("NullAway.Init")
    String version;

    @Option(names = "--to", paramLabel = "DIR|-", required = true, descriptionKey = "cli.copy.to")
    @SuppressWarnings("NullAway.Init")
    Path to;

    public CopyCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (json && to.toString().equals("-")) {
            throw new IllegalArgumentException(Words.of("cli.copy.jsonToOut"));
        }
        try (Located located = locate(file)) {
            Version wanted;
            try (Reading reading = located.vault().read()) {
                wanted = version(line(located, reading), version);
            }
            wanted = inVault(located.vault(), wanted);
            if (to.toString().equals("-")) {
                try (Reading reading = located.vault().read()) {
                    reading.contents().read(wanted.recipe(), surroundings.rawOut()::write);
                }
                surroundings.rawOut().flush();
                return ExitCodes.DONE;
            }
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                Path copy = new FolderRestore(located.vault(), Protect.realOfNew(to)).copy(wanted, zone(), progress);
                if (json) {
                    printJson(Map.of("copy", copy.toString()));
                } else {
                    say("cli.copy.done", copy);
                }
            }
            return ExitCodes.DONE;
        }
    }
}
