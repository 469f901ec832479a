package org.mendedleaf.core.compare;

import java.util.Arrays;
import java.util.stream.Collectors;
import org.mendedleaf.core.words.Words;

/** Few words for many changes. */
final class ChangeWords {

    private ChangeWords() {}

    static String plus(String key, int n) {
        return n == 0 ? "" : Words.of(key, "+", n);
    }

    static String minus(String key, int n) {
        return n == 0 ? "" : Words.of(key, "−", n);
    }

    static String join(String... parts) {
        return Arrays.stream(parts).filter(p -> !p.isEmpty()).collect(Collectors.joining(", "));
    }
}
