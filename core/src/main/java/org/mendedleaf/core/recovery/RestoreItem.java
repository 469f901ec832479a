package org.mendedleaf.core.recovery;

import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Version;

/**
 * A version that somebody wants to have at a path.
 *
 * @param version the version
 * @param target path from the root of where it goes
 * @param from path where its file is now, when it shall move back from there; empty otherwise
 */
public record RestoreItem(Version version, String target, String from) {

    /** Refuses a path that is none, such as one that leads out of where it goes. */
    public RestoreItem {
        RelativePath.requirePath(target);
    }

    /** A wish that moves nothing. */
    public RestoreItem(Version version, String target) {
        this(version, target, "");
    }
}
