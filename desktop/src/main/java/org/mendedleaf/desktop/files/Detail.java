package org.mendedleaf.desktop.files;

import java.util.List;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Pair;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.line.Version;

/** What is shown below a line about the chosen version. */
public sealed interface Detail {

    /** Nothing is chosen. */
    record None() implements Detail {}

    /** It cannot be shown, and why. */
    record Failed(String words) implements Detail {}

    /**
     * Its content is in other systems only.
     *
     * @param version the version
     * @param words who holds it
     */
    record Away(Version version, String words) implements Detail {}

    /**
     * What the version says.
     *
     * @param member of it that is looked into; empty for itself
     * @param part of a text that is not shown whole, from 0
     * @param parts that it has
     * @param said why it is shown where a difference was asked for; empty when it is the first version, or no difference was
     */
    record Seen(Version version, String member, Document document, int part, int parts, String said) implements Detail {
        /** One that is shown whole. */
        public Seen(Version version, String member, Document document) {
            this(version, member, document, 0, 1, "");
        }
    }

    /**
     * What changed.
     *
     * @param version that was chosen
     * @param before which point the earlier one is, as a message
     * @param after which point the later one is, as a message
     * @param member of both that is looked into; empty for themselves
     * @param contents of both, read when they are asked for
     */
    record Compared(
            Version version, String before, String after, String member, Comparison comparison, Pair.Source contents)
            implements Detail {}

    /**
     * Facts about the version.
     *
     * @param version they are about
     * @param facts name and value
     */
    record Facts(Version version, List<Fact> facts) implements Detail {
        /** Copies the list. */
        public Facts {
            facts = List.copyOf(facts);
        }
    }

    /**
     * What is said of the version and its file.
     *
     * @param version the version
     * @param said of its line
     */
    record Notes(Version version, LineRemarks said) implements Detail {}

    /** Something that is told of a version beside its content, such as its size. */
    record Fact(String name, String value) {}

    /** Which of them is wanted. */
    enum Mode {
        /** What changed. */
        CHANGES,
        /** The content. */
        CONTENT,
        /** Facts. */
        FACTS,
        /** What is said of it. */
        NOTES
    }
}
