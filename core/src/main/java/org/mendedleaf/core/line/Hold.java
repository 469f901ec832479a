package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.words.Words;

/**
 * Something that nothing takes away, no rule and no person by accident, until its end or until somebody lifts it.
 *
 * @param id in its vault; 0 for one that is not stored yet
 * @param place id of the place
 * @param kind what is held
 * @param line of a version or a file; 0 otherwise
 * @param number of a version; 0 otherwise
 * @param path of a folder, from the place's root; for a version or a file where that was then
 * @param snapshot id of a snapshot; 0 otherwise
 * @param reason in somebody's words
 * @param who holds it
 * @param at since when
 * @param until when it ends by itself; empty for never
 * @param lifted when somebody lifted it
 */
public record Hold(
        long id,
        long place,
        Kind kind,
        long line,
        int number,
        String path,
        long snapshot,
        String reason,
        String who,
        Instant at,
        Optional<Instant> until,
        Optional<Instant> lifted) {

    /** What can be held. */
    public enum Kind {
        /** One version of a file. */
        VERSION,
        /** All versions of a file, those to come too. */
        LINE,
        /** All versions of all files that are or were last in a folder or below it. */
        FOLDER,
        /** What a snapshot holds, and the snapshot itself. */
        SNAPSHOT
    }

    /** One that nobody has put yet: what would be held, without a reason and an end. */
    public static Hold of(Place place, Kind kind, long line, int number, String path, long snapshot) {
        return new Hold(
                0,
                place.id(),
                kind,
                line,
                number,
                path,
                snapshot,
                "",
                "",
                Instant.EPOCH,
                Optional.empty(),
                Optional.empty());
    }

    /** The same with its reason, by whom, since when, and until when. */
    public Hold because(String why, String person, Instant since, Optional<Instant> ends) {
        return new Hold(id, place, kind, line, number, path, snapshot, why.strip(), person, since, ends, lifted);
    }

    /** Whether it holds at this moment. */
    public boolean holds(Instant now) {
        return lifted.isEmpty() && until.map(now::isBefore).orElse(true);
    }

    /** Whether it is about this version; what snapshots show is not asked. */
    public boolean covers(Place of, Line file, int version) {
        return place == of.id()
                && switch (kind) {
                    case VERSION -> line == file.id() && number == version;
                    case LINE -> line == file.id();
                    case FOLDER -> path.isEmpty() || file.path().startsWith(path + "/");
                    case SNAPSHOT -> false;
                };
    }

    /**
     * Refuses an end that has passed.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static void requireToCome(Optional<Instant> until, Instant now) {
        if (until.isPresent() && !until.get().isAfter(now)) {
            throw new IllegalArgumentException(Words.of("hold.past"));
        }
    }

    /** The same under an id. */
    public Hold withId(long other) {
        return new Hold(other, place, kind, line, number, path, snapshot, reason, who, at, until, lifted);
    }

    /** The same, lifted. */
    public Hold lift(Instant when) {
        return new Hold(id, place, kind, line, number, path, snapshot, reason, who, at, until, Optional.of(when));
    }

    /**
     * What can be held where somebody points at a file.
     *
     * @param number of a version; 0 for the file
     */
    public static List<Hold> ofFile(Place place, Line line, int number) {
        Hold whole = of(place, Kind.LINE, line.id(), 0, line.path(), 0);
        List<Hold> all = new ArrayList<>();
        if (number > 0) {
            all.add(of(place, Kind.VERSION, line.id(), number, line.path(), 0));
        }
        all.add(whole);
        all.addAll(ofFolder(place, RelativePath.parent(line.path())));
        return all;
    }

    /** What can be held where somebody points at a folder: it, and those it lies in. */
    public static List<Hold> ofFolder(Place place, String folder) {
        List<Hold> all = new ArrayList<>();
        String path = folder;
        while (!path.isEmpty()) {
            all.add(of(place, Kind.FOLDER, 0, 0, path, 0));
            path = RelativePath.parent(path);
        }
        all.add(of(place, Kind.FOLDER, 0, 0, "", 0));
        return all;
    }
}
