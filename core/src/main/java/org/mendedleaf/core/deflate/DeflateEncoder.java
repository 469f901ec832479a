package org.mendedleaf.core.deflate;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Deflates a content as the encoder of its settings would, bit for bit. Not safe for several threads; may be used again.
 *
 * <p>Matches are found through chains of positions with equal hashes of three bytes, and from level 4 on a match waits
 * whether the next position has a longer one. Source: J. Gailly and M. Adler, zlib 1.2, deflate.c (its limits by level
 * among them); for Info-ZIP, its own trees.c.
 */
public final class DeflateEncoder {

    private static final VarHandle LONGS = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final VarHandle INTS = MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.LITTLE_ENDIAN);

    private static final int MASK = Symbols.WINDOW - 1;

    /** A match may not begin further back. */
    private static final int REACH = Symbols.WINDOW - (Symbols.MAX_MATCH + Symbols.MIN_MATCH + 1);

    /** Matches of three bytes are not worth it from further away. */
    private static final int TOO_FAR = 4096;

    /** By level: from which length the chain is cut to a quarter, waits or inserts, stops looking; length of the chain. */
    private static final int[][] LIMITS = {
        {0, 0, 0, 0},
        {4, 4, 8, 4},
        {4, 5, 16, 8},
        {4, 6, 32, 32},
        {4, 4, 16, 16},
        {8, 16, 32, 32},
        {8, 16, 128, 128},
        {8, 32, 128, 256},
        {32, 128, 258, 1024},
        {32, 258, 258, 4096}
    };

    private final BlockWriter blocks = new BlockWriter();
    private final int[] head = new int[1 << 16];
    private final int[] previous = new int[Symbols.WINDOW];
    private BitSink out = new BitSink(new byte[0], 0, 0, false);
    private byte[] in = {};
    private DeflateSettings settings = new DeflateSettings(6, DeflateSettings.Encoder.ZLIB);
    private int @Nullable [] expected;
    private int expectedCount;
    private int told;
    private boolean failed;
    private long steps;
    private long deadline = Long.MAX_VALUE;
    private int good;
    private int lazy;
    private int nice;
    private int chain;
    private int base;
    private int end;
    private int position;
    private int blockStart;
    private int matchStart;
    private int hashMask;
    private int hashShift;

    /**
     * Deflates.
     *
     * @param length of the content; {@code content} has at least {@link #PAD} bytes more
     * @param into exactly as many bytes as the result has
     * @return whether the result has exactly this length
     */
    public boolean write(DeflateSettings by, byte[] content, int length, byte[] into) {
        expected = null;
        deadline = Long.MAX_VALUE;
        return run(by, content, length, new BitSink(into, 0, into.length, false));
    }

    /** Bytes that a content must have behind its end. */
    public static final int PAD = Symbols.MAX_MATCH + 2;

    /**
     * Whether deflating gives exactly these bytes; stops at the first difference.
     *
     * @param length of the content; {@code content} has at least {@link #PAD} bytes more
     * @param symbols the first symbols of the bytes, by which differences are seen soonest
     */
    boolean isSame(DeflateSettings by, byte[] content, int length, byte[] bytes, int from, int to, FirstBlock symbols) {
        expected = symbols.symbols();
        expectedCount = symbols.count();
        return run(by, content, length, new BitSink(bytes, from, to, true));
    }

    /** After so many steps along chains it is looked what time it is. */
    private static final long LOOK_EVERY = 1L << 20;

    /**
     * Trying settings gives up at this moment: contents can be made for which each byte takes thousands of steps.
     *
     * @param nanos as {@link ProcessorTime} counts
     */
    void giveUpAt(long nanos) {
        deadline = nanos;
        steps = 0;
    }

    /** Whether the time to try was over. */
    boolean hasGivenUp() {
        return deadline == Long.MIN_VALUE;
    }

    private void look() {
        if (deadline != Long.MAX_VALUE && (hasGivenUp() || ProcessorTime.nanos() - deadline > 0)) {
            deadline = Long.MIN_VALUE;
            failed = true;
        }
        steps = 0;
    }

    private boolean run(DeflateSettings by, byte[] content, int length, BitSink sink) {
        out = sink;
        blocks.begin(sink);
        settings = by;
        in = content;
        told = 0;
        failed = false;
        int[] limits = LIMITS[by.level()];
        good = limits[0];
        lazy = limits[1];
        nice = limits[2];
        chain = limits[3];
        hashMask = (1 << by.encoder().hashBits) - 1;
        hashShift = by.encoder().hashShift;
        int piece = by.encoder().piece;
        if (piece == 0) {
            one(0, 0, length, true);
        } else {
            int from = 0;
            while (!isOver() && (from == 0 || from < length)) {
                int to = Math.min(length, from + piece);
                one(Math.max(0, from - Symbols.WINDOW), from, to, to == length);
                from = to;
            }
        }
        return !failed && out.isComplete();
    }

    private boolean isOver() {
        return failed || out.hasFailed();
    }

    /** Deflates a stretch; what stands before it from {@code dictionary} on may be referred to. */
    private void one(int dictionary, int from, int to, boolean isLast) {
        Arrays.fill(head, 0);
        base = dictionary;
        end = to;
        for (int at = dictionary; at < from; at++) {
            insert(at);
        }
        position = from;
        blockStart = from;
        if (settings.level() < 4) {
            fast();
        } else {
            lazy();
        }
        if (isOver()) {
            return;
        }
        if (isLast || blocks.count() > 0) {
            blocks.end(in, blockStart, end, isLast);
        }
        if (!isLast) {
            blocks.align();
        }
    }

    /** Notes a position under its hash; returns the one that stood there, relative to the base, 0 for none. */
    private int insert(int at) {
        int three = (int) INTS.get(in, at);
        int hash = ((three & 0xff) << (2 * hashShift) ^ (three >>> 8 & 0xff) << hashShift ^ (three >>> 16 & 0xff))
                & hashMask;
        int before = head[hash];
        int relative = at - base;
        previous[relative & MASK] = before;
        head[hash] = relative;
        return before;
    }

    private void fast() {
        int found = Symbols.MIN_MATCH - 1;
        while (position < end && !isOver()) {
            int left = end - position;
            int candidate = left >= Symbols.MIN_MATCH ? insert(position) : 0;
            if (candidate != 0 && position - base - candidate <= REACH) {
                found = longest(candidate, Symbols.MIN_MATCH - 1);
            }
            boolean full;
            if (found >= Symbols.MIN_MATCH) {
                full = match(found, position - matchStart);
                left -= found;
                if (found <= lazy && left >= Symbols.MIN_MATCH) {
                    for (int i = 1; i < found; i++) {
                        position++;
                        insert(position);
                    }
                    position++;
                } else {
                    position += found;
                }
                found = 0;
            } else {
                full = literal(in[position] & 0xff);
                position++;
            }
            if (full) {
                flush();
            }
        }
    }

    private void lazy() {
        int found = Symbols.MIN_MATCH - 1;
        boolean waits = false;
        while (position < end && !isOver()) {
            int left = end - position;
            int candidate = left >= Symbols.MIN_MATCH ? insert(position) : 0;
            int before = found;
            int beforeStart = matchStart;
            found = Symbols.MIN_MATCH - 1;
            if (candidate != 0 && before < lazy && position - base - candidate <= REACH) {
                found = longest(candidate, before);
                if (found == Symbols.MIN_MATCH && position - matchStart > TOO_FAR) {
                    found = Symbols.MIN_MATCH - 1;
                }
            }
            if (before >= Symbols.MIN_MATCH && found <= before) {
                int lastInsert = end - Symbols.MIN_MATCH;
                boolean full = match(before, position - 1 - beforeStart);
                for (int i = 0; i < before - 2; i++) {
                    position++;
                    if (position <= lastInsert) {
                        insert(position);
                    }
                }
                waits = false;
                found = Symbols.MIN_MATCH - 1;
                position++;
                if (full) {
                    flush();
                }
            } else if (waits) {
                if (literal(in[position - 1] & 0xff)) {
                    flush();
                }
                position++;
            } else {
                waits = true;
                position++;
            }
        }
        if (waits && !isOver()) {
            literal(in[position - 1] & 0xff);
        }
    }

    /** The longest match at the position, beginning with a candidate and going back its chain. */
    private int longest(int first, int atLeast) {
        int length = chain;
        int scan = position;
        int best = atLeast;
        int left = end - position;
        int enough = Math.min(nice, left);
        int relative = position - base;
        int limit = Math.max(relative - REACH, 0);
        if (atLeast >= good) {
            length >>= 2;
        }
        int current = first;
        byte[] bytes = in;
        // A longer match has these bytes in the same place: four, or the first three.
        int back = Math.max(0, best - 3);
        int mark = (int) INTS.get(bytes, scan + back);
        int mask = best < 3 ? 0xffffff : -1;
        do {
            int match = current + base;
            if ((((int) INTS.get(bytes, match + back) ^ mark) & mask) == 0) {
                int n = common(bytes, match, scan);
                if (n > best) {
                    matchStart = match;
                    best = n;
                    if (n >= enough) {
                        break;
                    }
                    back = best - 3;
                    mark = (int) INTS.get(bytes, scan + back);
                    mask = -1;
                }
            }
            current = previous[current & MASK];
            length--;
        } while (current > limit && length != 0);
        steps += chain - length;
        if (steps > LOOK_EVERY) {
            look();
        }
        return Math.min(best, left);
    }

    /** How many bytes are the same from two positions on, at most the longest match. */
    private static int common(byte[] bytes, int a, int b) {
        for (int n = 0; n < Symbols.MAX_MATCH - 2; n += Long.BYTES) {
            long differs = (long) LONGS.get(bytes, a + n) ^ (long) LONGS.get(bytes, b + n);
            if (differs != 0) {
                return n + (Long.numberOfTrailingZeros(differs) >>> 3);
            }
        }
        int n = Symbols.MAX_MATCH - 2;
        while (n < Symbols.MAX_MATCH && bytes[a + n] == bytes[b + n]) {
            n++;
        }
        return n;
    }

    private boolean literal(int value) {
        tell(value);
        blocks.literal(value);
        return isFull();
    }

    private boolean match(int length, int distance) {
        tell(distance << 8 | (length - Symbols.MIN_MATCH));
        blocks.match(length - Symbols.MIN_MATCH, distance);
        return isFull();
    }

    private void tell(int symbol) {
        if (expected != null && told < expectedCount) {
            if (expected[told] != symbol) {
                failed = true;
            }
            told++;
        }
    }

    private boolean isFull() {
        if (blocks.count() == settings.encoder().symbols - 1) {
            return true;
        }
        return settings.encoder() == DeflateSettings.Encoder.INFO_ZIP
                && settings.level() > 2
                && blocks.isGoodEnough(position - blockStart);
    }

    private void flush() {
        blocks.end(in, blockStart, position, false);
        blockStart = position;
    }
}
