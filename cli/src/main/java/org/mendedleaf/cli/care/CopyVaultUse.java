package org.mendedleaf.cli.care;

import java.nio.file.Path;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NeedsYesException;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Makes a copy of a vault a vault of its own, as when the drive of the vault broke. */
@Command(name = "use", description = "${bundle:cli.copyVault.use}")
public final class CopyVaultUse extends CopyVaultBase {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.copyVault.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--yes", descriptionKey = "cli.copyVault.use.yes")
    boolean yes;

    public CopyVaultUse(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (!VaultFolder.open(folder).isCopy()) {
            throw new IllegalArgumentException(Words.of("copies.noCopy", folder));
        }
        if (!yes && !surroundings.confirms(Words.of("cli.copyVault.use.what", folder))) {
            throw new NeedsYesException(Words.of("cli.copyVault.use.needsYes", folder));
        }
        VaultFolder own = Copies.use(folder);
        settings().addVault(own.root());
        if (json) {
            printJson(Map.of("vault", own.root().toString()));
        } else {
            say("cli.copyVault.used", own.root());
        }
        return ExitCodes.DONE;
    }
}
