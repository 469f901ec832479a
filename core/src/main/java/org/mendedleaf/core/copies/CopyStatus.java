package org.mendedleaf.core.copies;

import java.time.Instant;
import java.time.ZoneId;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * How a copy of the vault stands.
 *
 * @param standing in one word
 * @param seen what was seen of it last
 * @param commitsBehind how many commits it lacks
 * @param stale how many of its packs the vault has let go; some of what is in them may have been erased
 * @param freeBytes space on its drive; -1 when it is away
 * @param sameDrive whether it is on the drive of the vault, so that both go with it
 */
public record CopyStatus(
        VaultCopy copy,
        Standing standing,
        VaultCopy.State seen,
        long commitsBehind,
        int stale,
        long freeBytes,
        boolean sameDrive) {

    /** In one word. */
    public enum Standing {
        /** It has all that the vault has. */
        IN_STEP,
        /** The vault got something since; that comes by itself. */
        BEHIND,
        /** The first run has not come to its end yet. */
        BEGUN,
        /** Its drive or share is not there. */
        AWAY,
        /** It cannot be kept in step. */
        FAILING;

        /** In words. */
        public String words() {
            return Words.of("copies.standing." + this);
        }
    }

    /** Whether somebody should do something about it. */
    public boolean needsSomebody() {
        return standing == Standing.FAILING || standing == Standing.AWAY && commitsBehind > 0;
    }

    /** When it was last in step, as a message. */
    public String lastGood(Instant now, ZoneId zone) {
        return seen.good().map(g -> Formats.moment(g, now, zone)).orElse(Words.of("status.never"));
    }

    /** How it stands, in a sentence. */
    public String sentence(Instant now, ZoneId zone) {
        String said = standing == Standing.FAILING
                ? seen.trouble()
                : Words.of("copies.said." + standing, lastGood(now, zone));
        return stale == 0 ? said : said + " " + Words.of("copies.stale");
    }
}
