package org.mendedleaf.core.deflate;

import java.util.Arrays;

/**
 * A Huffman code of limited length, built as zlib builds it: of several codes of the same cost it is always the same one.
 * Source: the heap of D. A. Huffman's construction, and the way of shortening codes that are too long, of J. Gailly and
 * M. Adler, zlib, trees.c.
 */
final class HuffmanTree {

    private final int elements;
    private final int[] extra;
    private final int extraFrom;
    private final int limit;
    private final int[] fixedLengths;

    /** How often each symbol occurs; beyond the symbols, inner nodes. */
    final int[] frequency;

    /** Bits of the code of each symbol, 0 for none. */
    final int[] length;

    /** Code of each symbol, in the order in which bits are written. */
    final int[] code;

    /** The last symbol with a code. */
    int last;

    /** Bits of the block's symbols in this code. */
    long bits;

    /** Bits of the block's symbols in the fixed code. */
    long fixedBits;

    private final int[] parent;
    private final int[] depth;
    private final int[] heap;
    private final int[] count = new int[16];
    private int heapLength;
    private int heapMax;

    HuffmanTree(int elements, int[] extra, int extraFrom, int limit, int[] fixedLengths) {
        this.elements = elements;
        this.extra = extra;
        this.extraFrom = extraFrom;
        this.limit = limit;
        this.fixedLengths = fixedLengths;
        int nodes = elements * 2 + 1;
        frequency = new int[nodes];
        length = new int[nodes];
        code = new int[nodes];
        parent = new int[nodes];
        depth = new int[nodes];
        heap = new int[nodes + 1];
    }

    void clear() {
        Arrays.fill(frequency, 0, elements, 0);
    }

    /** Makes the code from the frequencies, and counts the bits it takes. */
    void build() {
        bits = 0;
        fixedBits = 0;
        heapLength = 0;
        heapMax = heap.length;
        last = -1;
        for (int n = 0; n < elements; n++) {
            if (frequency[n] != 0) {
                last = n;
                heap[++heapLength] = n;
                depth[n] = 0;
            } else {
                length[n] = 0;
            }
        }
        // There are always two codes at least.
        while (heapLength < 2) {
            int node = last < 2 ? ++last : 0;
            heap[++heapLength] = node;
            frequency[node] = 1;
            depth[node] = 0;
            bits--;
            fixedBits -= fixedLengths.length == 0 ? 0 : fixedLengths[node];
        }
        for (int n = heapLength / 2; n >= 1; n--) {
            sink(n);
        }
        int node = elements;
        do {
            int n = heap[1];
            heap[1] = heap[heapLength--];
            sink(1);
            int m = heap[1];
            heap[--heapMax] = n;
            heap[--heapMax] = m;
            frequency[node] = frequency[n] + frequency[m];
            depth[node] = Math.max(depth[n], depth[m]) + 1;
            parent[n] = node;
            parent[m] = node;
            heap[1] = node++;
            sink(1);
        } while (heapLength >= 2);
        heap[--heapMax] = heap[1];
        lengths();
        codes();
    }

    private void sink(int from) {
        int k = from;
        int v = heap[k];
        for (int j = k << 1; j <= heapLength; j <<= 1) {
            if (j < heapLength && isSmaller(heap[j + 1], heap[j])) {
                j++;
            }
            if (isSmaller(v, heap[j])) {
                break;
            }
            heap[k] = heap[j];
            k = j;
        }
        heap[k] = v;
    }

    private boolean isSmaller(int n, int m) {
        return frequency[n] < frequency[m] || (frequency[n] == frequency[m] && depth[n] <= depth[m]);
    }

    private void lengths() {
        Arrays.fill(count, 0);
        int overflow = 0;
        length[heap[heapMax]] = 0;
        int h;
        for (h = heapMax + 1; h < heap.length; h++) {
            int n = heap[h];
            int depth = length[parent[n]] + 1;
            if (depth > limit) {
                depth = limit;
                overflow++;
            }
            length[n] = depth;
            if (n > last) {
                continue;
            }
            count[depth]++;
            int more = n >= extraFrom ? extra[n - extraFrom] : 0;
            bits += (long) frequency[n] * (depth + more);
            if (fixedLengths.length > 0) {
                fixedBits += (long) frequency[n] * (fixedLengths[n] + more);
            }
        }
        if (overflow > 0) {
            shorten(overflow, h);
        }
    }

    private void shorten(int overflow, int end) {
        int over = overflow;
        do {
            int depth = limit - 1;
            while (count[depth] == 0) {
                depth--;
            }
            count[depth]--;
            count[depth + 1] += 2;
            count[limit]--;
            over -= 2;
        } while (over > 0);
        int h = end;
        for (int depth = limit; depth != 0; depth--) {
            int n = count[depth];
            while (n != 0) {
                int m = heap[--h];
                if (m > last) {
                    continue;
                }
                if (length[m] != depth) {
                    bits += ((long) depth - length[m]) * frequency[m];
                    length[m] = depth;
                }
                n--;
            }
        }
    }

    private void codes() {
        int[] next = new int[16];
        int value = 0;
        for (int depth = 1; depth <= 15; depth++) {
            value = (value + count[depth - 1]) << 1;
            next[depth] = value;
        }
        for (int n = 0; n <= last; n++) {
            if (length[n] != 0) {
                code[n] = Symbols.reversed(next[length[n]]++, length[n]);
            }
        }
    }
}
