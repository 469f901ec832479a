package org.mendedleaf.cli.care;

import java.nio.file.Path;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Keeps a copy of the vault in step no longer. */
@Command(name = "end", description = "${bundle:cli.copyVault.end}")
public final class CopyVaultEnd extends CopyVaultBase {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.copyVault.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    public CopyVaultEnd(Surroundings surroundings) {
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
            return ExitCodes.DONE;
        });
    }
}
