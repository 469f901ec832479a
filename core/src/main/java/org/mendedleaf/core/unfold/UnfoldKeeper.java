package org.mendedleaf.core.unfold;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Unfolds what was captured, gently, and steps aside for everybody who writes. Where there is much of it, it is shown, and can be
 * paused; who cancels it has an hour of rest.
 */
public final class UnfoldKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofSeconds(10);

    /** Documents that are the only versions of their lines are looked at this often. */
    private static final Duration ALONE_EVERY = Duration.ofHours(1);

    private static final Duration REST = Duration.ofHours(1);

    /** From so many documents on it is shown. */
    private static final long MANY = 50;

    private final OpenVault vault;
    private final Clock clock;
    private final Listener listener;
    private Object seen = "";
    private Instant restsUntil = Instant.EPOCH;
    private Instant lookedAtAlone = Instant.EPOCH;

    /** Hears of much work; called from the keeper's thread. */
    public interface Listener {
        /** Shows it to nobody. */
        Listener NONE = new Listener() {};

        /** Much is to be unfolded. What is given is told how far it is, and asked whether it should stop. */
        default Progress begins() {
            return Progress.NONE;
        }

        /** It came to its end, by itself or not. */
        default void ended(Progress begun) {}
    }

    /** Keeps the documents of this vault unfolded. */
    public UnfoldKeeper(OpenVault vault, Clock clock, Listener listener) {
        this.vault = vault;
        this.clock = clock;
        this.listener = listener;
    }

    @Override
    public String name() {
        return Words.of("duty.unfold");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        Instant now = clock.instant();
        boolean alone = !now.isBefore(lookedAtAlone.plus(ALONE_EVERY));
        boolean nothing = vault.stamp().equals(seen) && !alone;
        if (nothing || now.isBefore(restsUntil)) {
            return ROUND;
        }
        Unfolding unfolding = Unfolding.inBackground(vault, clock, alone);
        Progress shown = unfolding.left() >= MANY ? listener.begins() : Progress.NONE;
        try {
            if (unfolding.run(new Both(shown, breath)).complete()) {
                seen = vault.stamp();
                lookedAtAlone = alone ? now : lookedAtAlone;
            } else if (!breath.isEnding()) {
                restsUntil = now.plus(REST);
            }
        } catch (VaultException.Busy e) {
            // Whoever writes comes first; what was made ready is made ready again.
            org.slf4j.LoggerFactory.getLogger(UnfoldKeeper.class).debug("later", e);
        } finally {
            listener.ended(shown);
        }
        return ROUND;
    }

    /** What is shown, and ends with the program. */
    private record Both(Progress shown, Supervisor.Breath breath) implements Progress {
        @Override
        public void begin(String step, long files, long bytes) {
            shown.begin(step, files, bytes);
        }

        @Override
        public void advance(long files, long bytes) {
            shown.advance(files, bytes);
        }

        @Override
        public boolean isCancelled() {
            return shown.isCancelled() || breath.isEnding();
        }
    }
}
