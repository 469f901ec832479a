package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongPredicate;
import org.mendedleaf.core.vault.PackFormat;

/**
 * How much of a pack is still needed.
 *
 * @param pack number
 * @param sealed whether nothing is appended to it any longer
 * @param bytes of the file that are committed
 * @param neededBytes of records of chunks that are needed
 * @param unusedBytes of records of chunks that the catalogue knows and nothing needs
 */
public record PackUse(long pack, boolean sealed, long bytes, long neededBytes, long unusedBytes) {

    /** All packs, by what this says of the ids of chunks. */
    public static List<PackUse> of(WriteSession session, LongPredicate needed) throws IOException {
        return of(session.sql(), needed);
    }

    /** As a reader sees them. */
    public static List<PackUse> of(Reading reading, LongPredicate needed) throws IOException {
        return of(reading.sql(), needed);
    }

    /** Bytes of all packs that are committed. */
    public static long bytes(WriteSession session) throws IOException {
        return session.sql().number("SELECT coalesce(sum(committed), 0) FROM pack");
    }

    private static List<PackUse> of(Sql sql, LongPredicate needed) throws IOException {
        Map<Long, long[]> sums = new HashMap<>();
        sql.each("SELECT id, pack, clen FROM chunk", r -> {
            long[] sum = sums.computeIfAbsent(r.getLong(2), p -> new long[2]);
            sum[needed.test(r.getLong(1)) ? 0 : 1] += PackFormat.recordLength(r.getInt(3));
        });
        return new ArrayList<>(sql.list("SELECT id, sealed, committed FROM pack ORDER BY id", r -> {
            long[] sum = sums.getOrDefault(r.getLong(1), new long[2]);
            return new PackUse(r.getLong(1), r.getInt(2) == 1, r.getLong(3), sum[0], sum[1]);
        }));
    }
}
