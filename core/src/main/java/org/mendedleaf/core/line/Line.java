package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.words.Words;

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

    /**
     * The version that somebody names, by what it is called.
     *
     * @param text such as {@code 7} or {@code 3.1}
     * @throws IllegalArgumentException with a message for the user, when several are called that
     */
    public Optional<Version> version(String text) {
        List<Version> called =
                versions().stream().filter(v -> v.label().equals(text.strip())).toList();
        if (called.size() > 1) {
            throw new IllegalArgumentException(Words.of("version.several", path, text.strip(), called.size()));
        }
        return called.stream().findFirst();
    }

    /** What the version with this number is called. */
    public String label(int number) {
        return version(number).map(Version::label).orElse(number == 0 ? "" : Integer.toString(number));
    }

    /** How a version of it came here, as a message. */
    public String originWords(Version v) {
        return v.origin() == Origin.RESTORED && v.source() == 0
                ? Words.of("origin.RESTORED_ELSEWHERE")
                : Words.of("origin." + v.origin(), label(v.source()));
    }

    /** How many versions are there still; of a place in another system, how many it has shown. */
    public long versionsHere() {
        return place.isOutside()
                ? versions().size()
                : versions().stream().filter(v -> !v.recipe().isElsewhere()).count();
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
