package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.time.Moment;

/**
 * A file that was removed and whose past is kept.
 *
 * @param line id of its line
 * @param place id of its place
 * @param path where it was, from the place's root
 * @param removed when
 * @param who removed it, as far as known
 * @param number of its newest version
 * @param bytes of that
 */
public record RemovedFile(long line, long place, String path, Instant removed, String who, int number, long bytes) {

    /** All of a vault whose newest content is still in it, the last removed first. */
    public static List<RemovedFile> of(Reading reading) throws IOException {
        Sql sql = reading.sql();
        PathIds names = new PathIds(sql);
        record Raw(long line, long place, long node, long removed, String who, int number, long bytes) {}
        List<RemovedFile> all = new ArrayList<>();
        for (Raw r : sql.list(
                "SELECT l.id, l.place, l.node, l.removed, coalesce((SELECT e.who FROM event e WHERE e.line = l.id"
                        + " AND e.at = l.removed ORDER BY e.id DESC LIMIT 1), ''), v.number, v.size FROM line l"
                        + " JOIN version v ON v.line = l.id AND v.number = l.last"
                        + " WHERE l.removed <> 0 AND v.recipe <> X'03' ORDER BY l.removed DESC, l.id",
                r -> new Raw(
                        r.getLong(1),
                        r.getLong(2),
                        r.getLong(3),
                        r.getLong(4),
                        r.getString(5),
                        r.getInt(6),
                        r.getLong(7)))) {
            all.add(new RemovedFile(
                    r.line(),
                    r.place(),
                    names.nodePath(r.node()),
                    Moment.instant(r.removed()),
                    r.who(),
                    r.number(),
                    r.bytes()));
        }
        return all;
    }
}
