package org.mendedleaf.cli.base;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Moments as somebody types them for a file or a folder: by the clock, by a snapshot, by a version. */
final class TypedMoment {

    private TypedMoment() {}

    /**
     * Reads a moment.
     *
     * @throws IllegalArgumentException with a message for the user, when it cannot be read or lies before the first capture
     */
    static Instant read(String typed, Base.Located located, Instant now, ZoneId zone) throws IOException {
        try (Reading reading = located.vault().read()) {
            Instant at = Present.since(new MomentText(zone, now, around(reading, located)).read(typed), now);
            Instant first = reading.changes().firstCapture(located.place()).orElse(Instant.MAX);
            if (at.isBefore(first)) {
                throw new IllegalArgumentException(Words.of(
                        "moment.beforeFirst",
                        Formats.full(at, zone),
                        located.place().name(),
                        first.equals(Instant.MAX) ? "" : Formats.full(first, zone)));
            }
            return at;
        }
    }

    private static MomentText.Around around(Reading reading, Base.Located located) {
        return new MomentText.Around() {
            @Override
            public Optional<Instant> lastChange() throws IOException {
                return reading.changes().lastChange(located.place(), located.path());
            }

            @Override
            public List<MomentText.Named> snapshots() throws IOException {
                return SnapshotStore.of(reading).all(located.place()).stream()
                        .map(Snapshot::named)
                        .toList();
            }

            @Override
            public Optional<Instant> version(String label) throws IOException {
                return reading.line(located.place(), located.path())
                        .flatMap(l -> l.version(label))
                        .map(Version::saved);
            }
        };
    }
}
