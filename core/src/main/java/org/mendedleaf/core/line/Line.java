package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * A file through time.
 *
 * @param id in its vault
 * @param place it belongs to
 * @param path where the file is, or was last, from the place's root
 * @param removed when it was removed; empty while it is there
 * @param bytes of all versions together, each counted whole
 * @param points versions and events, newest first
 */
public record Line(long id, Place place, String path, Optional<Instant> removed, long bytes, List<LinePoint> points) {

    /** Copies the list. */
    public Line {
        points = List.copyOf(points);
    }

    /** The versions, newest first. */
    public List<Version> versions() {
        return points.stream()
                .filter(Version.class::isInstance)
                .map(Version.class::cast)
                .toList();
    }

    /** The version with this number. */
    public Optional<Version> version(int number) {
        return versions().stream().filter(v -> v.number() == number).findFirst();
    }

    /** The newest version. */
    public Optional<Version> newest() {
        return versions().stream().findFirst();
    }

    /** The name of the file, now or last. */
    public String name() {
        return RelativePath.name(path);
    }
}
