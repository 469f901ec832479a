package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/**
 * Which files a hold of a folder has taken hold of: those that were in it when it was put, and those that came into it since.
 * They stay held wherever they go. It is written down when it happens, so that neither renames nor clocks can change it.
 */
public final class HeldLines {

    private static final String DONE = "held-lines";

    private final WriteSession session;
    private final PathIds names;
    private final Map<Long, List<Hold>> byPlace = new HashMap<>();
    private final Map<Long, List<Hold>> byFolder = new HashMap<>();

    HeldLines(WriteSession session, PathIds names) {
        this.session = session;
        this.names = names;
    }

    /** The files that a hold of a folder has taken hold of. */
    public static Set<Long> of(Reading reading, Hold hold) throws IOException {
        return of(reading.sql(), hold);
    }

    static Set<Long> of(Sql sql, Hold hold) throws IOException {
        return new HashSet<>(sql.list("SELECT line FROM held_line WHERE hold = ?", r -> r.getLong(1), hold.id()));
    }

    private static boolean covers(Reading reading, Hold hold, Place place, Line file, int version) throws IOException {
        return hold.covers(place, file, version)
                || (hold.kind() == Hold.Kind.FOLDER
                        && hold.place() == place.id()
                        && reading.sql()
                                        .number(
                                                "SELECT count(*) FROM held_line WHERE hold = ? AND line = ?",
                                                hold.id(),
                                                file.id())
                                > 0);
    }

    /** The first of these holds that is about this version. */
    public static Optional<Hold> covering(Reading reading, List<Hold> holds, Place place, Line file, int version)
            throws IOException {
        for (Hold hold : holds) {
            if (covers(reading, hold, place, file, version)) {
                return Optional.of(hold);
            }
        }
        return Optional.empty();
    }

    /** A file is in a folder from now on. */
    void arrives(Place place, long line, long folder) throws IOException {
        if (holds(place.id()).isEmpty()) {
            return;
        }
        for (Hold hold : around(place.id(), folder)) {
            session.apply(Op.HELD_LINE, hold.id(), line);
        }
    }

    private List<Hold> holds(long place) throws IOException {
        if (byPlace.isEmpty()) {
            byPlace.put(0L, List.of());
            for (Hold h : HoldStore.of(session).standing()) {
                if (h.kind() == Hold.Kind.FOLDER) {
                    byPlace.computeIfAbsent(h.place(), p -> new ArrayList<>()).add(h);
                }
            }
        }
        return byPlace.getOrDefault(place, List.of());
    }

    private List<Hold> around(long place, long folder) throws IOException {
        List<Hold> known = byFolder.get(folder);
        if (known == null) {
            String path = names.path(folder);
            known = holds(place).stream()
                    .filter(h -> RelativePath.isWithin(path, h.path()))
                    .toList();
            byFolder.put(folder, known);
        }
        return known;
    }

    /** A hold of a folder takes hold of what is in it, and of what was removed from it. */
    static void begin(WriteSession session, Hold hold) throws IOException {
        if (hold.kind() != Hold.Kind.FOLDER) {
            return;
        }
        PathIds names = new PathIds(session.sql());
        record At(long line, long folder) {}
        List<At> lines = session.sql()
                .list(
                        "SELECT l.id, n.folder FROM line l JOIN node n ON n.id = l.node WHERE l.place = ?",
                        r -> new At(r.getLong(1), r.getLong(2)),
                        hold.place());
        Set<Long> there = of(session.sql(), hold);
        Map<Long, Boolean> inside = new HashMap<>();
        for (At at : lines) {
            Boolean in = inside.get(at.folder());
            if (in == null) {
                in = RelativePath.isWithin(names.path(at.folder()), hold.path());
                inside.put(at.folder(), in);
            }
            if (in && !there.contains(at.line())) {
                session.apply(Op.HELD_LINE, hold.id(), at.line());
            }
        }
    }

    /** Holds of earlier versions of this program wrote nothing down: they take hold of what was in their folder since. */
    static void catchUp(WriteSession session) throws IOException {
        if (session.note(DONE) != 0) {
            return;
        }
        for (Hold hold : HoldStore.of(session).standing()) {
            if (hold.kind() != Hold.Kind.FOLDER) {
                continue;
            }
            begin(session, hold);
            PathIds names = new PathIds(session.sql());
            record Was(long line, long folder) {}
            for (Was was : session.sql()
                    .list(
                            "SELECT DISTINCT n.line, s.folder FROM folder f JOIN span s ON s.folder = f.id"
                                    + " JOIN node n ON n.id = s.node WHERE f.place = ? AND n.line <> 0"
                                    + " AND s.valid_to > ?",
                            r -> new Was(r.getLong(1), r.getLong(2)),
                            hold.place(),
                            Moment.micros(hold.at()))) {
                if (RelativePath.isWithin(names.path(was.folder()), hold.path())) {
                    session.apply(Op.HELD_LINE, hold.id(), was.line());
                }
            }
        }
        session.note(DONE, 1);
    }
}
