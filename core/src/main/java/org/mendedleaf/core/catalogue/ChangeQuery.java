package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/** When a place changed, and when it was captured. */
public final class ChangeQuery {

    private final Sql sql;
    private final PathIds names;

    ChangeQuery(Sql sql, PathIds names) {
        this.sql = sql;
        this.names = names;
    }

    /** Changes per hour, by hours since 1970, in a range of them. */
    public Map<Long, Integer> density(Place place, long fromHour, long toHour) throws IOException {
        Map<Long, Integer> found = new HashMap<>();
        sql.list(
                        "SELECT hour, changes FROM density WHERE place = ? AND hour BETWEEN ? AND ?",
                        r -> Map.entry(r.getLong(1), r.getInt(2)),
                        place.id(),
                        fromHour,
                        toHour)
                .forEach(e -> found.put(e.getKey(), e.getValue()));
        return found;
    }

    /** The captures that changed something, oldest first. */
    public List<CaptureRecord> captures(Place place) throws IOException {
        return sql.list(
                "SELECT started, ended, first, changes, bytes FROM capture WHERE place = ? ORDER BY id",
                r -> new CaptureRecord(
                        Moment.instant(r.getLong(1)),
                        Moment.instant(r.getLong(2)),
                        r.getInt(3) == 1,
                        r.getLong(4),
                        r.getLong(5)),
                place.id());
    }

    /** When the first capture of a place began: before that nothing is known. */
    public Optional<Instant> firstCapture(Place place) throws IOException {
        return sql.first(
                "SELECT started FROM capture WHERE place = ? ORDER BY id LIMIT 1",
                r -> Moment.instant(r.getLong(1)),
                place.id());
    }

    /** The last change in a folder (not below it) before a moment. */
    public Optional<Instant> changeBefore(Place place, String folder, Instant at) throws IOException {
        return neighbour(place, folder, Moment.micros(at), true);
    }

    /** The next change in a folder (not below it) after a moment. */
    public Optional<Instant> changeAfter(Place place, String folder, Instant at) throws IOException {
        return neighbour(place, folder, Moment.micros(at), false);
    }

    private Optional<Instant> neighbour(Place place, String folder, long at, boolean before) throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        if (id.isEmpty()) {
            return Optional.empty();
        }
        String query = before
                ? "SELECT max(m) FROM (SELECT valid_from m FROM span WHERE folder = ? AND valid_from < ?"
                        + " UNION ALL SELECT valid_to FROM span WHERE folder = ? AND valid_to < ?)"
                : "SELECT min(m) FROM (SELECT valid_from m FROM span WHERE folder = ? AND valid_from > ?"
                        + " UNION ALL SELECT valid_to FROM span WHERE folder = ? AND valid_to > ?"
                        + " AND valid_to < " + Moment.OPEN + ")";
        long found = sql.number(query, id.get(), at, id.get(), at);
        return found == 0 ? Optional.empty() : Optional.of(Moment.instant(found));
    }

    /** The first change anywhere in a place at or after a moment. */
    public Optional<Instant> firstChangeFrom(Place place, Instant from) throws IOException {
        long found = sql.number(
                "SELECT min(at) FROM (SELECT min(v.saved) at FROM version v JOIN line l ON l.id = v.line"
                        + " WHERE l.place = ? AND v.saved >= ? AND v.origin <> 1 UNION ALL"
                        + " SELECT min(e.at) FROM event e JOIN line l ON l.id = e.line"
                        + " WHERE l.place = ? AND e.at >= ? AND e.kind <= 4)",
                place.id(),
                Moment.micros(from),
                place.id(),
                Moment.micros(from));
        return found == 0 ? Optional.empty() : Optional.of(Moment.instant(found));
    }

    /** When a capture of a place last found that something had been saved, moved or removed. */
    public Optional<Instant> lastSave(Place place) throws IOException {
        return sql.first(
                "SELECT ended FROM capture WHERE place = ? AND changes > 0 ORDER BY id DESC LIMIT 1",
                r -> Moment.instant(r.getLong(1)),
                place.id());
    }

    /** The last change in a folder or below it, or of a file; the first capture is none. */
    public Optional<Instant> lastChange(Place place, String path) throws IOException {
        Optional<Long> folder = names.folder(place.id(), path);
        Optional<Line> line = path.isEmpty() ? Optional.empty() : new LineQuery(sql, names).find(place, path);
        long found;
        if (line.isPresent()) {
            found = sql.number(
                    "SELECT max(at) FROM (SELECT saved at FROM version WHERE line = ?1 AND origin <> 1 UNION ALL"
                            + " SELECT at FROM event WHERE line = ?1 AND kind <= 4)",
                    line.get().id());
        } else if (folder.isPresent()) {
            found = sql.number(
                    "WITH RECURSIVE inside(id) AS (SELECT ?1 UNION ALL SELECT f.id FROM folder f"
                            + " JOIN inside i ON f.parent = i.id), change(at) AS ("
                            + "SELECT v.saved FROM inside i JOIN node n ON n.folder = i.id AND n.line <> 0"
                            + " JOIN version v ON v.line = n.line AND v.node = n.id AND v.origin <> 1 UNION ALL"
                            + " SELECT e.at FROM inside i JOIN node n ON n.folder = i.id AND n.line <> 0"
                            + " JOIN event e ON e.line = n.line AND e.kind <= 4"
                            + " AND n.id IN (e.origin_node, e.target_node))"
                            + " SELECT max(at) FROM change",
                    folder.get());
        } else {
            found = 0;
        }
        return found == 0 ? Optional.empty() : Optional.of(Moment.instant(found));
    }
}
