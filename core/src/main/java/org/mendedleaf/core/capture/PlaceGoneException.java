package org.mendedleaf.core.capture;

import java.io.IOException;

/** A protected folder is not where it was: renamed, or on a disk that is away, with an empty folder in its place. Its past is safe in the vault. */
public final class PlaceGoneException extends IOException {

    private static final long serialVersionUID = 1;

    /**
     * A folder is away.
     *
     * @param words what is wrong with it
     */
    public PlaceGoneException(String words) {
        super(words);
    }
}
