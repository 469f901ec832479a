package org.mendedleaf.cli;

import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;

/** Says how each copy of the vault stands. */
@Command(name = "list", description = "${bundle:cli.copyVault.list}")
final class CopyVaultList extends CopyVaultBase {

    CopyVaultList(Surroundings surroundings) {
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
            return status.needsSomebody() ? Main.LATE : Main.DONE;
        });
        if (json) {
            printJson(rows);
        }
        return code;
    }
}
