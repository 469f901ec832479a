package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.Path;
import org.mendedleaf.core.words.Words;

/** A protected folder is not where it was: renamed, or on a disk that is away. Its past is safe in the vault. */
public final class PlaceGoneException extends IOException {

    private static final long serialVersionUID = 1;

    /** For the folder at this path. */
    public PlaceGoneException(Path root) {
        super(Words.of("capture.placeGone", root));
    }
}
