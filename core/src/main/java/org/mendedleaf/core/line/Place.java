package org.mendedleaf.core.line;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * What is protected: a folder, or a place in another system.
 *
 * @param id in its vault
 * @param source where its files are
 * @param name what people call it; the folder's name unless chosen otherwise
 * @param rhythm how often it is captured
 * @param exclusions patterns of what is left out, beside the standing ones
 * @param created when it was protected
 * @param versioning whether it is captured at all
 */
public record Place(
        long id,
        Source source,
        String name,
        Rhythm rhythm,
        List<String> exclusions,
        Instant created,
        Versioning versioning) {

    /** Copies the list. */
    public Place {
        exclusions = List.copyOf(exclusions);
    }

    /** A place whose earlier contents are kept. */
    public Place(long id, Source source, String name, Rhythm rhythm, List<String> exclusions, Instant created) {
        this(id, source, name, rhythm, exclusions, created, Versioning.ON);
    }

    /** A protected folder. */
    public Place(long id, Path root, String name, Rhythm rhythm, List<String> exclusions, Instant created) {
        this(id, new Source.Folder(root), name, rhythm, exclusions, created);
    }

    /** The same, captured or not. */
    public Place with(Versioning other) {
        return new Place(id, source, name, rhythm, exclusions, created, other);
    }

    /** Whether it is a folder that is captured by itself: neither paused, nor off, nor only by hand. */
    public boolean isKept() {
        return !isOutside() && versioning == Versioning.ON && rhythm.kind() != Rhythm.Kind.BY_HAND;
    }

    /** Whether it is in another system. */
    public boolean isOutside() {
        return source instanceof Source.Outside;
    }

    /**
     * The folder, absolute and real.
     *
     * @throws IllegalStateException when the place is in another system and has none
     */
    public Path root() {
        if (source instanceof Source.Folder folder) {
            return folder.root();
        }
        throw new IllegalStateException("expected a folder on this computer, got " + source.text());
    }

    /** The place in another system. */
    public Optional<Source.Outside> outside() {
        return source instanceof Source.Outside o ? Optional.of(o) : Optional.empty();
    }

    /** What people call it: a folder by its name, a place in a system as {@code SYSTEM:PLACE}. */
    public String label() {
        return isOutside() ? where() : name;
    }

    /** Where it is, as people write it: the folder's path, or {@code SYSTEM:PLACE}. */
    public String where() {
        return source instanceof Source.Outside o ? o.system() + ":" + o.place() : source.text();
    }
}
