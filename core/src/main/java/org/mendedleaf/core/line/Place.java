package org.mendedleaf.core.line;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;

/**
 * A protected folder.
 *
 * @param id in its vault
 * @param root the folder, absolute and real
 * @param name what people call it; the folder's name unless chosen otherwise
 * @param rhythm how often it is captured
 * @param exclusions patterns of what is left out, beside the standing ones
 * @param created when it was protected
 */
public record Place(long id, Path root, String name, Rhythm rhythm, List<String> exclusions, Instant created) {

    /** Copies the list. */
    public Place {
        exclusions = List.copyOf(exclusions);
    }
}
