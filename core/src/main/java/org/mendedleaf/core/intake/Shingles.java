package org.mendedleaf.core.intake;

import java.text.Normalizer;
import java.util.Arrays;
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

    static final Shingles NONE = new Shingles(new long[0], 0);

    /** The runs of {@code length} words of a text; of a shorter text, the one run of all its words. */
    static Shingles of(long[] words, int length) {
        if (words.length == 0) {
            return NONE;
        }
        int runs = Math.max(1, words.length - length + 1);
        long[] all = new long[runs];
        for (int i = 0; i < runs; i++) {
            long hash = 0x9E3779B97F4A7C15L;
            for (int k = i; k < Math.min(words.length, i + length); k++) {
                hash = mix(hash * 31 + words[k]);
            }
            all[i] = hash;
        }
        return new Shingles(distinct(all), 0).atMost(MOST);
    }

    /** The same, thinned out to no more than so many. */
    Shingles atMost(int most) {
        Shingles set = this;
        while (set.size() > most) {
            set = set.at(set.level + 1);
        }
        return set;
    }

    /** The words of a text, hashed, without case; figures count as words. */
    static long[] words(String text) {
        String plain = Normalizer.normalize(text, Normalizer.Form.NFKC).toLowerCase(Locale.ROOT);
        long[] words = new long[Math.max(16, plain.length() / 4)];
        int count = 0;
        long hash = 0;
        boolean inside = false;
        for (int i = 0; i <= plain.length(); ) {
            int c = i < plain.length() ? plain.codePointAt(i) : ' ';
            i += Character.charCount(c);
            if (Character.isLetterOrDigit(c)) {
                hash = hash * 1099511628211L + c;
                inside = true;
            } else if (inside) {
                if (count == words.length) {
                    words = Arrays.copyOf(words, count * 2);
                }
                words[count++] = mix(hash);
                hash = 0;
                inside = false;
            }
        }
        return Arrays.copyOf(words, count);
    }

    /** Mixes the bits of a number (SplitMix64; Steele, Lea and Flood, OOPSLA 2014). */
    private static long mix(long number) {
        long z = (number ^ (number >>> 30)) * 0xBF58476D1CE4E5B9L;
        z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
        return z ^ (z >>> 31);
    }

    private static long[] distinct(long[] all) {
        Arrays.sort(all);
        int n = 0;
        for (int i = 0; i < all.length; i++) {
            if (i == 0 || all[i] != all[i - 1]) {
                all[n++] = all[i];
            }
        }
        return Arrays.copyOf(all, n);
    }

    private static long[] atLevel(long[] hashes, int level) {
        long mask = (1L << level) - 1;
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
