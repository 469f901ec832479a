package org.mendedleaf.core.time;

import java.time.format.TextStyle;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.mendedleaf.core.words.Words;

/** The words that moments are typed with, in English and in the language of the user. */
final class MomentWords {

    private MomentWords() {}

    static Set<String> vocabulary(String name) {
        return Words.typed("moment.vocabulary." + name);
    }

    static List<String> tokens(String typed) {
        List<String> tokens =
                new ArrayList<>(Arrays.asList(typed.toLowerCase(Locale.ROOT).split("[\\s,]+")));
        Set<String> fillers = vocabulary("fillers");
        tokens.removeIf(t -> fillers.contains(t) || t.isEmpty());
        return tokens;
    }

    /** A text that means no moment at all. */
    static final class UnreadableException extends IllegalArgumentException {
        static final long serialVersionUID = 1;

        UnreadableException(String typed) {
            super(Words.of("moment.unreadable", typed));
        }
    }

    static IllegalArgumentException unreadable(String typed) {
        return new UnreadableException(typed);
    }

    /** How the constants of an enum are called in a style and language. */
    interface Naming<T> {
        String name(T value, TextStyle style, Locale locale);
    }

    /** By its whole name, or three letters of it and more, in English or in the user's language. */
    static <T> Optional<T> named(String token, T[] values, Naming<T> naming) {
        String bare = token.endsWith(".") ? token.substring(0, token.length() - 1) : token;
        for (Locale locale : List.of(Locale.ENGLISH, Words.locale())) {
            for (T value : values) {
                Function<TextStyle, String> name =
                        style -> naming.name(value, style, locale).toLowerCase(Locale.ROOT);
                if (bare.length() >= 3 && name.apply(TextStyle.FULL).startsWith(bare)
                        || name.apply(TextStyle.SHORT).replace(".", "").equals(bare)) {
                    return Optional.of(value);
                }
            }
        }
        return Optional.empty();
    }

    static int number(String token) {
        if (token.matches("\\d{1,6}")) {
            return Integer.parseInt(token);
        }
        int index = Words.lists("moment.vocabulary.numbers").stream()
                .mapToInt(l -> l.indexOf(token))
                .max()
                .orElse(-1);
        return vocabulary("one").contains(token) ? 1 : index < 0 ? -1 : index + 1;
    }

    static Optional<ChronoUnit> unit(String token) {
        for (ChronoUnit unit : List.of(
                ChronoUnit.SECONDS,
                ChronoUnit.MINUTES,
                ChronoUnit.HOURS,
                ChronoUnit.DAYS,
                ChronoUnit.WEEKS,
                ChronoUnit.MONTHS,
                ChronoUnit.YEARS)) {
            if (vocabulary(unit.name()).contains(token)) {
                return Optional.of(unit);
            }
        }
        return Optional.empty();
    }
}
