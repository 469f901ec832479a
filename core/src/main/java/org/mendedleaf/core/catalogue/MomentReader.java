package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Moments as somebody types them for a file or a folder: by the clock, by the last change, by a snapshot, by a version. */
public final class MomentReader {

    private final Reading reading;
    private final Place place;
    private final String path;
    private final @Nullable String file;

    /**
     * What is typed for something in a place.
     *
     * @param path of the folder or file whose last change can be meant
     * @param file whose versions can be meant; null for none
     */
    public MomentReader(Reading reading, Place place, String path, @Nullable String file) {
        this.reading = reading;
        this.place = place;
        this.path = path;
        this.file = file;
    }

    /**
     * Reads a moment.
     *
     * @throws IllegalArgumentException with a message for the user, when it cannot be read or lies before the first capture
     */
    public Instant read(String typed, Instant now, ZoneId zone) throws IOException {
        Instant at = new MomentText(zone, now, new Around()).read(typed);
        Instant first = reading.changes()
                .firstCapture(place)
                .orElseThrow(() -> new IllegalArgumentException(Words.of("moment.noCapture", place.label())));
        if (at.isBefore(first)) {
            throw new IllegalArgumentException(
                    Words.of("moment.beforeFirst", Formats.full(at, zone), place.label(), Formats.full(first, zone)));
        }
        return at;
    }

    private final class Around implements MomentText.Around {
        @Override
        public Optional<Instant> lastChange() throws IOException {
            return reading.changes().lastChange(place, path);
        }

        @Override
        public List<MomentText.Named> snapshots() throws IOException {
            return SnapshotStore.of(reading).all(place).stream()
                    .map(Snapshot::named)
                    .toList();
        }

        /** A file may have been saved long before its folder was captured; from then on its first version is seen. */
        @Override
        public Optional<Instant> version(String label) throws IOException {
            Instant first = reading.changes().firstCapture(place).orElse(Instant.MIN);
            return (file == null ? Optional.<Line>empty() : reading.line(place, file))
                    .flatMap(l -> l.version(label))
                    .map(Version::saved)
                    .map(saved -> saved.isBefore(first) ? first : saved);
        }
    }
}
