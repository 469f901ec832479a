package org.mendedleaf.core.line;

import java.nio.file.Path;
import java.time.Instant;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * A copy of the vault: a folder, on another drive as a rule, that is kept in step with it.
 *
 * @param id in the vault
 * @param folder where it is
 * @param since when it was begun
 * @param who began it
 */
public record VaultCopy(long id, Path folder, Instant since, String who) {

    /**
     * How much of a pack counts.
     *
     * @param committed bytes
     * @param sealed whether it has its index and trailer, and never grows again
     */
    public record Pack(long committed, boolean sealed) {}

    /**
     * What there is to copy.
     *
     * @param packs by number
     * @param commit number of the last commit
     */
    public record Extent(NavigableMap<Long, Pack> packs, long commit) {
        /** Nothing. */
        public static final Extent NONE = new Extent(new TreeMap<>(), 0);

        /** Copies the map. */
        public Extent {
            packs = java.util.Collections.unmodifiableNavigableMap(new TreeMap<>(packs));
        }

        /** Bytes of all packs. */
        public long bytes() {
            return packs.values().stream().mapToLong(Pack::committed).sum();
        }
    }

    /**
     * How a copy stands, as far as was seen.
     *
     * @param tried when it was last tried; empty when it never was
     * @param good when it was last in step
     * @param commit number of the last commit that it has
     * @param bytes that it takes
     * @param packs numbers of the packs that it has
     * @param checked when every byte of it was last read
     * @param trouble what went wrong since it was last in step, as a message; empty when nothing did
     */
    public record State(
            Optional<Instant> tried,
            Optional<Instant> good,
            long commit,
            long bytes,
            Set<Long> packs,
            Optional<Instant> checked,
            String trouble) {

        /** Of a copy that was never tried. */
        public static final State NONE =
                new State(Optional.empty(), Optional.empty(), 0, 0, Set.of(), Optional.empty(), "");

        /** Copies the set. */
        public State {
            packs = Set.copyOf(packs);
        }

        /** The same, tried now and gone wrong. */
        public State failed(Instant now, String why) {
            return new State(Optional.of(now), good, commit, bytes, packs, checked, why);
        }

        /** The same, every byte of it read just now. */
        public State checked(Instant now) {
            return new State(tried, good, commit, bytes, packs, Optional.of(now), trouble);
        }
    }
}
