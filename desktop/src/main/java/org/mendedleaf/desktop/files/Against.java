package org.mendedleaf.desktop.files;

import java.nio.file.Path;

/** What the chosen version is compared with. */
public sealed interface Against {

    /** The version before it. */
    record Before() implements Against {}

    /** What the folder holds now. */
    record Now() implements Against {}

    /** Another version of its line. */
    record OfVersion(int number) implements Against {}

    /** A file of this machine. */
    record OfFile(Path file) implements Against {}
}
