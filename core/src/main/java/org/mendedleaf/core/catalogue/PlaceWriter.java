package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/** Protects folders: makes places and changes their settings. */
public final class PlaceWriter {

    private final WriteSession session;

    /** A writer within this session. */
    public PlaceWriter(WriteSession session) {
        this.session = session;
    }

    /**
     * Protects a folder, or changes the settings of one that is protected: only those that are named.
     *
     * @param root a real path
     * @throws IllegalArgumentException with a message for the user, when the folder and the vault lie in one another, or the folder and one
     *     that is protected already
     */
    public Place protect(Path root, String name, PlaceChange change, Instant now) throws IOException {
        refuseNesting(root, realVault());
        for (Place other : new PlaceQuery(session.sql()).all()) {
            if (other.isOutside()) {
                continue;
            }
            if (other.root().equals(root)) {
                Optional<Place> before = Optional.of(other);
                List<String> exclusions = change.exclusionsOver(before);
                return store(
                        new Place(
                                other.id(),
                                other.source(),
                                other.name(),
                                change.rhythmOver(before),
                                exclusions,
                                other.created(),
                                other.versioning()),
                        before);
            }
            if (root.startsWith(other.root())) {
                throw new IllegalArgumentException(Words.of("protect.within", root, other.root()));
            }
            if (other.root().startsWith(root)) {
                throw new IllegalArgumentException(Words.of("protect.around", root, other.root()));
            }
        }
        long id = session.nextId(WriteSession.Table.PLACE);
        Optional<Place> none = Optional.empty();
        return store(new Place(id, root, name, change.rhythmOver(none), change.exclusionsOver(none), now), none);
    }

    /** Takes a place in another system among those of this vault, or changes how often it is looked at. */
    public Place outside(Source.Outside source, Rhythm rhythm, Instant now) throws IOException {
        for (Place other : new PlaceQuery(session.sql()).all()) {
            if (other.source().equals(source)) {
                return store(
                        new Place(other.id(), source, other.name(), rhythm, other.exclusions(), other.created()),
                        Optional.of(other));
            }
        }
        long id = session.nextId(WriteSession.Table.PLACE);
        return store(new Place(id, source, source.place(), rhythm, List.of(), now), Optional.empty());
    }

    private Path realVault() throws IOException {
        return session.vault().root().toRealPath();
    }

    /** Refuses a vault in the folder that it keeps, and the other way round. */
    public static void refuseNesting(Path root, Path vault) {
        if (vault.startsWith(root)) {
            throw new IllegalArgumentException(Words.of("protect.vaultInside", root, vault));
        }
        if (root.startsWith(vault)) {
            throw new IllegalArgumentException(Words.of("protect.insideVault", root, vault));
        }
    }

    /**
     * The real path of a folder that somebody wants to protect.
     *
     * @throws IllegalArgumentException with a message for the user, when it is not there or no folder
     */
    public static Path realFolder(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) {
            throw new IllegalArgumentException(
                    Words.of(Files.exists(folder) ? "protect.notAFolder" : "protect.noFolder", folder));
        }
        return folder.toRealPath();
    }

    private Place store(Place place, Optional<Place> before) throws IOException {
        if (before.filter(place::equals).isPresent()) {
            return place;
        }
        session.apply(
                Op.PLACE,
                place.id(),
                place.source().text(),
                place.name(),
                place.rhythm().kind().name(),
                place.rhythm().minutes(),
                Moment.micros(place.created()));
        if (before.filter(b -> b.exclusions().equals(place.exclusions())).isPresent()) {
            return place;
        }
        session.apply(Op.CLEAR_EXCLUSIONS, place.id());
        for (String pattern : place.exclusions()) {
            session.apply(Op.EXCLUSION, place.id(), pattern);
        }
        // What is left out may have changed: the next scan must not take the last one's word for it.
        session.applyUnlogged("DELETE FROM scan WHERE folder IN (SELECT id FROM folder WHERE place = ?)", place.id());
        return place;
    }

    /** Notes a capture; the same id again replaces what was noted. */
    public long capture(Place place, long id, CaptureRecord capture) throws IOException {
        long row = id == 0 ? session.nextId(WriteSession.Table.CAPTURE) : id;
        session.apply(
                Op.CAPTURE,
                row,
                place.id(),
                Moment.micros(capture.started()),
                Moment.micros(capture.ended()),
                capture.first() ? 1 : 0,
                capture.changes(),
                capture.bytes());
        return row;
    }
}
