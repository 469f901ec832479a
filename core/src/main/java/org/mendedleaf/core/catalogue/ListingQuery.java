package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Totals;
import org.mendedleaf.core.time.Moment;

/** What a folder held at a moment: one range over its spans, since they are ordered by their ends. */
final class ListingQuery {

    private static final String COLUMNS =
            "SELECT n.name, s.kind, s.node, n.line, n.child, s.number, l.versions, s.size,"
                    + " l.bytes, s.mtime, s.mode, s.valid_from";

    private static final String JOINS = " JOIN node n ON n.id = s.node LEFT JOIN line l ON l.id = n.line";

    private final Sql sql;

    ListingQuery(Sql sql) {
        this.sql = sql;
    }

    private static Entry entry(java.sql.ResultSet r, Optional<Entry.Removal> removal) throws java.sql.SQLException {
        return new Entry(
                r.getString(1),
                EntryKind.of(r.getInt(2)),
                r.getLong(3),
                r.getLong(4),
                r.getLong(5),
                r.getInt(6),
                r.getInt(7),
                r.getLong(8),
                r.getLong(9),
                r.getLong(10),
                r.getInt(11),
                Moment.instant(r.getLong(12)),
                removal);
    }

    /** What a folder held at a moment, with how many versions each file has in all. */
    List<Entry> present(long folder, long at) throws IOException {
        if (at >= sql.number("SELECT max(at) FROM packed WHERE folder = ?", folder)) {
            return sql.list(
                    COLUMNS + " FROM span s" + JOINS + " WHERE s.folder = ? AND s.valid_to > ? AND s.valid_from <= ?",
                    r -> entry(r, Optional.empty()),
                    folder,
                    at,
                    at);
        }
        Map<Long, Counts> counts = new HashMap<>();
        sql.list(
                "SELECT DISTINCT l.id, l.versions, l.bytes FROM node n JOIN line l ON l.id = n.line WHERE n.folder = ?",
                r -> counts.put(r.getLong(1), new Counts(r.getInt(2), r.getLong(3))),
                folder);
        return PackedListing.at(sql, folder, at).stream()
                .map(r -> {
                    Counts c = counts.getOrDefault(r.line(), Counts.NONE);
                    return entry(r, c.versions(), c.bytes());
                })
                .toList();
    }

    /** How many versions a line has, and their bytes. */
    private record Counts(int versions, long bytes) {
        static final Counts NONE = new Counts(0, 0);
    }

    /** What a folder held at a moment, without counting versions. */
    List<Entry> presentOnly(long folder, long at) throws IOException {
        return PackedListing.at(sql, folder, at).stream()
                .map(r -> entry(r, 0, 0))
                .toList();
    }

    private static Entry entry(PackedListing.Row r, int versions, long versionBytes) {
        return new Entry(
                r.name(),
                EntryKind.of(r.kind()),
                r.node(),
                r.line(),
                r.child(),
                r.number(),
                versions,
                r.size(),
                versionBytes,
                r.mtimeNanos(),
                r.mode(),
                Moment.instant(r.from()),
                Optional.empty());
    }

    /** What was removed from the folder before the moment and had not come back by then. */
    List<Entry> removed(long folder, long at) throws IOException {
        record Ended(Entry entry, long at) {}
        List<Ended> ended = sql.list(
                COLUMNS + ", max(s.valid_to) FROM span s" + JOINS
                        + " WHERE s.folder = ? AND s.valid_to <= ? GROUP BY s.node",
                r -> new Ended(entry(r, Optional.empty()), r.getLong(13)),
                folder,
                at);
        if (ended.isEmpty()) {
            return List.of();
        }
        Set<String> there = new HashSet<>();
        present(folder, at).forEach(e -> there.add(e.name()));
        List<Entry> found = new ArrayList<>();
        for (Ended e : ended) {
            if (!there.contains(e.entry().name())) {
                removal(e.entry(), e.at()).ifPresent(r -> found.add(withRemoval(e.entry(), r)));
            }
        }
        return found;
    }

    private Optional<Entry.Removal> removal(Entry entry, long at) throws IOException {
        if (entry.kind() == EntryKind.FOLDER) {
            return hasRemovedLines(entry.folder())
                    ? Optional.of(new Entry.Removal(Moment.instant(at), ""))
                    : Optional.empty();
        }
        return sql.first(
                "SELECT at, who FROM event WHERE line = ? AND at = ? AND kind = ?",
                r -> new Entry.Removal(Moment.instant(r.getLong(1)), r.getString(2)),
                entry.line(),
                at,
                EventKind.REMOVED.code());
    }

    /** A folder that was renamed is gone under its old name, and nothing was lost with it. */
    private boolean hasRemovedLines(long top) throws IOException {
        Set<Long> seen = new HashSet<>();
        Deque<Long> left = new ArrayDeque<>(List.of(top));
        while (!left.isEmpty()) {
            long folder = left.removeFirst();
            if (!seen.add(folder)) {
                continue;
            }
            long removed = sql.number(
                    "SELECT count(*) FROM node n JOIN line l ON l.id = n.line AND l.node = n.id"
                            + " WHERE n.folder = ? AND l.removed <> 0",
                    folder);
            if (removed > 0) {
                return true;
            }
            left.addAll(sql.list("SELECT id FROM folder WHERE parent = ?", r -> r.getLong(1), folder));
        }
        return false;
    }

    private static Entry withRemoval(Entry e, Entry.Removal removal) {
        return new Entry(
                e.name(),
                e.kind(),
                e.node(),
                e.line(),
                e.folder(),
                e.number(),
                e.versions(),
                e.size(),
                e.versionBytes(),
                e.mtimeNanos(),
                e.mode(),
                e.since(),
                Optional.of(removal));
    }

    Totals totals(long folder, long at) throws IOException {
        return sql.first(
                        "WITH RECURSIVE inside(id) AS (SELECT ?1 UNION ALL"
                                + " SELECT f.id FROM folder f JOIN inside i ON f.parent = i.id)"
                                + " SELECT count(*), coalesce(sum(l.versions), 0), coalesce(sum(s.size), 0),"
                                + " coalesce(sum(l.bytes), 0), coalesce(max(CASE s.number WHEN 1"
                                + " THEN min(s.valid_from, s.mtime / 1000) ELSE s.valid_from END), 0)"
                                + " FROM inside i JOIN span s ON s.folder = i.id AND s.valid_to > ?2 AND s.valid_from <= ?2"
                                + " AND s.kind <> 3"
                                + " JOIN node n ON n.id = s.node JOIN line l ON l.id = n.line",
                        r -> new Totals(r.getLong(1), r.getLong(2), r.getLong(3), r.getLong(4), r.getLong(5)),
                        folder,
                        at)
                .orElseThrow();
    }
}
