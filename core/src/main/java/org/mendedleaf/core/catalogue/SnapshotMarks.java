package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.time.Moment;

/** Marks the versions that snapshots hold. */
final class SnapshotMarks {

    private final Sql sql;
    private final VersionColumnsLoader table;

    SnapshotMarks(Sql sql, VersionColumnsLoader table) {
        this.sql = sql;
        this.table = table;
    }

    /** A version is held by a snapshot when it was current at its moment, in a folder that the snapshot covers. */
    void run() throws IOException {
        for (Place place : table.places) {
            if (place.isOutside()) {
                continue;
            }
            List<Snapshot> standing = new SnapshotStore(sql).standing(place);
            if (!standing.isEmpty()) {
                mark(place, standing);
            }
        }
    }

    private void mark(Place place, List<Snapshot> standing) throws IOException {
        int base = table.snapshots.size();
        table.snapshots.addAll(standing);
        long[] moments = standing.stream().mapToLong(s -> Moment.micros(s.at())).toArray();
        boolean whole = standing.stream().allMatch(s -> s.path().isEmpty());
        String all = "SELECT s.folder, n.line, s.number, s.valid_from, s.valid_to FROM folder f"
                + " JOIN span s ON s.folder = f.id JOIN node n ON n.id = s.node"
                + " WHERE f.place = ? AND s.kind <> 3";
        String ofOne = Spans.of(
                "s.folder, n.line, s.number, s.valid_from, s.valid_to",
                Spans.NODES_OF_LINE,
                " AND EXISTS (SELECT 1 FROM folder f WHERE f.id = n.folder AND f.place = ?2)");
        sql.list(
                table.only == 0 ? all : ofOne,
                r -> {
                    long from = r.getLong(4);
                    long to = r.getLong(5);
                    // Moments ascend: the newest one before the end is looked at first.
                    int k = Arrays.binarySearch(moments, to);
                    for (k = (k < 0 ? -k - 1 : k) - 1; k >= 0 && moments[k] >= from; k--) {
                        VersionColumns.Folder folder = table.folders.get(r.getLong(1));
                        if (folder != null && (whole || covers(standing.get(k).path(), folder.path()))) {
                            int at = table.row(r.getLong(2), r.getInt(3));
                            if (at >= 0) {
                                table.hold(at, base + k);
                            }
                            break;
                        }
                    }
                    return 0;
                },
                table.only == 0 ? new Object[] {place.id()} : new Object[] {table.only, place.id()});
    }

    private static boolean covers(String scope, String folder) {
        return scope.isEmpty() || folder.equals(scope) || folder.startsWith(scope + "/");
    }
}
