package org.mendedleaf.cli.protect;

import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Has the tray icon shown, or shown no more. */
@Command(name = "tray", description = "${bundle:cli.service.tray}")
public final class ServiceTray extends Base {

    @Option(names = "--off", description = "${bundle:cli.service.tray.off}")
    private boolean off;

    public ServiceTray(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        TrayControl tray = TrayControl.here(settings().folder(), surroundings.environment());
        if (off) {
            tray.remove();
        } else {
            tray.install();
        }
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("trayIcon", tray.isInstalled());
            printJson(map);
        } else {
            line(
                    off
                            ? Words.of("cli.service.trayOff")
                            : Words.of("cli.service.trayOn", tray.autostart().file()));
        }
        return ExitCodes.DONE;
    }
}
