package org.mendedleaf.core.capture;

import java.util.Set;

/** How much of a place a capture looks at. */
public sealed interface CaptureScope {

    /** All of it. */
    record Whole() implements CaptureScope {}

    /**
     * The names in these folders, and below them what is new.
     *
     * @param paths of the folders, from the place's root
     */
    record Folders(Set<String> paths) implements CaptureScope {
        /** Copies the set. */
        public Folders {
            paths = Set.copyOf(paths);
        }
    }

    /** All of it. */
    CaptureScope WHOLE = new Whole();
}
