package org.mendedleaf.cli.care;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Begins a copy of the vault in a folder, and makes it. */
@Command(name = "add", description = "${bundle:cli.copyVault.add}")
public final class CopyVaultAdd extends CopyVaultBase {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.copyVault.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--plan", descriptionKey = "cli.copyVault.plan")
    boolean plan;

    public CopyVaultAdd(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Path> all = vaults();
        if (all.size() > 1) {
            throw new IllegalArgumentException(Words.of("cli.copyVault.which", all.size()));
        }
        try (OpenVault open = open(all.get(0))) {
            Copies copies = copies(open);
            Path where = copies.check(folder);
            if (copies.wouldShareDrive(where)) {
                complain(Words.of("copies.sameDrive"));
            }
            if (plan) {
                if (json) {
                    printJson(Map.of("copy", where.toString(), "added", false));
                }
                say("cli.copyVault.wouldBe", where);
                return ExitCodes.DONE;
            }
            CopyStatus begun = copies.add(where);
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                long written = copies.run(begun.copy(), progress);
                CopyStatus now = copies.in(where).orElse(begun);
                if (json) {
                    printJson(json(now));
                } else {
                    say("cli.copyVault.added", where, Formats.size(written));
                    print(now);
                }
            }
            return ExitCodes.DONE;
        }
    }
}
