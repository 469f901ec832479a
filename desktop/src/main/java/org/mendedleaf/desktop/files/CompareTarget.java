package org.mendedleaf.desktop.files;

import java.nio.file.Path;

/** What the chosen version is compared with. */
public sealed interface CompareTarget {

    /** The version before it. */
    record Before() implements CompareTarget {}

    /** What the folder holds now. */
    record Now() implements CompareTarget {}

    /** Another version of its line. */
    record OfVersion(int number) implements CompareTarget {}

    /** A file of this machine. */
    record OfFile(Path file) implements CompareTarget {}
}
