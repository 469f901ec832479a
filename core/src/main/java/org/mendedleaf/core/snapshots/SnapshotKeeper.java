package org.mendedleaf.core.snapshots;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Snapshot;

/** Takes the snapshots of a vault's folders whose time has come. A folder that is away is tried again and again. */
public final class SnapshotKeeper implements AutoCloseable {

    private static final long ROUND_MILLIS = 5_000;

    private final OpenVault vault;
    private final Clock clock;
    private final Authors authors;
    private final String who;
    private final Listener listener;
    private final Thread thread;
    private volatile boolean ended;

    /** Hears what is done; called from the keeper's thread. */
    public interface Listener {
        /** A snapshot was taken. */
        void taken(Place place, Snapshot snapshot);

        /** One could not be taken now; it is tried again. */
        void failed(Place place, IOException why);
    }

    private SnapshotKeeper(OpenVault vault, Clock clock, Authors authors, String who, Listener listener) {
        this.vault = vault;
        this.clock = clock;
        this.authors = authors;
        this.who = who;
        this.listener = listener;
        this.thread = new Thread(this::keep, "snapshots");
        thread.setDaemon(true);
    }

    /** Starts keeping the schedules of a vault. */
    public static SnapshotKeeper start(OpenVault vault, Clock clock, Authors authors, String who, Listener listener) {
        SnapshotKeeper keeper = new SnapshotKeeper(vault, clock, authors, who, listener);
        keeper.thread.start();
        return keeper;
    }

    private void keep() {
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

    /** Sees once to what is due. */
    void round() {
        List<Place> places;
        try (Reading reading = vault.read()) {
            places = reading.places();
        } catch (IOException | IllegalStateException e) {
            org.slf4j.LoggerFactory.getLogger(SnapshotKeeper.class).warn("no snapshot can be taken now", e);
            return;
        }
        for (Place place : places) {
            if (ended || place.isOutside()) {
                continue;
            }
            try {
                new Snapshots(vault, place, clock, authors, who)
                        .seeToSchedules(Progress.NONE)
                        .forEach(s -> listener.taken(place, s));
            } catch (IOException e) {
                listener.failed(place, e);
            }
        }
    }

    @Override
    public void close() {
        ended = true;
        try {
            thread.join(5000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
