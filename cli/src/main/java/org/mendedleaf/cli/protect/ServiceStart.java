package org.mendedleaf.cli.protect;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.ServiceControl;
import picocli.CommandLine.Command;

/** Starts the service for now. */
@Command(name = "start", description = "${bundle:cli.service.start}")
public final class ServiceStart extends ServiceBase {

    public ServiceStart(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        ServiceControl control = control();
        control.start();
        tell(control);
        return ExitCodes.DONE;
    }
}
