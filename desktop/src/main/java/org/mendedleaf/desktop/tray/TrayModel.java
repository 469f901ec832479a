package org.mendedleaf.desktop.tray;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.service.ServiceControl;
import org.mendedleaf.core.service.TrayControl;
import org.mendedleaf.core.words.Words;

/** What the tray icon says, and what can be done by it. */
final class TrayModel {

    /** Whether files are kept. */
    enum State {
        /** The background service keeps all vaults, or another program does. */
        KEPT,
        /** It runs, and something goes wrong again and again. */
        TROUBLE,
        /** It does not run. */
        STOPPED
    }

    /**
     * What is shown.
     *
     * @param words one sentence
     * @param details what goes wrong, a message each
     */
    record View(State state, String words, List<String> details) {}

    private final ServiceControl service;
    private final TrayControl tray;
    private final TrayControl.Spawner spawner;
    private final List<String> window;

    /**
     * Over the service and the switch of the same settings.
     *
     * @param window what starts the window
     */
    TrayModel(ServiceControl service, TrayControl tray, TrayControl.Spawner spawner, List<String> window) {
        this.service = service;
        this.tray = tray;
        this.spawner = spawner;
        this.window = window;
    }

    /** Asks how it stands. */
    View view() {
        Optional<ServiceControl.Running> running = service.running();
        if (running.isEmpty()) {
            return new View(State.STOPPED, Words.of("tray.stopped"), List.of());
        }
        Map<Path, ServiceControl.VaultState> vaults = running.get().vaults();
        List<String> details = new ArrayList<>();
        vaults.forEach((vault, state) -> {
            if (!state.trouble().isEmpty() && !state.keptByOthers()) {
                details.add(vault.getFileName() + ": " + state.trouble());
            }
            details.addAll(state.failing());
        });
        if (!details.isEmpty()) {
            return new View(State.TROUBLE, Words.of("tray.trouble", details.size()), details);
        }
        boolean byOthers =
                !vaults.isEmpty() && vaults.values().stream().allMatch(ServiceControl.VaultState::keptByOthers);
        return new View(State.KEPT, Words.of(byOthers ? "tray.keptByOthers" : "tray.kept"), details);
    }

    /** Whether it is switched on. */
    boolean isWanted() {
        return tray.isInstalled();
    }

    /** Opens the window. */
    void open() throws IOException {
        spawner.start(window);
    }

    /** Starts the background service. */
    void start() throws IOException {
        service.start();
    }

    /** Shows the icon no more. */
    void remove() throws IOException {
        tray.remove();
    }
}
