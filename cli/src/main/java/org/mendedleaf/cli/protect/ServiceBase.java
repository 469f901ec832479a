package org.mendedleaf.cli.protect;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What commands about the background service share. */
abstract class ServiceBase extends Base {

    ServiceBase(Surroundings surroundings) {
        super(surroundings);
    }

    final ServiceControl control() throws IOException {
        return ServiceControl.here(settings().folder(), surroundings.environment());
    }

    final TrayControl tray() throws IOException {
        return TrayControl.here(settings().folder(), surroundings.environment());
    }

    /** Says how it stands, and whether it is started with every session. */
    final void tell(ServiceControl control) throws IOException {
        Optional<ServiceControl.Running> running = control.running();
        if (json) {
            printJson(json(control, running));
            return;
        }
        if (running.isEmpty()) {
            line(Words.of(control.isInstalled() ? "cli.service.down" : "cli.service.stopped"));
        } else {
            ServiceControl.Running now = running.get();
            line(Words.of("cli.service.runs", Formats.full(now.since(), zone()), String.valueOf(now.process())));
            now.vaults().forEach((vault, state) -> {
                line("  " + (state.trouble().isEmpty() ? Words.of("cli.service.keeps", vault) : state.trouble()));
                state.failing().forEach(words -> line("    " + words));
            });
        }
        line(
                control.isInstalled()
                        ? Words.of("cli.service.installed", control.autostart().file())
                        : Words.of("cli.service.notInstalled"));
        TrayControl tray = tray();
        if (tray.isInstalled()) {
            line(Words.of("cli.service.trayOn", tray.autostart().file()));
        }
        line(Words.of("cli.status.log", activity("service").file()));
    }

    private Map<String, Object> json(ServiceControl control, Optional<ServiceControl.Running> running)
            throws IOException {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("running", running.isPresent());
        map.put("startedWithSession", control.isInstalled());
        map.put("trayIcon", tray().isInstalled());
        map.put("by", control.autostart().means().name().toLowerCase(java.util.Locale.ROOT));
        running.ifPresent(now -> {
            map.put("process", now.process());
            map.put("since", now.since().toString());
            map.put(
                    "vaults",
                    now.vaults().entrySet().stream().map(ServiceBase::json).toList());
        });
        return map;
    }

    private static Map<String, Object> json(Map.Entry<Path, ServiceControl.VaultState> vault) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("vault", vault.getKey().toString());
        map.put("trouble", vault.getValue().trouble());
        map.put("keptByOthers", vault.getValue().keptByOthers());
        map.put("failing", vault.getValue().failing());
        return map;
    }
}
