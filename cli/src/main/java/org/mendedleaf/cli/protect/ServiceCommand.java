package org.mendedleaf.cli.protect;

import org.mendedleaf.cli.base.Group;
import picocli.CommandLine.Command;

/** The background service: all that goes on by itself, whether a window is open or not. */
@Command(
        name = "service",
        description = "${bundle:cli.service}",
        subcommands = {
            ServiceInstall.class,
            ServiceRemove.class,
            ServiceStart.class,
            ServiceStop.class,
            ServiceStatus.class,
            ServiceTray.class,
            ServiceRun.class
        })
public final class ServiceCommand extends Group {}
