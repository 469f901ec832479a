package org.mendedleaf.core.retention;

import java.util.BitSet;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.VersionColumns;

/**
 * What versions really take in packs: shared chunks counted once. Exact, by how many versions need each chunk; nothing is
 * estimated. Counts stored bytes of chunks, without the 56 bytes that each record takes beside them.
 */
public final class SpaceTable {

    private final VersionTable table;
    private final int[] uses;

    /** Nothing while no version waits. */
    private int @Nullable [] waitingUses;

    /** Counts the uses of all chunks. */
    public SpaceTable(VersionTable table) {
        this(table, row -> true);
    }

    /** Counts the uses of chunks by some of the versions only, as if there were no others. */
    SpaceTable(VersionTable table, IntPredicate rows) {
        this.table = table;
        uses = new int[table.chunks() + 1];
        for (int row = 0; row < table.size(); row++) {
            if (!table.is(row, VersionColumns.ELSEWHERE) && rows.test(row)) {
                table.distinctChunks(row, chunk -> uses[chunk]++);
                if (table.is(row, VersionColumns.WAITING)) {
                    int[] waiting = waitingUses == null ? new int[uses.length] : waitingUses;
                    waitingUses = waiting;
                    table.distinctChunks(row, chunk -> waiting[chunk]++);
                }
            }
        }
    }

    private int waitingUses(int chunk) {
        return waitingUses == null ? 0 : waitingUses[chunk];
    }

    /** The versions that are counted. */
    public VersionTable table() {
        return table;
    }

    /**
     * Stored bytes of a vault's chunks, which add up to all of them.
     *
     * @param inUse that versions need which are kept
     * @param waiting that only versions need which wait for the end of their grace
     * @param unused that no version needs; given back by the next reclaim
     */
    public record Sums(long inUse, long waiting, long unused) {

        /** All of them. */
        public long all() {
            return inUse + waiting + unused;
        }
    }

    /** The sums over all chunks. */
    public Sums sums() {
        long inUse = 0;
        long waiting = 0;
        long unused = 0;
        for (int chunk = 1; chunk < uses.length; chunk++) {
            if (uses[chunk] == 0) {
                unused += table.chunkBytes(chunk);
            } else if (uses[chunk] == waitingUses(chunk)) {
                waiting += table.chunkBytes(chunk);
            } else {
                inUse += table.chunkBytes(chunk);
            }
        }
        return new Sums(inUse, waiting, unused);
    }

    /** What one version takes. */
    public long taken(int row) {
        long[] sum = {0};
        table.distinctChunks(row, chunk -> sum[0] += table.chunkBytes(chunk));
        return sum[0];
    }

    /** What only one version holds. */
    public long only(int row) {
        long[] sum = {0};
        table.distinctChunks(row, chunk -> sum[0] += uses[chunk] == 1 ? table.chunkBytes(chunk) : 0);
        return sum[0];
    }

    /** What several versions take together. */
    public long taken(BitSet rows) {
        BitSet chunks = new BitSet(uses.length);
        for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
            if (!table.is(row, VersionColumns.ELSEWHERE)) {
                table.chunks(row, chunks::set);
            }
        }
        return chunks.stream().mapToLong(table::chunkBytes).sum();
    }

    /** What would be free if all these versions were gone. */
    public long freedBy(BitSet rows) {
        Freeing freeing = new Freeing();
        for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
            freeing.drop(row);
        }
        return freeing.freedBytes();
    }

    /** Drops versions one after another and says at each what is free by then. */
    public final class Freeing {
        private final int[] left = uses.clone();
        private long freed;

        /** Drops one more version; gives what that alone made free. */
        public long drop(int row) {
            long[] sum = {0};
            if (!table.is(row, VersionColumns.ELSEWHERE)) {
                table.distinctChunks(row, chunk -> sum[0] += --left[chunk] == 0 ? table.chunkBytes(chunk) : 0);
            }
            freed += sum[0];
            return sum[0];
        }

        /** What is free by now. */
        public long freedBytes() {
            return freed;
        }
    }
}
