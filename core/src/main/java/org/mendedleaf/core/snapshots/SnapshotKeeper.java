package org.mendedleaf.core.snapshots;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.words.Words;

/** Takes the snapshots of a vault's folders whose time has come. A folder that is away is tried again and again. */
public final class SnapshotKeeper implements Supervisor.Duty {

    private static final Duration ROUND = Duration.ofSeconds(15);

    private final OpenVault vault;
    private final Clock clock;
    private final Authors authors;
    private final String who;
    private final Listener listener;

    /** Hears what is done; called from the keeper's thread. */
    public interface Listener {
        /** A snapshot was taken. */
        void taken(Place place, Snapshot snapshot);

        /** One could not be taken now; it is tried again. */
        void failed(Place place, IOException why);
    }

    /** Keeps the schedules of a vault. */
    public SnapshotKeeper(OpenVault vault, Clock clock, Authors authors, String who, Listener listener) {
        this.vault = vault;
        this.clock = clock;
        this.authors = authors;
        this.who = who;
        this.listener = listener;
    }

    @Override
    public String name() {
        return Words.of("duty.snapshots");
    }

    /** Sees once to what is due. */
    @Override
    public Duration round(Supervisor.Breath breath) throws IOException {
        List<Place> places;
        try (Reading reading = vault.read()) {
            places = reading.places();
        }
        IOException first = null;
        for (Place place : places) {
            if (breath.isEnding() || place.isOutside()) {
                continue;
            }
            try {
                new Snapshots(new WorkContext(vault, place, clock, authors, who))
                        .seeToSchedules(Progress.NONE)
                        .forEach(s -> listener.taken(place, s));
            } catch (IOException e) {
                // The others have their turn all the same.
                listener.failed(place, e);
                first = first == null ? e : first;
            }
        }
        if (first != null) {
            throw first;
        }
        return ROUND;
    }
}
