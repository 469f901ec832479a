package org.mendedleaf.core.capture;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.vault.VaultException;

/**
 * Keeps the places of a vault at their rhythms, one thread for each: those that are captured on every save are watched,
 * the others are captured when their time has come. A place that was away is looked at when it is back.
 */
public final class Guardian implements AutoCloseable {

    private static final Duration QUIET = Duration.ofSeconds(2);
    private static final Duration LONGEST = Duration.ofSeconds(30);
    private static final long LISTEN_MILLIS = 250;

    /** A watch that is not complete, or not to be had, is made up for by looks this often. */
    private static final Duration FALLBACK = Duration.ofMinutes(10);

    private static final Duration RETRY = Duration.ofSeconds(5);

    private final List<Thread> threads = new ArrayList<>();
    private volatile boolean ended;

    private Guardian() {}

    /** Hears what was captured; called from the guardian's threads. */
    public interface Listener {
        /** A capture is about to begin. */
        default Progress capturing(Place place, Scope scope) {
            return Progress.NONE;
        }

        /** A capture came to its end. */
        void captured(Place place, CaptureResult result);

        /** A capture could not be done; it is tried again. */
        void failed(Place place, IOException why);
    }

    /** Starts with the places that the vault has now. */
    public static Guardian start(OpenVault vault, Clock clock, Authors authors, Listener listener) throws IOException {
        Guardian guardian = new Guardian();
        List<Place> places;
        try (Reading reading = vault.read()) {
            places = reading.places().stream().filter(p -> !p.isOutside()).toList();
        }
        for (Place place : places) {
            if (place.rhythm().kind() != Rhythm.Kind.BY_HAND) {
                Capture capture = new Capture(vault, place, clock, authors);
                Thread thread = new Thread(
                        () -> guardian.keep(vault, place, clock, capture, listener), "guardian-" + place.id());
                thread.setDaemon(true);
                guardian.threads.add(thread);
                thread.start();
            }
        }
        return guardian;
    }

    private void keep(OpenVault vault, Place place, Clock clock, Capture capture, Listener listener) {
        try {
            if (place.rhythm().kind() == Rhythm.Kind.ON_SAVE) {
                watch(place, capture, listener);
            } else {
                byTheClock(vault, place, clock, capture, listener);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void watch(Place place, Capture capture, Listener listener) throws InterruptedException {
        QuietTime waiting = new QuietTime(QUIET, LONGEST);
        while (!ended) {
            try (FolderWatch watch = new FolderWatch(place.root())) {
                // Whatever happened before the watch began is found by one look.
                run(place, capture, Scope.WHOLE, listener);
                listen(place, capture, listener, watch, waiting);
            } catch (IOException e) {
                listener.failed(place, e);
                pause(RETRY);
            }
        }
    }

    private void listen(Place place, Capture capture, Listener listener, FolderWatch watch, QuietTime waiting)
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
        long lastWhole = System.nanoTime();
        while (!ended) {
            watch.hear(hearer, LISTEN_MILLIS);
            if (watch.isRootGone()) {
                throw new PlaceGoneException(place.root());
            }
            long now = System.nanoTime();
            if (!watch.isComplete() && now - lastWhole > FALLBACK.toNanos()) {
                waiting.lost(now - QUIET.toNanos());
                lastWhole = now;
            }
            Optional<Scope> due = waiting.due(now);
            if (due.isPresent()) {
                try {
                    run(place, capture, due.get(), listener);
                } catch (VaultException.Busy e) {
                    listener.failed(place, e);
                    waiting.again(due.get(), System.nanoTime());
                } catch (IOException e) {
                    waiting.again(due.get(), System.nanoTime());
                    throw e;
                }
            }
        }
    }

    private void byTheClock(OpenVault vault, Place place, Clock clock, Capture capture, Listener listener)
            throws InterruptedException {
        Duration every = Duration.ofMinutes(place.rhythm().minutes());
        while (!ended) {
            try {
                Instant last = lastLook(vault, place);
                if (last == null || !clock.instant().isBefore(last.plus(every))) {
                    run(place, capture, Scope.WHOLE, listener);
                }
                pause(Duration.ofSeconds(5));
            } catch (IOException e) {
                listener.failed(place, e);
                pause(RETRY);
            }
        }
    }

    private static @Nullable Instant lastLook(OpenVault vault, Place place) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.state(place).lastLook().orElse(null);
        }
    }

    private static void run(Place place, Capture capture, Scope scope, Listener listener) throws IOException {
        Progress progress = listener.capturing(place, scope);
        listener.captured(place, capture.run(scope, progress));
    }

    private void pause(Duration time) throws InterruptedException {
        long end = System.nanoTime() + time.toNanos();
        while (!ended && System.nanoTime() < end) {
            Thread.sleep(Math.min(100, time.toMillis()));
        }
    }

    @Override
    public void close() {
        ended = true;
        for (Thread thread : threads) {
            try {
                // A capture that is running comes to the end of its group; nothing acknowledged depends on it.
                thread.join(5000);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }
}
