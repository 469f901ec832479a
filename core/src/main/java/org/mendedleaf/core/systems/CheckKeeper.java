package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.CheckSchedule;
import org.mendedleaf.core.check.LastCheck;
import org.mendedleaf.core.check.SoundPacks;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyHealing;
import org.mendedleaf.core.copies.CopyStatus;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Rest;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Reads every byte of a vault and of its copies on a schedule, at low priority, and heals what is damaged. It rests longer than
 * it reads, and longer still while the computer is busy; ended at any moment, it goes on with the next pack.
 */
public final class CheckKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofMinutes(10);

    /** It rests three times as long as it reads. */
    private static final int REST = 3;

    /** Not in the first minute of a program, which has other things to do. */
    private static final Duration FIRST = Duration.ofMinutes(1);

    private final OpenVault vault;
    private final Healing healing;
    private final Copies copies;
    private final Clock clock;
    private final Listener listener;
    private boolean first;

    /** Hears what comes of it; called from the keeper's thread. */
    public interface Listener {
        /** A check came to its end. */
        void checked(Healing.Result result);
    }

    /**
     * Keeps a vault checked.
     *
     * @param atOnce whether the first round may begin at once
     */
    public CheckKeeper(
            OpenVault vault, Healing healing, Copies copies, Clock clock, boolean atOnce, Listener listener) {
        this.vault = vault;
        this.healing = healing;
        this.copies = copies;
        this.clock = clock;
        this.first = !atOnce;
        this.listener = listener;
    }

    @Override
    public String name() {
        return Words.of("duty.check");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        if (first) {
            first = false;
            return FIRST;
        }
        Instant now = clock.instant();
        Instant began;
        try (Reading reading = vault.read()) {
            Optional<Instant> due = CheckSchedule.due(reading);
            if (due.isEmpty() || due.get().isAfter(now)) {
                return ROUND;
            }
            began = CheckSchedule.began(reading).orElse(now);
        }
        CheckSchedule.begin(vault, began);
        Gently gently = new Gently(breath);
        SoundPacks packs = new SoundPacks(vault, began);
        Set<Long> damaged = new HashSet<>();
        boolean more = true;
        while (more && !breath.isEnding()) {
            more = packs.readNext(damaged, clock.instant(), n -> gently.advance(0, n));
        }
        if (breath.isEnding()) {
            return ROUND;
        }
        VaultCheck.Report report = new VaultCheck(vault).run(VaultCheck.Depth.DEEP, gently, packs.known());
        if (report.cancelled()) {
            return ROUND;
        }
        Healing.Result result = healing.heal(report, gently);
        LastCheck.note(vault, result.after(), clock.instant());
        CheckSchedule.end(vault);
        copies(began, gently);
        listener.checked(result);
        return ROUND;
    }

    /** What is wrong with a copy is noted at it. */
    private void copies(Instant began, Gently gently) throws IOException {
        for (CopyStatus status : copies.list()) {
            boolean isRead =
                    status.seen().checked().filter(c -> !c.isBefore(began)).isPresent();
            if (!isRead && status.standing() != CopyStatus.Standing.AWAY && !gently.isCancelled()) {
                try {
                    new CopyHealing(copies).check(status.copy(), gently);
                } catch (VaultException e) {
                    org.slf4j.LoggerFactory.getLogger(CheckKeeper.class).info("a copy is not checked", e);
                }
            }
        }
    }

    /** Rests after each megabyte, and ends between two records. */
    private static final class Gently implements Progress {
        private static final long PIECE = 1 << 20;

        private final Supervisor.Breath breath;
        private final Rest rest = new Rest(REST);
        private long began = System.nanoTime();
        private long bytes;

        Gently(Supervisor.Breath breath) {
            this.breath = breath;
        }

        @Override
        public void advance(long files, long more) {
            bytes += more;
            if (bytes < PIECE || breath.isEnding()) {
                return;
            }
            bytes = 0;
            try {
                rest.after(began);
            } catch (java.io.InterruptedIOException e) {
                // The flag is set again; whoever reads next ends by it.
                return;
            }
            began = System.nanoTime();
        }

        @Override
        public boolean isCancelled() {
            return breath.isEnding() || Thread.currentThread().isInterrupted();
        }
    }
}
