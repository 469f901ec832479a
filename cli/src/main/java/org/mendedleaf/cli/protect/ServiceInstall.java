package org.mendedleaf.cli.protect;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.ServiceControl;
import picocli.CommandLine.Command;

/** Has the service run always. */
@Command(name = "install", description = "${bundle:cli.service.install}")
public final class ServiceInstall extends ServiceBase {

    public ServiceInstall(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        ServiceControl control = control();
        control.install();
        tell(control);
        return ExitCodes.DONE;
    }
}
