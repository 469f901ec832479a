package org.mendedleaf.cli.care;

import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import picocli.CommandLine.Command;

/** Says how each copy of the vault stands. */
@Command(name = "list", description = "${bundle:cli.copyVault.list}")
public final class CopyVaultList extends CopyVaultBase {

    public CopyVaultList(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        List<Object> rows = new ArrayList<>();
        int code = eachCopy(null, (copies, status) -> {
            rows.add(json(status));
            if (!json) {
                print(status);
            }
            return status.needsSomebody() ? ExitCodes.LATE : ExitCodes.DONE;
        });
        if (json) {
            printJson(rows);
        }
        return code;
    }
}
