package org.mendedleaf.core.find;

import java.io.IOException;
import java.time.Duration;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.words.Words;

/** Keeps the index of a vault up with what is captured, gently. */
public final class FindKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofSeconds(10);

    private final OpenVault vault;
    private String seen = "";

    /** Keeps the index of this vault. */
    public FindKeeper(OpenVault vault) {
        this.vault = vault;
    }

    @Override
    public String name() {
        return Words.of("duty.find");
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
        if (new Indexer(vault, true).run(stop).complete()) {
            seen = now;
        }
        return Supervisor.rest(Duration.ofNanos(System.nanoTime() - began), ROUND);
    }
}
