package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.LongStream;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;

/** Everything that happened in a place, in one go: all versions, and all renames and removals. */
public final class HistoryQuery {

    private final Sql sql;
    private final PathIds names;
    private final Map<Long, String> folders = new HashMap<>();
    private final Set<Long> known = new HashSet<>();
    private final Repeats repeats = new Repeats();

    private HistoryQuery(Sql sql) {
        this.sql = sql;
        this.names = new PathIds(sql);
    }

    /** As a reader sees it. */
    public static HistoryQuery of(Reading reading) {
        return new HistoryQuery(reading.sql());
    }

    /**
     * A version.
     *
     * @param here whether its content is in the vault
     */
    public record Row(
            long line,
            int number,
            String path,
            Instant saved,
            String who,
            Origin origin,
            boolean file,
            long size,
            long mtimeNanos,
            Digest digest,
            boolean here) {}

    private static final String VERSIONS =
            "SELECT v.line, v.number, n.folder, n.name, v.saved, v.who, v.origin, v.kind, v.size, v.mtime, v.digest,"
                    + " length(v.recipe) <> 1 FROM version v JOIN line l ON l.id = v.line JOIN node n ON n.id = v.node";

    private static final String TURNS =
            "SELECT e.line, e.at, e.who, e.kind, a.folder, a.name, b.folder, b.name, e.number FROM event e"
                    + " JOIN line l ON l.id = e.line JOIN node a ON a.id = e.origin_node JOIN node b ON b.id = e.target_node";

    /** All versions of a place, line by line, the oldest of each first. */
    public void versions(Place place, Consumer<Row> to) throws IOException {
        Map<Long, String> paths = paths(place);
        sql.list(VERSIONS + " WHERE l.place = ? ORDER BY v.line, v.number", r -> row(r, paths, to), place.id());
    }

    /** As {@link #versions(Place, Consumer)}, of one line, when it is of this place. */
    public void versions(Place place, long line, Consumer<Row> to) throws IOException {
        Map<Long, String> paths = paths(line);
        sql.list(
                VERSIONS + " WHERE v.line = ? AND l.place = ? ORDER BY v.number",
                r -> row(r, paths, to),
                line,
                place.id());
    }

    /** As {@link #versions(Place, Consumer)}, of some lines of it, in the order of their numbers. The plus keeps it from going through the place. */
    public void versions(Place place, List<Long> lines, Consumer<Row> to) throws IOException {
        Map<Long, String> paths = paths(place);
        sql.list(
                VERSIONS
                        + " WHERE v.line IN (SELECT value FROM json_each(?)) AND +l.place = ? ORDER BY v.line, v.number",
                r -> row(r, paths, to),
                lines.toString(),
                place.id());
    }

    /** All lines of a place of which a version is a file, those first whose last version was saved last. There may be millions. */
    public long[] newestFirst(Place place) throws IOException {
        LongStream.Builder lines = LongStream.builder();
        // Of the columns that stand beside a maximum, SQLite takes those of its row.
        sql.list(
                "SELECT v.line, v.saved, max(v.number) FROM version v JOIN line l ON l.id = v.line"
                        + " WHERE l.place = ? AND v.kind = 1 GROUP BY v.line ORDER BY v.saved DESC, v.line",
                r -> {
                    lines.add(r.getLong(1));
                    return 0;
                },
                place.id());
        return lines.build().toArray();
    }

    private int row(ResultSet r, Map<Long, String> paths, Consumer<Row> to) throws SQLException {
        to.accept(new Row(
                r.getLong(1),
                r.getInt(2),
                RelativePath.child(paths.getOrDefault(r.getLong(3), ""), r.getString(4)),
                Moment.instant(r.getLong(5)),
                repeats.text(r.getString(6)),
                Origin.of(r.getInt(7)),
                r.getInt(8) == 1,
                r.getLong(9),
                r.getLong(10),
                Digest.of(r.getBytes(11)),
                r.getInt(12) != 0));
        return 0;
    }

    /** A rename, a move, or a removal, of which {@code to} is empty. */
    public record Turn(long line, Instant at, String who, String from, String to, int number) {}

    /** All renames and removals of a place. */
    public void turns(Place place, Consumer<Turn> to) throws IOException {
        Map<Long, String> paths = paths(place);
        sql.list(TURNS + " WHERE l.place = ? AND e.kind IN (1, 2, 3)", r -> turn(r, paths, to), place.id());
    }

    /** As {@link #turns(Place, Consumer)}, of one line, when it is of this place. */
    public void turns(Place place, long line, Consumer<Turn> to) throws IOException {
        Map<Long, String> paths = paths(line);
        sql.list(
                TURNS + " WHERE e.line = ? AND l.place = ? AND e.kind IN (1, 2, 3)",
                r -> turn(r, paths, to),
                line,
                place.id());
    }

    private int turn(ResultSet r, Map<Long, String> paths, Consumer<Turn> to) throws SQLException {
        boolean removed = r.getInt(4) == EventKind.REMOVED.code();
        to.accept(new Turn(
                r.getLong(1),
                repeats.moment(r.getLong(2)),
                repeats.text(r.getString(3)),
                RelativePath.child(paths.getOrDefault(r.getLong(5), ""), r.getString(6)),
                removed ? "" : RelativePath.child(paths.getOrDefault(r.getLong(7), ""), r.getString(8)),
                r.getInt(9)));
        return 0;
    }

    /** The folders in which a file is or was. */
    private Map<Long, String> paths(long line) throws IOException {
        List<Long> ids = sql.list(
                "SELECT folder FROM node WHERE id IN (SELECT node FROM version WHERE line = ?1 UNION"
                        + " SELECT origin_node FROM event WHERE line = ?1 UNION SELECT target_node FROM event WHERE line = ?1)",
                r -> r.getLong(1),
                line);
        Map<Long, String> paths = new HashMap<>();
        for (long id : ids) {
            paths.put(id, names.path(id));
        }
        return paths;
    }

    private Map<Long, String> paths(Place place) throws IOException {
        if (known.add(place.id())) {
            record Folder(long parent, String name) {}
            Map<Long, Folder> all = new HashMap<>();
            sql.list(
                    "SELECT id, parent, name FROM folder WHERE place = ?",
                    r -> all.put(r.getLong(1), new Folder(r.getLong(2), r.getString(3))),
                    place.id());
            for (Map.Entry<Long, Folder> e : all.entrySet()) {
                ArrayDeque<Long> up = new ArrayDeque<>();
                for (Long at = e.getKey(); at != null && !folders.containsKey(at); ) {
                    up.push(at);
                    Folder folder = all.get(at);
                    at = folder == null || folder.parent() == 0 ? null : folder.parent();
                }
                for (long id : up) {
                    Folder folder = all.get(id);
                    String path = folder == null || folder.parent() == 0
                            ? ""
                            : RelativePath.child(folders.getOrDefault(folder.parent(), ""), folder.name());
                    folders.put(id, path);
                }
            }
        }
        return folders;
    }
}
