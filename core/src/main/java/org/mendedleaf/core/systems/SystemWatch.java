package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;

/** Looks at the places in other systems at their rhythms, and runs the backups that are due. */
public final class SystemWatch implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofSeconds(10);
    private static final Duration AGAIN = Duration.ofSeconds(20);
    private static final Duration SELDOM = Duration.ofMinutes(5);

    private final OpenVault vault;
    private final SystemRegistry registry;
    private final Clock clock;
    private final Listener listener;

    /** Hears what is done. */
    public interface Listener {
        /** A scan or a run begins. */
        Progress begins(Place place, boolean backup);

        /** It came to its end. */
        void ended(Place place, boolean changed);

        /** It did not; the reason stands with the place. */
        void failed(Place place, IOException why);
    }

    /** Watches over the places of a vault in other systems. */
    public SystemWatch(OpenVault vault, SystemRegistry registry, Clock clock, Listener listener) {
        this.vault = vault;
        this.registry = registry;
        this.clock = clock;
        this.listener = listener;
    }

    @Override
    public String name() {
        return Words.of("duty.systems");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        java.util.List<Place> places;
        try (Reading reading = vault.read()) {
            places = reading.places();
        }
        for (Place place : places) {
            if (breath.isEnding() || registry.kind(place).isEmpty()) {
                continue;
            }
            try {
                see(place);
            } catch (IOException | IllegalArgumentException e) {
                // It stands with the place; the others have their turn.
                listener.failed(place, e instanceof IOException io ? io : new IOException(e.getMessage(), e));
            }
        }
        return ROUND;
    }

    private void see(Place place) throws IOException {
        if (backupDue(place)) {
            Progress progress = listener.begins(place, true);
            BackupRun.Result r = new BackupRun(vault, place, registry.system(place), clock).run(progress);
            listener.ended(place, r.files() > 0);
        } else if (lookDue(place)) {
            Progress progress = listener.begins(place, false);
            Mirror.Result r = new Mirror(vault, place, registry.system(place), clock).run(progress);
            new OutsideHolds(vault, registry).take(place, clock.instant(), progress);
            listener.ended(place, r.points() + r.forgotten() > 0);
        }
    }

    private boolean lookDue(Place place) throws IOException {
        if (place.rhythm().kind() != Rhythm.Kind.EVERY) {
            return false;
        }
        try (Reading reading = vault.read()) {
            Optional<Instant> last = reading.state(place).lastLook();
            Duration every = Duration.ofMinutes(place.rhythm().minutes());
            Optional<OutsidePlaceState> state = OutsidePlaceState.of(reading, place);
            Instant now = clock.instant();
            Duration wait = state.flatMap(OutsidePlaceState::awaySince)
                    .map(since -> again(
                            state.map(OutsidePlaceState::kind).orElseThrow(), every, Duration.between(since, now)))
                    .orElse(every);
            return last.isEmpty() || !now.isBefore(last.get().plus(wait));
        }
    }

    /**
     * After how long a system that is away is asked again. Whether a drive is plugged in again costs nothing to see; a server is asked
     * ever more seldom the longer it is away, up to once in five minutes, and never more seldom than when it is there.
     */
    static Duration again(SystemKind kind, Duration every, Duration away) {
        if (kind == SystemKind.BACKUP_DRIVE) {
            return AGAIN;
        }
        Duration wait = away.dividedBy(6);
        Duration most = every.compareTo(SELDOM) < 0 ? every : SELDOM;
        Duration bounded = wait.compareTo(most) > 0 ? most : wait;
        return bounded.compareTo(AGAIN) < 0 ? AGAIN : bounded;
    }

    /** A missed run is caught up at the first scan that finds the drive back. */
    private boolean backupDue(Place place) throws IOException {
        try (Reading reading = vault.read()) {
            Optional<OutsidePlaceState> facts = OutsidePlaceState.of(reading, place);
            boolean drive = facts.map(f ->
                            f.kind() == SystemKind.BACKUP_DRIVE && f.awaySince().isEmpty())
                    .orElse(false);
            if (!drive || reading.outside().relations().stream().noneMatch((Relation r) -> r.other() == place.id())) {
                return false;
            }
            OutsidePlaceState f = facts.orElseThrow();
            Optional<Duration> every = OutsideRetention.every(f.settings().get(Setting.BACKUP_EVERY));
            if (every.isEmpty()) {
                return false;
            }
            // A run that failed is not tried at every round, but when the place is looked at again.
            Optional<Instant> look = reading.state(place).lastLook();
            boolean failed = !reading.state(place).trouble().isEmpty();
            if (failed
                    && look.isPresent()
                    && clock.instant()
                            .isBefore(look.get()
                                    .plus(Duration.ofMinutes(
                                            Math.max(1, place.rhythm().minutes()))))) {
                return false;
            }
            Optional<Instant> last =
                    reading.outside().cuts(place).stream().map(c -> c.at()).max(Instant::compareTo);
            return f.unfinished().isPresent()
                    || last.isEmpty()
                    || !clock.instant().isBefore(last.get().plus(every.get()));
        }
    }
}
