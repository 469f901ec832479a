package org.mendedleaf.core.service;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.words.Words;

/** The background service of a user: whether it runs, and the switch that has it run always. */
public final class ServiceControl {

    private static final Duration START = Duration.ofSeconds(20);
    private static final Duration END = Duration.ofSeconds(40);
    private static final long LOOK_MILLIS = 100;

    private final Path settings;
    private final Autostart autostart;
    private final List<String> command;
    private final Autostart.Runner runner;

    /**
     * How it stands.
     *
     * @param process its number
     * @param vaults how it stands with each vault
     */
    public record Running(long process, Instant since, Map<Path, VaultState> vaults) {}

    /**
     * How the service stands with a vault.
     *
     * @param trouble what keeps it from the vault, as a message; empty when it keeps it
     * @param keptByOthers whether that is another program that keeps it, a window for one
     * @param failing what it tries again and again there, a message each
     */
    public record VaultState(String trouble, boolean keptByOthers, List<String> failing) {

        /** Copies the list. */
        public VaultState {
            failing = List.copyOf(failing);
        }

        /** The service keeps it, and all goes well. */
        public static final VaultState KEPT = new VaultState("", false, List.of());
    }

    /**
     * The service of these settings.
     *
     * @param command what starts the program; {@code service run} is added
     */
    public ServiceControl(
            Path settings,
            String platform,
            Map<String, String> environment,
            List<String> command,
            Autostart.Runner runner)
            throws IOException {
        this.settings = settings;
        this.command = new ArrayList<>(command);
        this.command.addAll(List.of("service", "run"));
        this.runner = runner;
        this.autostart = Autostart.of(platform, environment, this.command, runner);
    }

    /** The service of these settings, of this platform, started by this program. */
    public static ServiceControl here(Path settings, Map<String, String> environment) throws IOException {
        List<String> command = Programs.withSettings(settings, environment, Programs.commandLine());
        return new ServiceControl(settings, System.getProperty("os.name"), environment, command, Programs::run);
    }

    /** How it stands; empty when it does not run. */
    public Optional<Running> running() {
        return ServiceChannel.status(settings).map(ServiceControl::running);
    }

    private static Running running(JsonNode answer) {
        Map<Path, VaultState> vaults = new LinkedHashMap<>();
        for (JsonNode v : answer.path("vaults")) {
            List<String> failing = new ArrayList<>();
            v.path("failing").forEach(f -> failing.add(f.asText()));
            vaults.put(
                    Path.of(v.path("vault").asText()),
                    new VaultState(
                            v.path("trouble").asText(), v.path("keptByOthers").asBoolean(), failing));
        }
        return new Running(
                answer.path("process").asLong(),
                Instant.parse(answer.path("since").asText("1970-01-01T00:00:00Z")),
                vaults);
    }

    /** Whether it is started with every session. */
    public boolean isInstalled() {
        return autostart.isInstalled();
    }

    /** By what it is started with every session. */
    public Autostart autostart() {
        return autostart;
    }

    /** Has it run always: now, and with every session from now on. */
    public Running install() throws IOException {
        autostart.install();
        return start();
    }

    /** Has it run no more. */
    public void remove() throws IOException {
        autostart.remove();
        stop();
    }

    /**
     * Starts it, unless it runs.
     *
     * @throws IOException with a message, when it does not answer after a while
     */
    public Running start() throws IOException {
        Optional<Running> there = running();
        if (there.isPresent()) {
            return there.get();
        }
        boolean bySystem = autostart.means() == Autostart.Means.SYSTEMD
                && autostart.isInstalled()
                && runner.run(List.of("systemctl", "--user", "start", "mended-leaf.service")) == 0;
        if (!bySystem) {
            Programs.spawn(Programs.restarted(command));
        }
        return await(START, true).orElseThrow(() -> new IOException(Words.of("service.notStarted", START.toSeconds())));
    }

    /**
     * Ends it; what it is doing comes to its end first.
     *
     * @return whether one ran
     * @throws IOException with a message, when it still answers after a while
     */
    public boolean stop() throws IOException {
        if (autostart.means() == Autostart.Means.SYSTEMD && autostart.isInstalled()) {
            // Otherwise it would be taken for one that went wrong, and started again.
            runner.run(List.of("systemctl", "--user", "stop", "mended-leaf.service"));
        }
        if (ServiceChannel.stop(settings).isEmpty()) {
            return false;
        }
        if (await(END, false).isPresent()) {
            throw new IOException(Words.of("service.notEnded", END.toSeconds()));
        }
        return true;
    }

    private Optional<Running> await(Duration most, boolean there) throws IOException {
        long until = System.nanoTime() + most.toNanos();
        Optional<Running> now = running();
        while (now.isPresent() != there && System.nanoTime() < until) {
            try {
                Thread.sleep(LOOK_MILLIS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new java.io.InterruptedIOException();
            }
            now = running();
        }
        return now;
    }
}
