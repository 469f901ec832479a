package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.time.Moment;

/** What other systems hold, as it was when they were looked at last. */
public final class OutsideQuery {

    private final Sql sql;

    OutsideQuery(Sql sql) {
        this.sql = sql;
    }

    /** Who holds each version of a line, by number: this vault, and points and cuts in other systems. */
    public Map<Integer, List<Holder>> holders(Line line) throws IOException {
        return new HolderQuery(sql).of(line);
    }

    /** The files of a place in another system as they were mirrored last, by the system's key. */
    public Map<String, OutsideWriter.Known> files(Place place) throws IOException {
        Map<String, OutsideWriter.Known> all = new HashMap<>();
        sql.list(
                "SELECT key, line, tag FROM outside_file WHERE place = ?",
                r -> all.put(r.getString(1), new OutsideWriter.Known(r.getLong(2), r.getString(3))),
                place.id());
        return all;
    }

    /**
     * A version that a system holds.
     *
     * @param ended when something else became current; empty while it is
     */
    public record HeldPoint(
            long line, int number, String point, String label, long size, Instant saved, Optional<Instant> ended) {}

    /** All versions that a system holds file by file, by line and number. */
    public List<HeldPoint> points(Place place) throws IOException {
        Map<String, Long> ends = new HashMap<>();
        sql.list(
                "SELECT n.line, s.number, max(s.valid_to) FROM folder f JOIN span s ON s.folder = f.id"
                        + " JOIN node n ON n.id = s.node WHERE f.place = ? GROUP BY n.line, s.number",
                r -> ends.put(r.getLong(1) + "/" + r.getInt(2), r.getLong(3)),
                place.id());
        return sql.list(
                "SELECT h.line, h.number, h.point, h.label, v.size, v.saved FROM line l"
                        + " JOIN holding h ON h.line = l.id JOIN version v ON v.line = h.line AND v.number = h.number"
                        + " WHERE l.place = ? ORDER BY h.line, h.number",
                r -> {
                    long end = ends.getOrDefault(r.getLong(1) + "/" + r.getInt(2), Moment.OPEN);
                    return new HeldPoint(
                            r.getLong(1),
                            r.getInt(2),
                            r.getString(3),
                            r.getString(4),
                            r.getLong(5),
                            Moment.instant(r.getLong(6)),
                            end == Moment.OPEN ? Optional.empty() : Optional.of(Moment.instant(end)));
                },
                place.id());
    }

    /** Cuts of a place in another system that are still there, oldest first. */
    public List<RemoteSnapshot> cuts(Place place) throws IOException {
        return new HolderQuery(sql).cuts(place.id());
    }

    /** What is declared to be the same in other places. */
    public List<Relation> relations() throws IOException {
        return sql.list(
                "SELECT place, path, other, other_path FROM relation ORDER BY place, path, other",
                r -> new Relation(r.getLong(1), r.getString(2), r.getLong(3), r.getString(4)));
    }

    /** What another system said of a place when it was last looked at, as JSON; empty before that. */
    public Optional<String> facts(Place place) throws IOException {
        return sql.first("SELECT facts FROM outside_place WHERE place = ?", r -> r.getString(1), place.id());
    }
}
