package org.mendedleaf.core.intake;

import java.text.Normalizer;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Locale;

/**
 * A text as the set of its runs of words, hashed: what two texts have in common is what their sets do. Of very long
 * texts only those runs stand whose hashes have so many zeros at their end, the same for all texts.
 *
 * <p>Source: A. Z. Broder, "On the resemblance and containment of documents", SEQUENCES 1997.
 *
 * @param hashes ascending, each once
 * @param level how many zeros all hashes end in
 */
record Shingles(long[] hashes, int level) {

    /** More than so many runs are thinned out. */
    private static final int MOST = 20_000;

    /** So many characters of a text are compared. */
    private static final long CHARS_MOST = 5_000_000;

    private static final int BLOCK = 1 << 15;

    static final Shingles NONE = new Shingles(new long[0], 0);

    /** Takes words one after the other, and keeps no more than is needed of them. */
    private static final class Runs {
        private final int length;
        private final long[] last;
        private final HashSet<Long> hashes = new HashSet<>();
        private int level;
        private long count;

        Runs(int length) {
            this.length = length;
            this.last = new long[length];
        }

        void add(long word) {
            last[(int) (count++ % length)] = word;
            if (count >= length) {
                take(length);
            }
        }

        /** The run of the last words, so many. */
        private void take(int words) {
            long hash = 0x9E3779B97F4A7C15L;
            for (long k = count - words; k < count; k++) {
                hash = mix(hash * 31 + last[(int) (k % length)]);
            }
            if ((hash & mask(level)) == 0) {
                hashes.add(hash);
                while (hashes.size() > MOST) {
                    long mask = mask(++level);
                    hashes.removeIf(h -> (h & mask) != 0);
                }
            }
        }

        Shingles shingles() {
            if (count > 0 && count < length) {
                take((int) count);
            }
            return new Shingles(
                    hashes.stream().mapToLong(Long::longValue).sorted().toArray(), level);
        }
    }

    /**
     * A text by its words.
     *
     * @param words how many there are
     * @param near the runs of three
     * @param far the runs of twelve
     */
    record OfText(int words, Shingles near, Shingles far) {
        static final OfText NONE = new OfText(0, Shingles.NONE, Shingles.NONE);
    }

    /**
     * The words of a text, hashed, without case, figures too, and their runs: of {@code near} words and of {@code far}, and of a
     * text with fewer the one run of all of them. Of very long texts only the beginning counts.
     */
    static OfText of(String text, int near, int far) {
        Runs nearRuns = new Runs(near);
        Runs farRuns = new Runs(far);
        int words = 0;
        long hash = 0;
        boolean inside = false;
        long left = CHARS_MOST;
        for (int from = 0; from < text.length() && left > 0; ) {
            int to = blockEnd(text, from);
            String plain = Normalizer.normalize(text.substring(from, to), Normalizer.Form.NFKC)
                    .toLowerCase(Locale.ROOT);
            from = to;
            left -= plain.length();
            boolean last = from == text.length() || left <= 0;
            for (int i = 0; last ? i <= plain.length() : i < plain.length(); ) {
                int c = i < plain.length() ? plain.codePointAt(i) : ' ';
                i += Character.charCount(c);
                if (Character.isLetterOrDigit(c)) {
                    hash = hash * 1099511628211L + c;
                    inside = true;
                } else if (inside) {
                    long word = mix(hash);
                    nearRuns.add(word);
                    farRuns.add(word);
                    words++;
                    hash = 0;
                    inside = false;
                }
            }
        }
        return words == 0 ? OfText.NONE : new OfText(words, nearRuns.shingles(), farRuns.shingles());
    }

    /** Texts are made plain block by block, each of which ends before a space where there is one: nothing is written over it. */
    private static int blockEnd(String text, int from) {
        int to = Math.min(text.length(), from + BLOCK);
        int most = Math.min(text.length(), from + 2 * BLOCK);
        while (to < most && text.charAt(to) != ' ' && text.charAt(to) != '\n') {
            to++;
        }
        return to < text.length() && Character.isLowSurrogate(text.charAt(to)) ? to - 1 : to;
    }

    /** The same, thinned out to no more than so many. */
    Shingles atMost(int most) {
        Shingles set = this;
        while (set.size() > most) {
            set = set.at(set.level + 1);
        }
        return set;
    }

    /** Mixes the bits of a number (SplitMix64; Steele, Lea and Flood, OOPSLA 2014). */
    private static long mix(long number) {
        long z = (number ^ (number >>> 30)) * 0xBF58476D1CE4E5B9L;
        z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
        return z ^ (z >>> 31);
    }

    private static long mask(int level) {
        return (1L << level) - 1;
    }

    private static long[] atLevel(long[] hashes, int level) {
        long mask = mask(level);
        return Arrays.stream(hashes).filter(h -> (h & mask) == 0).toArray();
    }

    int size() {
        return hashes.length;
    }

    private Shingles at(int wanted) {
        return wanted <= level ? this : new Shingles(atLevel(hashes, wanted), wanted);
    }

    /** What stands in both. */
    int common(Shingles other) {
        int to = Math.max(level, other.level);
        long[] a = at(to).hashes;
        long[] b = other.at(to).hashes;
        int n = 0;
        for (int i = 0, k = 0; i < a.length && k < b.length; ) {
            if (a[i] == b[k]) {
                n++;
                i++;
                k++;
            } else if (a[i] < b[k]) {
                i++;
            } else {
                k++;
            }
        }
        return n;
    }

    /** How much of the smaller of the two stands in the other, 0 to 1. */
    double containment(Shingles other) {
        int to = Math.max(level, other.level);
        int least = Math.min(at(to).size(), other.at(to).size());
        return least == 0 ? 0 : (double) common(other) / least;
    }

    /** What stands here and not there. */
    Shingles without(Shingles other) {
        int to = Math.max(level, other.level);
        long[] b = other.at(to).hashes;
        return new Shingles(
                Arrays.stream(at(to).hashes)
                        .filter(h -> Arrays.binarySearch(b, h) < 0)
                        .toArray(),
                to);
    }
}
