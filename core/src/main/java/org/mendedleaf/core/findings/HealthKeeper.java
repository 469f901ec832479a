package org.mendedleaf.core.findings;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.words.Words;

/** Looks into what was captured and says what looks wrong, gently. */
public final class HealthKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofSeconds(10);

    private final OpenVault vault;
    private final Clock clock;
    private final Runnable changed;
    private String seen = "";

    /**
     * Keeps an eye on this vault.
     *
     * @param changed is run when what is found may have changed
     */
    public HealthKeeper(OpenVault vault, Clock clock, Runnable changed) {
        this.vault = vault;
        this.clock = clock;
        this.changed = changed;
    }

    @Override
    public String name() {
        return Words.of("duty.health");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        String now;
        try (Reading reading = vault.read()) {
            now = reading.state();
        }
        if (now.equals(seen)) {
            return ROUND;
        }
        long began = System.nanoTime();
        Progress stop = Progress.until(breath::isEnding);
        if (new HealthCheck(vault, clock, true).run(stop).complete()) {
            seen = now;
            changed.run();
        }
        return Supervisor.rest(Duration.ofNanos(System.nanoTime() - began), ROUND);
    }
}
