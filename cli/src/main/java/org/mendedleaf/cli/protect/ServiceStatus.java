package org.mendedleaf.cli.protect;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.ServiceControl;
import picocli.CommandLine.Command;

/** Says how the service stands. */
@Command(name = "status", description = "${bundle:cli.service.status}")
public final class ServiceStatus extends ServiceBase {

    public ServiceStatus(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        ServiceControl control = control();
        tell(control);
        return control.running().isPresent() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
    }
}
