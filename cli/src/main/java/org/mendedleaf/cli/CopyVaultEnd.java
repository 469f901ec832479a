package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Keeps a copy of the vault in step no longer. */
@Command(name = "end", description = "${bundle:cli.copyVault.end}")
final class CopyVaultEnd extends CopyVaultBase {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.copyVault.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    CopyVaultEnd(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        return eachCopy(folder, (copies, status) -> {
            copies.end(status.copy());
            if (json) {
                printJson(Map.of("folder", status.copy().folder().toString(), "ended", true));
            } else {
                say("cli.copyVault.ended", status.copy().folder());
            }
            return Main.DONE;
        });
    }
}
