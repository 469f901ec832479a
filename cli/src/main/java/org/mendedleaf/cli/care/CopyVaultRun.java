package org.mendedleaf.cli.care;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.words.Formats;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Brings copies of the vault in step now. */
@Command(name = "run", description = "${bundle:cli.copyVault.run}")
public final class CopyVaultRun extends CopyVaultBase {

    @Parameters(paramLabel = "FOLDER", arity = "0..1", descriptionKey = "cli.copyVault.folderOrAll")
    @Nullable
    Path folder;

    public CopyVaultRun(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> rows = new ArrayList<>();
        int code = eachCopy(folder, (copies, status) -> {
            long written;
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                written = copies.run(status.copy(), progress);
            }
            CopyStatus now = copies.in(status.copy().folder()).orElse(status);
            Map<String, Object> row = json(now);
            row.put("writtenBytes", written);
            rows.add(row);
            if (!json) {
                say("cli.copyVault.ran", status.copy().folder(), Formats.size(written));
            }
            return ExitCodes.DONE;
        });
        if (json) {
            printJson(rows);
        }
        return code;
    }
}
