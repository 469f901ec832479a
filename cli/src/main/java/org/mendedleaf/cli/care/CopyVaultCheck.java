package org.mendedleaf.cli.care;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.copies.CopyHealing;
import org.mendedleaf.core.words.Formats;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Reads every byte of copies of the vault, and takes what is damaged again from the vault. */
@Command(name = "check", description = "${bundle:cli.copyVault.check}")
public final class CopyVaultCheck extends CopyVaultBase {

    @Parameters(paramLabel = "FOLDER", arity = "0..1", descriptionKey = "cli.copyVault.folderOrAll")
    @Nullable
    Path folder;

    public CopyVaultCheck(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> rows = new ArrayList<>();
        int code = eachCopy(folder, (copies, status) -> {
            CopyHealing.Checked checked;
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                checked = new CopyHealing(copies).check(status.copy(), progress);
            }
            Map<String, Object> row = json(copies.in(status.copy().folder()).orElse(status));
            row.put("clean", checked.after().isClean());
            row.put("healedBytes", checked.healedBytes());
            row.put("damages", checked.after().damages());
            rows.add(row);
            if (!json) {
                checked.after().damages().forEach(this::complain);
                if (checked.healedBytes() > 0) {
                    say("cli.copyVault.healed", status.copy().folder(), Formats.size(checked.healedBytes()));
                }
                say(
                        checked.after().isClean() ? "cli.copyVault.sound" : "cli.copyVault.damaged",
                        status.copy().folder(),
                        checked.after().versions(),
                        Formats.size(checked.after().bytes()),
                        checked.after().lost().size());
            }
            return checked.after().isClean() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
        });
        if (json) {
            printJson(rows);
        }
        return code;
    }
}
