package org.mendedleaf.core.systems;

import java.time.Duration;
import org.mendedleaf.core.words.Words;

/**
 * How much of another system's listing is taken, so that one that never ends costs that system only. More than any office
 * has.
 *
 * @param entries files, folders and versions of one listing
 * @param bytes of one answer that is not a content
 * @param time for one listing, with all the answers it takes
 * @param depth folders in each other; what lies deeper is a gap
 */
public record Budget(int entries, long bytes, Duration time, int depth) {

    /** What is taken by the program. */
    public static final Budget DEFAULT = new Budget(1_000_000, 256L << 20, Duration.ofMinutes(10), 500);

    /** Counts one listing. */
    public final class Listing {
        private final String system;
        private final long end = System.nanoTime() + time.toNanos();
        private long seen;

        private Listing(String system) {
            this.system = system;
        }

        /** So many more entries came. */
        public void more(int count) throws SystemException {
            seen += count;
            if (seen > entries) {
                throw new SystemException.Garbled(Words.of("system.tooMany", system, entries));
            }
            onTime();
        }

        /** Refuses to go on when it takes too long. */
        public void onTime() throws SystemException {
            if (System.nanoTime() - end > 0) {
                throw new SystemException.Garbled(Words.of("system.tooSlow", system, time.toMinutes()));
            }
        }
    }

    /** A listing that begins now. */
    public Listing listing(String system) {
        return new Listing(system);
    }

    /** Whether a path lies deeper than is followed. */
    public boolean isTooDeep(String path) {
        return path.chars().filter(c -> c == '/').count() >= depth;
    }
}
