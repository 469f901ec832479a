package org.mendedleaf.core.recovery;

import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Version;

/** What a plan asks of the place where it leads, and of the versions that it takes there. */
@FunctionalInterface
interface PlanTarget {

    /** Nothing is there. */
    PlanTarget EMPTY = path -> Optional.empty();

    /** What is at a path. */
    Optional<Existing> at(String path);

    /** The paths of all that is in a folder and below it, on the disk, but for leftovers of ours. */
    default List<String> below(String folder) {
        throw new UnsupportedOperationException("expected not to be asked for what is in " + folder);
    }

    /** Where the file of a version is now, when that is not this path; empty when it is there, or removed. */
    default Optional<String> elsewhere(Version version, String path) {
        return Optional.empty();
    }

    /** Whether what seems to have the content of a version has it. */
    default boolean isReallyThere(String path, Version version) {
        return true;
    }

    /** Why the content of a version cannot be had any more, as a message; empty when it can. */
    default Optional<String> missing(Version version) {
        return Optional.empty();
    }
}
