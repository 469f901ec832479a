package org.mendedleaf.cli.protect;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.ServiceControl;
import picocli.CommandLine.Command;

/** Ends the service for now. */
@Command(name = "stop", description = "${bundle:cli.service.stop}")
public final class ServiceStop extends ServiceBase {

    public ServiceStop(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        ServiceControl control = control();
        control.stop();
        tell(control);
        return ExitCodes.DONE;
    }
}
