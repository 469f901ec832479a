package org.mendedleaf.core.find;

import java.util.Optional;
import java.util.function.Function;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/** What was found, as a message. */
public final class FindWords {

    private FindWords() {}

    /**
     * From which version to which the words stood there, who put them in and who took them out.
     *
     * @param when how a version's moment is said
     */
    public static String of(Line line, Finder.Span span, Function<Version, String> when) {
        String first = span.first().label();
        String last = span.last().label();
        Optional<Version> gone = span.gone();
        String end = gone.isPresent() ? "gone" : line.removed().isPresent() ? "toEnd" : "still";
        String label = gone.map(Version::label).orElse("");
        String taken = gone.map(g -> by(g, when)).orElse("");
        if (span.first().number() == span.last().number()) {
            return Words.of("find.one." + end, first, by(span.first(), when), label, taken);
        }
        boolean oldest = line.versions().get(line.versions().size() - 1).number()
                == span.first().number();
        String came = Words.of(oldest ? "find.came.first" : "find.came", first, by(span.first(), when));
        return Words.of("find.span." + end, came, last, label, taken);
    }

    private static String by(Version v, Function<Version, String> when) {
        return v.who().isEmpty() ? when.apply(v) : Words.of("find.by", v.who(), when.apply(v));
    }

    /** What is said of a file or a version. */
    public static String of(Line line, FindQuery.Said said) {
        return Words.of("find.in." + said.in(), said.text(), said.number() == 0 ? "" : line.label(said.number()));
    }
}
