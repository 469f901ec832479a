package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.time.Moment;

/**
 * Keeps the values of one session's folders: takes away those that a change reaches back behind, and makes new ones
 * where much has ended.
 */
final class ListingPacker {
    private final Sql sql;
    private final Map<Long, Long> newest = new HashMap<>();
    private final Map<Long, Integer> ended = new HashMap<>();

    ListingPacker(Sql sql) {
        this.sql = sql;
    }

    /** A change of the spans is about to be made. */
    void before(Op op, @Nullable Object[] values) throws IOException {
        switch (op) {
            case SPAN -> {
                changed(number(values[0]), number(values[3]));
                if (number(values[1]) < Moment.OPEN) {
                    ended.merge(number(values[0]), 1, Integer::sum);
                }
            }
            case SPAN_BEGINS -> changed(number(values[1]), number(values[0]));
            case SPAN_ENDS -> {
                changed(number(values[1]), number(values[0]));
                ended.merge(number(values[1]), 1, Integer::sum);
            }
            default -> {
                // Spans stay as they are.
            }
        }
    }

    private static long number(@Nullable Object value) {
        return value instanceof Number n ? n.longValue() : 0;
    }

    private void changed(long folder, long from) throws IOException {
        Long last = newest.get(folder);
        if (last == null) {
            last = sql.number("SELECT max(at) FROM packed WHERE folder = ?", folder);
            newest.put(folder, last);
        }
        if (last != 0 && from <= last) {
            sql.run("DELETE FROM packed WHERE folder = ? AND at >= ?", folder, from);
            newest.remove(folder);
        }
    }

    /** Makes what is missing, before a commit. */
    void pack() throws IOException {
        for (Map.Entry<Long, Integer> e : ended.entrySet()) {
            sql.run(
                    "INSERT INTO packed_due VALUES (?,?,?) ON CONFLICT (folder)"
                            + " DO UPDATE SET ended = ended + excluded.ended",
                    e.getKey(),
                    e.getValue(),
                    PackedListing.LEAST);
            boolean due =
                    sql.number("SELECT count(*) FROM packed_due WHERE folder = ? AND ended >= due", e.getKey()) > 0;
            if (due) {
                pack(e.getKey());
            }
        }
        ended.clear();
    }

    private void pack(long folder) throws IOException {
        long last = sql.number("SELECT max(at) FROM packed WHERE folder = ?", folder);
        long live = sql.number("SELECT count(*) FROM span WHERE folder = ? AND valid_to = ?", folder, Moment.OPEN);
        long many = Math.max(PackedListing.LEAST, live);
        boolean made = false;
        long at = next(folder, last, many);
        while (at != 0) {
            sql.run(
                    "INSERT OR REPLACE INTO packed VALUES (?,?,?)",
                    folder,
                    at,
                    PackedListing.encode(folder, at, sql.list(PackedListing.ROW, PackedListing::row, folder, at, at)));
            made = true;
            last = at;
            at = next(folder, last, many);
        }
        newest.put(folder, last);
        sql.run(
                made
                        ? "UPDATE packed_due SET due = ?, ended = 0 WHERE folder = ?"
                        : "UPDATE packed_due SET due = ? WHERE folder = ?",
                many,
                folder);
    }

    /** The end of the span with which so many have ended after a moment; 0 when that many have not. */
    private long next(long folder, long after, long many) throws IOException {
        return sql.number(
                "SELECT valid_to FROM span WHERE folder = ? AND valid_to > ? AND valid_to < ?"
                        + " ORDER BY valid_to LIMIT 1 OFFSET ?",
                folder,
                after,
                Moment.OPEN,
                many - 1);
    }
}
