package org.mendedleaf.core.deflate;

/** Goes through the code lengths of a tree in runs of equal ones, as they are written. Source: RFC 1951, 3.2.7; zlib, trees.c. */
final class LengthRuns {

    static final int REPEAT_LAST = 16;
    static final int ZEROS_FEW = 17;
    static final int ZEROS_MANY = 18;

    /** Ends a row of code lengths: no length is equal to it. */
    private static final int GUARD = 0xffff;

    private LengthRuns() {}

    /** Takes a run of equal lengths. */
    interface Taker {
        /**
         * A run.
         *
         * @param run how many lengths there are
         * @param times how often the length itself is written
         * @param repeat the symbol that stands for the rest of the run; negative for none
         */
        void take(int length, int run, int times, int repeat);
    }

    /** Hands on each run. */
    static void of(HuffmanTree tree, Taker taker) {
        int before = -1;
        int next = tree.length[0];
        int count = 0;
        int most = next == 0 ? 138 : 7;
        int least = next == 0 ? 3 : 4;
        tree.length[tree.last + 1] = GUARD;
        for (int n = 0; n <= tree.last; n++) {
            int current = next;
            next = tree.length[n + 1];
            count++;
            if (count < most && current == next) {
                continue;
            }
            if (count < least) {
                taker.take(current, count, count, -1);
            } else if (current != 0) {
                taker.take(current, count, current == before ? 0 : 1, REPEAT_LAST);
            } else {
                taker.take(0, count, 0, count <= 10 ? ZEROS_FEW : ZEROS_MANY);
            }
            count = 0;
            before = current;
            if (next == 0) {
                most = 138;
                least = 3;
            } else if (current == next) {
                most = 6;
                least = 3;
            } else {
                most = 7;
                least = 4;
            }
        }
    }
}
