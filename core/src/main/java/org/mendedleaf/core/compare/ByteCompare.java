package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.compare.Comparison.Range;

/**
 * Finds the ranges of bytes that two contents have in common, wherever they are: blocks of the earlier one are found in the
 * later one by a sum that rolls along (Tridgell and Mackerras, The rsync algorithm, 1996), and grown to both sides. Pure.
 */
final class ByteCompare {

    private static final int BLOCKS = 16_384;
    private static final int SMALLEST = 16;
    private static final int BASE = 257;

    private ByteCompare() {}

    /** Compares; {@code kinds} says what both are when they are of different kinds. */
    static Comparison.ByteChanges compare(byte[] a, byte[] b, String kinds) {
        List<Range> ranges = new ArrayList<>();
        int block = Math.max(SMALLEST, a.length / BLOCKS);
        Map<Integer, Integer> blocks = new HashMap<>();
        for (int i = 0; i + block <= a.length; i += block) {
            blocks.putIfAbsent(sum(a, i, block), i);
        }
        int out = 1;
        for (int i = 1; i < block; i++) {
            out *= BASE;
        }
        int done = 0;
        long equal = 0;
        int at = 0;
        int sum = b.length >= block ? sum(b, 0, block) : 0;
        while (at + block <= b.length) {
            Integer from = blocks.get(sum);
            if (from != null && java.util.Arrays.equals(a, from, from + block, b, at, at + block)) {
                int start = at;
                int source = from;
                while (start > done && source > 0 && a[source - 1] == b[start - 1]) {
                    start--;
                    source--;
                }
                int end = at + block;
                int sourceEnd = from + block;
                while (end < b.length && sourceEnd < a.length && a[sourceEnd] == b[end]) {
                    end++;
                    sourceEnd++;
                }
                if (start > done) {
                    ranges.add(new Range(-1, done, start - done));
                }
                ranges.add(new Range(source, start, end - start));
                equal += end - start;
                done = end;
                at = end;
                sum = at + block <= b.length ? sum(b, at, block) : 0;
                continue;
            }
            if (at + block < b.length) {
                sum = (sum - (b[at] & 0xff) * out) * BASE + (b[at + block] & 0xff);
            }
            at++;
        }
        if (done < b.length) {
            ranges.add(new Range(-1, done, b.length - done));
        }
        double share = b.length == 0 ? 0 : (double) equal / b.length;
        return new Comparison.ByteChanges(share, ranges, (long) b.length - a.length, kinds);
    }

    private static int sum(byte[] bytes, int from, int length) {
        int sum = 0;
        for (int i = from; i < from + length; i++) {
            sum = sum * BASE + (bytes[i] & 0xff);
        }
        return sum;
    }
}
