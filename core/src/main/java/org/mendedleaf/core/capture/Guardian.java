package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;
import org.slf4j.LoggerFactory;

/**
 * Keeps the folders of a vault at their rhythms, each as a duty of its own: those that are captured on every save are
 * watched, the others are captured when their time has come. A folder that was away is looked at when it is back. It is a duty
 * itself: to see which folders there are, and with which settings, whoever changed them.
 */
public final class Guardian implements Supervisor.Duty {

    /** A save is captured when nothing was saved for so long, so that a program is through with saving. */
    public static final Duration QUIET = Duration.ofSeconds(2);

    /** But where saves follow each other without end, so long after the first of them. */
    public static final Duration LONGEST = Duration.ofSeconds(10);

    /** How long to wait for events, which wake who waits, before the folder itself is looked at: whether it is still the same one. */
    private static final Duration LISTEN = Duration.ofSeconds(1);

    /** A watch that is not complete, or not to be had, is made up for by scans this often. */
    private static final Duration FALLBACK = Duration.ofMinutes(10);

    /** Also a complete watch may miss what the system does not tell, as a drive that was mounted on a folder of it. */
    private static final Duration INSURANCE = Duration.ofHours(6);

    private static final Duration ROUND = Duration.ofSeconds(5);

    /**
     * Where the clock went on by so much more than the time that this program ran, the computer slept: what was changed meanwhile on a
     * drive that others can reach, or on one that was taken out and put back, nobody heard of.
     */
    private static final Duration SLEPT = Duration.ofMinutes(1);

    private final Supervisor supervisor;
    private final OpenVault vault;
    private final Clock clock;
    private final Authors authors;
    private final Listener listener;
    private final Map<String, Place> kept = new HashMap<>();
    private Object seen = "";

    /** Hears what was captured; called from the threads of the duties. */
    public interface Listener {
        /** A capture is about to begin. */
        default Progress capturing(Place place, CaptureScope scope) {
            return Progress.NONE;
        }

        /** A capture came to its end. */
        void captured(Place place, CaptureResult result);

        /** A capture could not be done; it is tried again. */
        void failed(Place place, IOException why);
    }

    /** Keeps the folders of a vault; each becomes a duty of the supervisor too. */
    public Guardian(Supervisor supervisor, OpenVault vault, Clock clock, Authors authors, Listener listener) {
        this.supervisor = supervisor;
        this.vault = vault;
        this.clock = clock;
        this.authors = authors;
        this.listener = listener;
    }

