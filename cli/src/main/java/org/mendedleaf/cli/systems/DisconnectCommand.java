package org.mendedleaf.cli.systems;

import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NotConnectedException;
import org.mendedleaf.cli.base.Surroundings;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Forgets a connection; what is known of the system stays. */
@Command(name = "disconnect", description = "${bundle:cli.disconnect}")
public final class DisconnectCommand extends Base {

    @Parameters(paramLabel = "NAME", descriptionKey = "cli.connect.name")
    @SuppressWarnings("NullAway.Init")
    String name;

    public DisconnectCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (!settings().disconnect(name)) {
            throw new NotConnectedException(name);
        }
        if (json) {
            printJson(Map.of("name", name));
        } else {
            say("cli.disconnect.done", name);
        }
        return ExitCodes.DONE;
    }
}
