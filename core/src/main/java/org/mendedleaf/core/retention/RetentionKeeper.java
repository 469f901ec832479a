package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.words.Words;

/** Carries standing rules out and gives space back, whenever that is due. */
public final class RetentionKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofMinutes(1);

    private final StandingRules standing;
    private final Pause pause;
    private final Listener listener;

    /** Whether nothing shall be let go for now, since something happened that somebody has to decide about first. */
    @FunctionalInterface
    public interface Pause {
        /** Whether it is so now. */
        boolean is() throws IOException;
    }

    /** Hears what is done; called from the keeper's thread. */
    public interface Listener {
        /** Something was done. */
        void kept(StandingRules.Done done);
    }

    /**
     * Keeps a vault.
     *
     * @param pause is asked before anything is done
     */
    public RetentionKeeper(
            OpenVault vault, Clock clock, String who, Calendar calendar, Pause pause, Listener listener) {
        this.pause = pause;
        this.standing = new StandingRules(vault, clock, who, calendar);
        this.listener = listener;
    }

    @Override
    public String name() {
        return Words.of("duty.retention");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        if (standing.isDue() && !pause.is()) {
            listener.kept(standing.run(Progress.until(breath::isEnding)));
        }
        return ROUND;
    }
}
