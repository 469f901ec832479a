package org.mendedleaf.core.copies;

import java.io.IOException;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Keeps the copies of a vault in step: after what was captured, and caught up when a drive is back. What one copy cannot do now
 * is noted at it, told once, and tried again; the others go on.
 */
public final class CopyKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofSeconds(10);

    /** What went wrong is not tried again at once. */
    private static final Duration AGAIN = Duration.ofMinutes(5);

    private final Copies copies;
    private final java.time.Clock clock;
    private final Runnable changed;
    private final Set<String> told = new HashSet<>();

    /**
     * Keeps these copies.
     *
     * @param changed is run when how one of them stands has changed
     */
    public CopyKeeper(Copies copies, java.time.Clock clock, Runnable changed) {
        this.copies = copies;
        this.clock = clock;
        this.changed = changed;
    }

    @Override
    public String name() {
        return Words.of("duty.copies");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        Progress stop = Progress.until(breath::isEnding);
        List<CopyStatus> all = copies.list();
        for (CopyStatus status : all) {
            if (isDue(status) && !breath.isEnding()) {
                keep(status, stop);
            }
        }
        return ROUND;
    }

    private boolean isDue(CopyStatus status) {
        return switch (status.standing()) {
            case BEHIND, BEGUN -> true;
            case IN_STEP -> status.stale() > 0;
            case AWAY -> false;
            case FAILING ->
                status.seen()
                        .tried()
                        .map(t -> t.plus(AGAIN).isBefore(clock.instant()))
                        .orElse(true);
        };
    }

    private void keep(CopyStatus status, Progress stop) {
        String where = status.copy().folder().toString();
        try {
            copies.run(status.copy(), stop);
            told.remove(where);
        } catch (VaultException.Busy e) {
            // Somebody else is at it; that is seen at the next round.
            return;
        } catch (IOException e) {
            if (told.add(where)) {
                org.slf4j.LoggerFactory.getLogger(CopyKeeper.class).warn("the copy in {} is not kept", where, e);
            }
        }
        changed.run();
    }
}
