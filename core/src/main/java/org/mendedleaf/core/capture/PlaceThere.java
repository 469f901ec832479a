package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/**
 * Whether the folder of a place is there. Where a disk was mounted and is not any longer, an empty folder has its name: it
 * is another folder than before, and nothing of what was in it is there. That is no folder whose files were removed.
 */
final class PlaceThere {

    private final Place place;

    PlaceThere(Place place) {
        this.place = place;
    }

    private String note() {
        return "root-" + place.id();
    }

    /** By which a folder is known again, whatever it is called; 0 where the system does not say. */
    private long key() throws IOException {
        Object key =
                Files.readAttributes(place.root(), BasicFileAttributes.class).fileKey();
        return key == null ? 0 : 1 + (key.hashCode() & 0xffff_ffffL);
    }

    /**
     * Why the place is taken to be away, as a message; empty when it is there.
     *
     * @param emptied whether somebody said that it was emptied on purpose
     */
    Optional<String> away(Reading reading, boolean emptied) throws IOException {
        if (!Files.isDirectory(place.root())) {
            return Optional.of(Words.of("capture.placeGone", place.root()));
        }
        long before = reading.note(note());
        if (emptied || before == 0 || before == key()) {
            return Optional.empty();
        }
        List<Entry> known = reading.folders().listing(place, "", Moment.FAR, false);
        if (known.isEmpty() || holdsAny(known)) {
            return Optional.empty();
        }
        return Optional.of(Words.of("capture.placeEmpty", place.root(), known.size()));
    }

    /** Whether the folder is there and nothing of what was in it, so that its disk may be away. */
    boolean looksEmptied(Reading reading) throws IOException {
        return Files.isDirectory(place.root()) && away(reading, false).isPresent();
    }

    private boolean holdsAny(List<Entry> known) throws IOException {
        try (Stream<java.nio.file.Path> inside = Files.list(place.root())) {
            List<String> there = inside.map(p -> p.getFileName().toString()).toList();
            return known.stream().anyMatch(e -> there.contains(e.name()));
        }
    }

    /** Remembers the folder that is there now. */
    void remember(WriteSession session) throws IOException {
        long key = key();
        if (session.note(note()) != key) {
            session.note(note(), key);
        }
    }
}
