package org.mendedleaf.desktop.files;

import java.util.List;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.preview.Preview;

/** What is shown below a line about the chosen version. */
public sealed interface Detail {

    /** Nothing is chosen. */
    record None() implements Detail {}

    /** It is being read. */
    record Loading() implements Detail {}

    /** It cannot be shown, and why. */
    record Failed(String words) implements Detail {}

    /**
     * Its content is in other systems only.
     *
     * @param version the version
     * @param words who holds it
     */
    record Away(Version version, String words) implements Detail {}

    /** A preview of the version. */
    record Seen(Version version, Preview preview) implements Detail {}

    /**
     * The version against what is in the folder now.
     *
     * @param version that is compared
     * @param against in words: the live file, or the newest version
     * @param comparison what changed from the version to it
     */
    record Compared(Version version, String against, Comparison comparison) implements Detail {}

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
    record Notes(Version version, LineSaid said) implements Detail {}

    /** One fact. */
    record Fact(String name, String value) {}

    /** Which of them is wanted. */
    enum Mode {
        /** The content. */
        PREVIEW,
        /** The difference to now. */
        COMPARE,
        /** Facts. */
        FACTS,
        /** What is said of it. */
        NOTES
    }
}
