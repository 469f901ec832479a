package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.Optional;

/**
 * A snapshot or a backup run: what a whole place held at one moment.
 *
 * @param key what the system calls it; {@link #LIVE} for the files as they are there now
 * @param at the moment
 * @param label what people call it
 * @param expires when the system will forget it by its own rules, as far as known
 */
public record RemoteSnapshot(String key, Instant at, String label, Optional<Instant> expires) {

    /** The key of the live files on a system. */
    public static final String LIVE = "live";

    /** Whether these are the live files. */
    public boolean isLive() {
        return key.equals(LIVE);
    }
}
