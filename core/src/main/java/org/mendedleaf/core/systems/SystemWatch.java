package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.rules.Setting;

/** Looks at the places in other systems at their rhythms, and runs the backups that are due. */
public final class SystemWatch implements AutoCloseable {

    private static final long ROUND_MILLIS = 5_000;

    private final OpenVault vault;
    private final SystemBook book;
    private final Clock clock;
    private final Listener listener;
    private final Thread thread;
    private volatile boolean ended;

    /** Hears what is done. */
    public interface Listener {
        /** A look or a run begins. */
        Progress begins(Place place, boolean backup);

        /** It came to its end. */
        void ended(Place place, boolean changed);

        /** It did not; the reason stands with the place. */
        void failed(Place place, IOException why);
    }

    private SystemWatch(OpenVault vault, SystemBook book, Clock clock, Listener listener) {
        this.vault = vault;
        this.book = book;
        this.clock = clock;
        this.listener = listener;
        this.thread = new Thread(this::watch, "systems");
        thread.setDaemon(true);
    }

    /** Starts watching over the places of a vault. */
    public static SystemWatch start(OpenVault vault, SystemBook book, Clock clock, Listener listener) {
        SystemWatch watch = new SystemWatch(vault, book, clock, listener);
        watch.thread.start();
        return watch;
    }

    private void watch() {
        try {
            while (!ended) {
                round();
                for (long waited = 0; waited < ROUND_MILLIS && !ended; waited += 100) {
                    Thread.sleep(100);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void round() {
        java.util.List<Place> places;
        try (Reading reading = vault.read()) {
            places = reading.places();
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(SystemWatch.class).warn("the systems are not looked at now", e);
            return;
        }
        for (Place place : places) {
            if (ended || book.kind(place).isEmpty()) {
                continue;
            }
            try {
                if (backupDue(place)) {
                    Progress progress = listener.begins(place, true);
                    BackupRun.Result r = new BackupRun(vault, place, book.system(place), clock).run(progress);
                    listener.ended(place, r.files() > 0);
                } else if (lookDue(place)) {
                    Progress progress = listener.begins(place, false);
                    Mirror.Result r = new Mirror(vault, place, book.system(place), clock).run(progress);
                    new HeldContents(vault, book).take(place, clock.instant(), progress);
                    listener.ended(place, r.points() + r.forgotten() > 0);
                }
            } catch (IOException | IllegalArgumentException e) {
                listener.failed(place, e instanceof IOException io ? io : new IOException(e.getMessage(), e));
            }
        }
    }

    private boolean lookDue(Place place) throws IOException {
        if (place.rhythm().kind() != Rhythm.Kind.EVERY) {
            return false;
        }
        try (Reading reading = vault.read()) {
            Optional<Instant> last = reading.state(place).lastLook();
            Duration every = Duration.ofMinutes(place.rhythm().minutes());
            // Whether a drive is plugged in again is worth asking more often.
            boolean away = Facts.of(reading, place).flatMap(Facts::awaySince).isPresent();
            Duration wait = away ? Duration.ofSeconds(20) : every;
            return last.isEmpty() || !clock.instant().isBefore(last.get().plus(wait));
        }
    }

    /** A missed run is caught up at the first look that finds the drive back. */
    private boolean backupDue(Place place) throws IOException {
        try (Reading reading = vault.read()) {
            Optional<Facts> facts = Facts.of(reading, place);
            boolean drive = facts.map(f ->
                            f.kind() == SystemKind.BACKUP_DRIVE && f.awaySince().isEmpty())
                    .orElse(false);
            if (!drive || reading.relations().stream().noneMatch((Relation r) -> r.other() == place.id())) {
                return false;
            }
            Facts f = facts.orElseThrow();
            Optional<Duration> every = Forgetting.every(f.settings().get(Setting.BACKUP_EVERY));
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
                    reading.cuts(place).stream().map(c -> c.at()).max(Instant::compareTo);
            return f.unfinished().isPresent()
                    || last.isEmpty()
                    || !clock.instant().isBefore(last.get().plus(every.get()));
        }
    }

    @Override
    public void close() {
        ended = true;
        try {
            // What a look or run had done stays; an open run is gone on with next time.
            thread.join(5000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
