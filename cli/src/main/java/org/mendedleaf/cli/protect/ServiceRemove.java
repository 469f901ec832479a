package org.mendedleaf.cli.protect;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.ServiceControl;
import picocli.CommandLine.Command;

/** Has the service run no more. */
@Command(name = "remove", description = "${bundle:cli.service.remove}")
public final class ServiceRemove extends ServiceBase {

    public ServiceRemove(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        ServiceControl control = control();
        control.remove();
        tell(control);
        return ExitCodes.DONE;
    }
}