    @Override
    public String name() {
        return Words.of("duty.places");
    }

    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        Object now = vault.stamp();
        if (now.equals(seen)) {
            return ROUND;
        }
        List<Place> places;
        try (Reading reading = vault.read()) {
            places = reading.places().stream().filter(Place::isKept).toList();
        }
        for (Map.Entry<String, Place> e : Map.copyOf(kept).entrySet()) {
            if (!places.contains(e.getValue())) {
                supervisor.remove(e.getKey());
                kept.remove(e.getKey());
            }
        }
        for (Place place : new ArrayList<>(places)) {
            Keep keep = new Keep(place);
            if (!kept.containsKey(keep.name())) {
                kept.put(keep.name(), place);
                supervisor.add(keep);
            }
        }
        seen = now;
        return ROUND;
    }

    /** One folder at its rhythm. */
    private final class Keep implements Supervisor.Duty {
        private final Place place;
        private final QuietTime waiting = new QuietTime(QUIET, LONGEST);

        Keep(Place place) {
            this.place = place;
        }

        @Override
        public String name() {
            return Words.of("duty.captures", place.where());
        }

        @Override
        public Duration round(Supervisor.Breath breath) throws IOException, InterruptedException {
            try {
                return place.rhythm().kind() == Rhythm.Kind.ON_SAVE ? watch(breath) : byTheClock();
            } catch (IOException | RuntimeException | Error e) {
                IOException why = e instanceof IOException io ? io : new IOException(Words.of("capture.defect", e), e);
                listener.failed(place, why);
                note(why);
                throw e;
            }
        }

        /** What fails stands with the place, when the vault can be written to. */
        private void note(IOException why) {
            if (why instanceof VaultException.Busy) {
                return;
            }
            try {
                capture().failed(Failures.named(why));
            } catch (IOException | RuntimeException e) {
                LoggerFactory.getLogger(Guardian.class).warn("{} cannot be written down", why.getMessage(), e);
            }
        }

        private Capture capture() {
            return new Capture(vault, place, clock, authors);
        }

        private Duration watch(Supervisor.Breath breath) throws IOException, InterruptedException {
            Instant began = clock.instant();
            long beganNanos = System.nanoTime();
            requireThere();
            try (FolderWatch watch = new FolderWatch(place.root())) {
                // Whatever happened before the watch began is found by one scan.
                run(capture(), CaptureScope.WHOLE);
                breath.goesWell();
                breath.wakeBy(watch::stop);
                listen(breath, watch, began, beganNanos);
            }
            return Duration.ZERO;
        }

        private void requireThere() throws PlaceGoneException {
            if (!Files.isDirectory(place.root())) {
                throw new PlaceGoneException(Words.of("capture.placeGone", place.root()));
            }
        }

        private void listen(Supervisor.Breath breath, FolderWatch watch, Instant began, long beganNanos)
                throws InterruptedException, IOException {
            FolderWatch.Hearer hearer = new FolderWatch.Hearer() {
                @Override
                public void changed(String folder) {
                    waiting.changed(folder, System.nanoTime());
                }

                @Override
                public void lost() {
                    waiting.lost(System.nanoTime());
                }
            };
            long lastWhole = beganNanos;
            long lastHeard = beganNanos;
            Instant lastTime = began;
            Instant alive = clock.instant();
            while (!breath.isEnding()) {
                watch.hear(hearer, waiting.until(System.nanoTime(), LISTEN.toNanos()));
                if (watch.isRootGone()) {
                    requireThere();
                    // Another folder took its place, or it went and came back: that one is watched from now on.
                    return;
                }
                long now = System.nanoTime();
                Instant time = clock.instant();
                if (Duration.between(lastTime, time).minusNanos(now - lastHeard).compareTo(SLEPT) > 0) {
                    waiting.lost(now - QUIET.toNanos());
                }
                lastHeard = now;
                lastTime = time;
                Duration most = watch.isComplete() ? INSURANCE : FALLBACK;
                if (now - lastWhole > most.toNanos()) {
                    waiting.lost(now - QUIET.toNanos());
                    lastWhole = now;
                }
                Optional<CaptureScope> due = waiting.due(now);
                if (due.isPresent()) {
                    alive = captureHeard(watch, due.get());
                } else if (watch.isComplete() && Lateness.isToBeSaid(alive, clock.instant())) {
                    // Nothing was saved: all is captured, and that is said from time to time.
                    capture().allCaptured();
                    alive = clock.instant();
                }
            }
        }

        private Instant captureHeard(FolderWatch watch, CaptureScope due) throws IOException {
            Instant began = clock.instant();
            try {
                Capture capture = capture();
                run(watch.isComplete() ? capture.allThatChanged() : capture, due);
            } catch (VaultException.Busy e) {
                listener.failed(place, e);
                waiting.again(due, System.nanoTime());
            } catch (IOException | RuntimeException | Error e) {
                waiting.again(due, System.nanoTime());
                throw e;
            }
            return began;
        }

        private Duration byTheClock() throws IOException {
            Optional<Instant> last;
            try (Reading reading = vault.read()) {
                last = reading.state(place).lastLook();
            }
            Instant now = clock.instant();
            // A clock that was set back must not make anybody wait for it to come round again.
            boolean due = last.isEmpty()
                    || now.isBefore(last.get())
                    || place.rhythm()
                            .next(last.get(), clock.getZone())
                            .filter(next -> !now.isBefore(next))
                            .isPresent();
            if (due) {
                run(capture(), CaptureScope.WHOLE);
            }
            return ROUND;
        }

        private void run(Capture capture, CaptureScope scope) throws IOException {
            Progress progress = listener.capturing(place, scope);
            listener.captured(place, capture.run(scope, progress));
        }
    }
}
