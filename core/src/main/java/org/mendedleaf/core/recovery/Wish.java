package org.mendedleaf.core.recovery;

import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.Version;

/**
 * A version that somebody wants to have at a path.
 *
 * @param version the version
 * @param target path from the root of where it goes
 */
public record Wish(Version version, String target) {

    /** Refuses a path that is none, such as one that leads out of where it goes. */
    public Wish {
        RelativePath.requirePath(target);
    }
}
