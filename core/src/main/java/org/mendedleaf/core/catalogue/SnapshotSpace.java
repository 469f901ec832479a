package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Recipe;

/**
 * What snapshots hold, and what each of them alone holds: versions that are neither live nor in another snapshot, and the
 * stored bytes that neither the live files nor another snapshot needs. Exact, by one pass over the spans and one over the
 * recipes of what is held.
 */
public final class SnapshotSpace {

    private static final int SHARED = -1;

    private SnapshotSpace() {}

    /**
     * What a snapshot holds.
     *
     * @param files in it
     * @param bytes of them together
     * @param aloneVersions that only it holds
     * @param aloneBytes stored, that only those need
     */
    public record Holds(long files, long bytes, long aloneVersions, long aloneBytes) {}

    private record Key(long line, int number) {}

    private static final class Sum {
        private long files;
        private long bytes;
        private final Set<Key> alone = new HashSet<>();
        private long stored;
    }

    /** What these snapshots of a place hold, by id. */
    public static Map<Long, Holds> of(Reading reading, Place place, List<Snapshot> snapshots) throws IOException {
        if (snapshots.isEmpty()) {
            return Map.of();
        }
        PathIds names = new PathIds(reading.sql());
        Sum[] sums = new Sum[snapshots.size()];
        Map<Key, Integer> holders = new HashMap<>();
        List<java.util.function.LongPredicate> scopes = new java.util.ArrayList<>();
        for (int i = 0; i < sums.length; i++) {
            sums[i] = new Sum();
            scopes.add(scope(reading, names, place, snapshots.get(i)));
        }
        reading.sql()
                .list(
                        "SELECT s.folder, n.line, s.number, s.size, s.valid_from, s.valid_to FROM folder f"
                                + " JOIN span s ON s.folder = f.id JOIN node n ON n.id = s.node"
                                + " WHERE f.place = ? AND s.kind <> 3",
                        r -> {
                            Key key = new Key(r.getLong(2), r.getInt(3));
                            boolean live = r.getLong(6) == Moment.OPEN;
                            if (live) {
                                holders.put(key, SHARED);
                            }
                            for (int i = 0; i < sums.length; i++) {
                                long at = Moment.micros(snapshots.get(i).at());
                                if (r.getLong(5) <= at
                                        && r.getLong(6) > at
                                        && scopes.get(i).test(r.getLong(1))) {
                                    sums[i].files++;
                                    sums[i].bytes += r.getLong(4);
                                    int by = i;
                                    holders.merge(key, i, (a, b) -> a == by ? by : SHARED);
                                }
                            }
                            return Optional.empty();
                        },
                        place.id());
        holders.forEach((key, by) -> {
            if (by != SHARED) {
                sums[by].alone.add(key);
            }
        });
        store(reading, place, holders, sums);
        Map<Long, Holds> found = new HashMap<>();
        for (int i = 0; i < sums.length; i++) {
            found.put(
                    snapshots.get(i).id(),
                    new Holds(sums[i].files, sums[i].bytes, sums[i].alone.size(), sums[i].stored));
        }
        return found;
    }

    /** Which folders a snapshot covers. */
    private static java.util.function.LongPredicate scope(Reading reading, PathIds names, Place place, Snapshot s)
            throws IOException {
        if (s.path().isEmpty()) {
            return folder -> true;
        }
        Optional<Long> top = names.folder(place.id(), s.path());
        if (top.isEmpty()) {
            return folder -> false;
        }
        Set<Long> inside = new HashSet<>(reading.sql()
                .list(
                        "WITH RECURSIVE inside(id) AS (SELECT ?1 UNION ALL SELECT f.id FROM folder f"
                                + " JOIN inside i ON f.parent = i.id) SELECT id FROM inside",
                        r -> r.getLong(1),
                        top.get()));
        return inside::contains;
    }

    /** Counts the chunks that are needed by what one snapshot alone holds and by nothing else that is held. */
    private static void store(Reading reading, Place place, Map<Key, Integer> holders, Sum[] sums) throws IOException {
        Map<Long, Integer> chunks = new HashMap<>();
        reading.sql()
                .list(
                        "SELECT v.line, v.number, v.recipe FROM line l JOIN version v ON v.line = l.id"
                                + " WHERE l.place = ?",
                        r -> {
                            Integer by = holders.get(new Key(r.getLong(1), r.getInt(2)));
                            if (by != null) {
                                for (Recipe.Run run :
                                        Recipe.decode(r.getBytes(3)).runs()) {
                                    for (long id = run.first(); id < run.first() + run.count(); id++) {
                                        chunks.merge(id, by, (a, b) -> a.equals(b) ? a : Integer.valueOf(SHARED));
                                    }
                                }
                            }
                            return Optional.empty();
                        },
                        place.id());
        for (Map.Entry<Long, Integer> e : chunks.entrySet()) {
            if (e.getValue() != SHARED) {
                sums[e.getValue()].stored += reading.sql().number("SELECT clen FROM chunk WHERE id = ?", e.getKey());
            }
        }
    }
}
