package org.mendedleaf.core.service;

import java.time.Clock;
import java.time.Duration;
import java.util.function.Consumer;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Guardian;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyKeeper;
import org.mendedleaf.core.find.FindKeeper;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.HealthKeeper;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.notices.DesktopNotice;
import org.mendedleaf.core.notices.NoticeKeeper;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.snapshots.SnapshotKeeper;
import org.mendedleaf.core.systems.CheckKeeper;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.SystemWatch;
import org.mendedleaf.core.unfold.UnfoldKeeper;

/**
 * All that goes on by itself for a vault, the same in every program that does it: captures, places in other systems, snapshots,
 * retention, copies, checks, notices, the index of words, and unfolding.
 *
 * <pre>{@code
 * try (Supervisor duties = VaultDuties.start(vault, around, listeners)) {
 *     end.await();
 * }
 * }</pre>
 */
public final class VaultDuties {

    /** What can wait looks again so often whether the computer is plugged in. */
    private static final Duration ON_BATTERY = Duration.ofMinutes(5);

    private VaultDuties() {}

    /** Whose vault it is, and by which clock. */
    public record Around(
            UserSettings settings,
            SystemRegistry registry,
            Clock clock,
            Authors authors,
            String who,
            Calendar calendar) {}

    /**
     * Who hears of it; called from the threads of the duties.
     *
     * @param found health was looked at, or a copy was brought up to date
     * @param failing a duty fails, or goes well again
     */
    public record Listeners(
            Guardian.Listener captures,
            SystemWatch.Listener systems,
            SnapshotKeeper.Listener snapshots,
            UnfoldKeeper.Listener unfolding,
            CheckKeeper.Listener checks,
            RetentionKeeper.Listener retention,
            NoticeKeeper.Listener notices,
            Runnable found,
            Consumer<Duties.Failing> failing) {}

    /** Begins all duties of a vault; they go on until what is returned is closed. */
    public static Supervisor start(OpenVault vault, Around around, Listeners listeners) {
        Clock clock = around.clock();
        PowerSource power = new PowerSource();
        Supervisor supervisor =
                new Supervisor(Supervisor.Backoff.DEFAULT, new Duties(vault, clock, listeners.failing()));
        supervisor.add(new Guardian(supervisor, vault, clock, around.authors(), listeners.captures()));
        supervisor.add(new SystemWatch(vault, around.registry(), clock, listeners.systems()));
        supervisor.add(new SnapshotKeeper(vault, clock, around.authors(), around.who(), listeners.snapshots()));
        supervisor.add(new WhilePluggedIn(new FindKeeper(vault), power));
        supervisor.add(new WhilePluggedIn(new UnfoldKeeper(vault, clock, listeners.unfolding()), power));
        supervisor.add(new HealthKeeper(vault, clock, listeners.found()));
        Copies copies = new Copies(vault, clock, around.who());
        supervisor.add(new CopyKeeper(copies, clock, listeners.found()));
        supervisor.add(new WhilePluggedIn(
                new CheckKeeper(
                        vault,
                        new Healing(vault, around.registry(), clock, around.authors()),
                        copies,
                        clock,
                        false,
                        listeners.checks()),
                power));
        supervisor.add(new NoticeKeeper(vault, around.settings(), clock, DesktopNotice::tell, listeners.notices()));
        supervisor.add(new RetentionKeeper(
                vault,
                clock,
                around.who(),
                around.calendar(),
                () -> new Findings(vault, around.who()).pausing(clock.instant()).isPresent(),
                listeners.retention()));
        return supervisor;
    }

    /** What makes the computer work and can wait: it does, while that runs on its battery. */
    static final class WhilePluggedIn implements Supervisor.Duty {
        private final Supervisor.Duty duty;
        private final PowerSource power;

        WhilePluggedIn(Supervisor.Duty duty, PowerSource power) {
            this.duty = duty;
            this.power = power;
        }

        @Override
        public String name() {
            return duty.name();
        }

        @Override
        public Duration round(Supervisor.Breath breath) throws Exception {
            return power.isBattery() ? ON_BATTERY : duty.round(breath);
        }
    }
}
