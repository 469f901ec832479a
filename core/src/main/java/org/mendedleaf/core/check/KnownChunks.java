package org.mendedleaf.core.check;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.VaultException;

/**
 * Length and digest of every chunk that the catalogue knows, by id. Some millions are held in memory, 44 bytes each; of more
 * the catalogue is asked each time, which takes longer and no memory.
 */
final class KnownChunks {

    private static final int MOST_HELD = 6_000_000;

    private final Sql sql;
    private final boolean held;
    private final long[] ids;
    private final int[] lengths;
    private final byte[] digests;

    private KnownChunks(Sql sql, int size, boolean held) {
        this.sql = sql;
        this.held = held;
        ids = new long[size];
        lengths = new int[size];
        digests = new byte[size * Digest.LENGTH];
    }

    /**
     * A chunk.
     *
     * @param length of its content, bytes
     * @param digest SHA-256 of its content
     */
    record Chunk(long id, int length, byte[] digest) {}

    static KnownChunks of(Sql sql) throws IOException {
        return of(sql, MOST_HELD);
    }

    /** As they are in the state that is read; more than {@code most} are not held. */
    static KnownChunks of(Sql sql, int most) throws IOException {
        long all = sql.number("SELECT count(*) FROM chunk");
        boolean held = all <= most;
        KnownChunks chunks = new KnownChunks(sql, held ? (int) all : 0, held);
        if (held) {
            int[] at = {0};
            sql.each("SELECT id, len, hash FROM chunk ORDER BY id", r -> {
                byte[] digest = r.getBytes(3);
                if (digest.length == Digest.LENGTH) {
                    chunks.ids[at[0]] = r.getLong(1);
                    chunks.lengths[at[0]] = r.getInt(2);
                    System.arraycopy(digest, 0, chunks.digests, at[0] * Digest.LENGTH, Digest.LENGTH);
                    at[0]++;
                }
            });
            Arrays.fill(chunks.ids, at[0], chunks.ids.length, Long.MAX_VALUE);
        }
        return chunks;
    }

    /** Adds the chunks of a run to those found; false when one of them is not known. */
    boolean find(Recipe.Run run, List<Chunk> found) throws VaultException {
        int before = found.size();
        if (held) {
            int first = Arrays.binarySearch(ids, run.first());
            for (int i = 0; first >= 0 && i < run.count(); i++) {
                int at = first + i;
                if (at >= ids.length || ids[at] != run.first() + i) {
                    return false;
                }
                int from = at * Digest.LENGTH;
                found.add(new Chunk(ids[at], lengths[at], Arrays.copyOfRange(digests, from, from + Digest.LENGTH)));
            }
        } else {
            sql.each(
                    "SELECT id, len, hash FROM chunk WHERE id >= ? AND id < ? ORDER BY id",
                    r -> found.add(new Chunk(r.getLong(1), r.getInt(2), r.getBytes(3))),
                    run.first(),
                    run.first() + run.count());
        }
        return found.size() - before == run.count();
    }
}
