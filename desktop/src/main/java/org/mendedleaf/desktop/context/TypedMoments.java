package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Typed moments of a place. Off the screen's thread. */
public final class TypedMoments {

    private TypedMoments() {}

    /**
     * The moment that a text means in a folder.
     *
     * @param file whose versions can be named; null when none is looked at
     * @throws IllegalArgumentException with a message for the user, when it means none, or one before anything is known
     */
    public static Instant understand(
            AppContext context, OpenPlace openPlace, String folder, @Nullable String file, String typed)
            throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            Instant at = new MomentText(
                            context.zone(), context.clock().instant(), around(reading, openPlace, folder, file))
                    .read(typed);
            Instant first = reading.changes().firstCapture(openPlace.place()).orElse(Instant.EPOCH);
            if (at.isBefore(first)) {
                throw new IllegalArgumentException(Words.of(
                        "moment.beforeFirst",
                        Formats.full(at, context.zone()),
                        openPlace.place().label(),
                        Formats.full(first, context.zone())));
            }
            return at;
        }
    }

    private static MomentText.Around around(
            Reading reading, OpenPlace openPlace, String folder, @Nullable String file) {
        return new MomentText.Around() {
            @Override
            public Optional<Instant> lastChange() throws IOException {
                return reading.changes().lastChange(openPlace.place(), folder);
            }

            @Override
            public List<MomentText.Named> snapshots() throws IOException {
                return SnapshotStore.of(reading).all(openPlace.place()).stream()
                        .map(Snapshot::named)
                        .toList();
            }

            @Override
            public Optional<Instant> version(String label) throws IOException {
                return (file == null ? Optional.<Line>empty() : reading.line(openPlace.place(), file))
                        .flatMap(l -> l.version(label))
                        .map(Version::saved);
            }
        };
    }
}
