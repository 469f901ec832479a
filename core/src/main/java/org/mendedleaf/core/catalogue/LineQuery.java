package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Edition;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

/** Queries about lines. */
public final class LineQuery {

    private final Sql sql;
    private final PathIds names;

    LineQuery(Sql sql, PathIds names) {
        this.sql = sql;
        this.names = names;
    }

    /**
     * The line of a path: the one that is there now; else the one that was removed from it last; else the one that left
     * it by a rename.
     */
    Optional<Line> find(Place place, String path) throws IOException {
        Optional<Long> folder = names.folder(place.id(), RelativePath.parent(path));
        if (folder.isEmpty() || path.isEmpty()) {
            return Optional.empty();
        }
        Optional<Long> line = sql.first(
                "SELECT l.id FROM node n JOIN line l ON l.id = n.line WHERE n.folder = ? AND n.name = ?"
                        + " ORDER BY (l.node = n.id AND l.removed = 0) DESC, l.node = n.id DESC, l.removed DESC, n.id DESC",
                r -> r.getLong(1),
                folder.get(),
                RelativePath.name(path));
        return line.isEmpty() ? Optional.empty() : get(line.get(), List.of(place));
    }

    Optional<Line> get(long id, List<Place> places) throws IOException {
        record Raw(long place, long node, long removed, long bytes) {}
        Optional<Raw> found = sql.first(
                "SELECT place, node, removed, bytes FROM line WHERE id = ?",
                r -> new Raw(r.getLong(1), r.getLong(2), r.getLong(3), r.getLong(4)),
                id);
        if (found.isEmpty()) {
            return Optional.empty();
        }
        Raw raw = found.get();
        Optional<Place> place =
                places.stream().filter(p -> p.id() == raw.place()).findFirst();
        if (place.isEmpty()) {
            return Optional.empty();
        }
        List<LinePoint> points = new ArrayList<>(versions(id, 0));
        points.addAll(events(id));
        // What came after what is told by the order in which it was put down, never by a clock.
        points.sort(Comparator.comparing((LinePoint p) -> p instanceof Version v ? v.number() : ((Event) p).number())
                .thenComparing(p -> p instanceof Version ? 0 : 1)
                .thenComparing(LinePoint::at)
                .reversed());
        return Optional.of(new Line(
                id,
                place.get(),
                names.nodePath(raw.node()),
                raw.removed() == 0 ? Optional.empty() : Optional.of(Moment.instant(raw.removed())),
                raw.bytes(),
                points));
    }

    Optional<Version> version(long line, int number) throws IOException {
        return versions(line, number).stream().findFirst();
    }

    /** Where a line was at a moment; empty when it was not there. */
    Optional<String> pathAt(long line, long at) throws IOException {
        Optional<Long> node = sql.first(
                Spans.of("n.id", Spans.NODES_OF_LINE, " AND s.valid_from <= ?2 AND s.valid_to > ?2"),
                r -> r.getLong(1),
                line,
                at);
        return node.isEmpty() ? Optional.empty() : Optional.of(names.nodePath(node.get()));
    }

    /** All versions of a line, or with a number only that one. */
    private List<Version> versions(long line, int only) throws IOException {
        record Raw(
                int number,
                long node,
                Instant saved,
                Instant captured,
                String who,
                int origin,
                int source,
                int kind,
                long size,
                long mtime,
                int mode,
                byte[] digest,
                byte @org.jspecify.annotations.Nullable [] sha256,
                byte[] recipe,
                String note,
                int major,
                int minor,
                @org.jspecify.annotations.Nullable String label) {}
        List<Version> versions = new ArrayList<>();
        for (Raw r : sql.list(
                "SELECT v.number, v.node, v.saved, v.captured, v.who, v.origin, v.source, v.kind, v.size, v.mtime, v.mode,"
                        + " v.digest, v.sha256, v.recipe, v.note, coalesce(e.major, v.number), coalesce(e.minor, 0),"
                        + " (SELECT h.label FROM holding h WHERE h.line = v.line AND h.number = v.number"
                        + " AND h.label <> '' LIMIT 1)"
                        + " FROM version v LEFT JOIN edition e ON e.line = v.line AND e.number = v.number"
                        + " WHERE v.line = ?1 AND (?2 = 0 OR v.number = ?2)",
                r -> new Raw(
                        r.getInt(1),
                        r.getLong(2),
                        Moment.instant(r.getLong(3)),
                        Moment.instant(r.getLong(4)),
                        r.getString(5),
                        r.getInt(6),
                        r.getInt(7),
                        r.getInt(8),
                        r.getLong(9),
                        r.getLong(10),
                        r.getInt(11),
                        r.getBytes(12),
                        r.getBytes(13),
                        r.getBytes(14),
                        r.getString(15),
                        r.getInt(16),
                        r.getInt(17),
                        r.getString(18)),
                line,
                only)) {
            byte[] sha256 = r.sha256();
            Edition edition = new Edition(r.major(), r.minor());
            String own = r.label();
            versions.add(new Version(
                    line,
                    r.number(),
                    r.saved(),
                    r.captured(),
                    r.who(),
                    Origin.of(r.origin()),
                    r.source(),
                    new FileState(
                            EntryKind.of(r.kind()),
                            r.size(),
                            r.mtime(),
                            r.mode(),
                            Digest.of(r.digest()),
                            sha256 == null ? Optional.empty() : Optional.of(Digest.of(sha256)),
                            Recipe.decode(r.recipe())),
                    r.note(),
                    names.nodePath(r.node()),
                    edition,
                    own == null ? edition.label() : own));
        }
        return versions;
    }

    private List<Event> events(long line) throws IOException {
        record Raw(long at, int kind, String who, long from, long to, int number) {}
        List<Event> events = new ArrayList<>();
        for (Raw r : sql.list(
                "SELECT at, kind, who, origin_node, target_node, number FROM event WHERE line = ?",
                r -> new Raw(r.getLong(1), r.getInt(2), r.getString(3), r.getLong(4), r.getLong(5), r.getInt(6)),
                line)) {
            events.add(new Event(
                    line,
                    Moment.instant(r.at()),
                    r.who(),
                    EventKind.of(r.kind()),
                    names.nodePath(r.from()),
                    names.nodePath(r.to()),
                    r.number()));
        }
        return events;
    }

    Optional<Integer> numberAt(long line, long at) throws IOException {
        return sql.first(
                Spans.of("s.number", Spans.NODES_OF_LINE, " AND s.valid_from <= ?2 AND s.valid_to > ?2"),
                r -> r.getInt(1),
                line,
                at);
    }

    /** Versions of a place, all of them. */
    public long versions(Place place) throws IOException {
        return sql.number("SELECT coalesce(sum(versions), 0) FROM line WHERE place = ?", place.id());
    }

    /** Lines of a place. */
    public List<Long> ids(Place place) throws IOException {
        return sql.list("SELECT id FROM line WHERE place = ? ORDER BY id", r -> r.getLong(1), place.id());
    }

    /** Where a file was at a moment; empty when it was not there. */
    public Optional<String> pathAt(long line, Instant at) throws IOException {
        return pathAt(line, Moment.micros(at));
    }

    /** The version of a line that was current at a moment, if the file was there. */
    public Optional<Integer> numberAt(long line, Instant at) throws IOException {
        return numberAt(line, Moment.micros(at));
    }
}
