package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.NeededChunks;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PackUse;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.UnfoldQueue;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.find.FindIndex;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.intake.FeatureKeep;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.ChunkIndexCache;
import org.mendedleaf.core.vault.PackProof;
import org.mendedleaf.core.vault.Reserve;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.words.Words;

/**
 * Gives the space back of what was let go and whose grace has ended. First the catalogue forgets the contents; then packs
 * that hold enough of what nothing needs are emptied: what is still needed of them goes to the end of the newest pack, and
 * the file is deleted once that is committed. The vault is held for one pack at a time, so that captures go on in between; a
 * kill at any moment leaves a vault in which everything is there that is not gone by the catalogue, and the next run goes on.
 *
 * <p>When somebody erased something, all packs are emptied that hold anything unneeded, and in the end every record of every
 * pack is looked at: that is the proof that the content is gone.
 */
public final class Reclaim {

    /** A pack is emptied when so much of what it holds is not needed. */
    private static final double WORTH = 0.25;

    /** Of what was replaced so much is given back at once, even if the vault holds far more. Bytes. */
    private static final long REPLACED_MOST = 256L << 20;

    /** When somebody asks for space at once, less is worth the work. */
    private static final double WORTH_NOW = 0.01;

    /** From so many packs on that crashes ended early, they are joined. */
    private static final int LEFT_OPEN_MOST = 8;

    private static final long SMALL = 32L << 20;

    private static final int COMMIT_EVERY = 20_000;
    private static final String PROVED = "erased-proved";

    /** From when on a run goes on that did not come to its end; 0 when each did. */
    private static final String UNFINISHED = "reclaim-unfinished";

    /** A run that was killed goes on after so long, one that somebody stopped after a day. */
    private static final Duration AGAIN = Duration.ofMinutes(10);

    private static final Duration AFTER_STOPPING = Duration.ofDays(1);

    private final OpenVault vault;
    private final Clock clock;

    /** Reclaiming in this vault. */
    public Reclaim(OpenVault vault, Clock clock) {
        this.vault = vault;
        this.clock = clock;
    }

    /**
     * What was done.
     *
     * @param versions whose content went
     * @param kept that were due and are kept after all, since something protects them by now
     * @param packs that were emptied
     * @param before bytes of all packs before
     * @param after bytes of all packs afterwards
     * @param proof whether it was proved that nothing erased is left in any pack; empty when nothing was erased
     * @param damaged packs that could not be emptied, since a record of them cannot be read
     * @param cancelled whether somebody stopped it; what was done stays done, and the next run goes on
     */
    public record Done(
            int versions,
            int kept,
            int packs,
            long before,
            long after,
            java.util.Optional<PackProof.Seen> proof,
            List<String> damaged,
            boolean cancelled) {

        /** Copies. */
        public Done {
            damaged = List.copyOf(damaged);
        }

        /** Bytes that the packs take less. */
        public long freedBytes() {
            return Math.max(0, before - after);
        }
    }

    /** Whether so much was replaced by unfolded documents that giving its space back is worth the work. */
    public static boolean isWorthIt(UnfoldQueue unfolded) throws IOException {
        long replaced = unfolded.replacedBytes();
        return replaced > 0 && (replaced >= REPLACED_MOST || replaced >= WORTH * unfolded.packBytes());
    }

    /** Whether a run did not come to its end and should go on by now: a kill between forgetting and emptying, for one. */
    public static boolean isUnfinished(PendingDeletionStore store, Instant now) throws IOException {
        long from = store.note(UNFINISHED);
        return from != 0 && from <= Moment.micros(now);
    }

    /** Reclaims what is due. */
    public Done run(Progress progress) throws IOException {
        return run(false, progress);
    }

    /**
     * Ends the grace of all that waits, and reclaims it.
     *
     * @param who does it
     * @throws org.mendedleaf.core.rules.NotAllowedException when what waits in some place is not theirs to end
     */
    public Done endGrace(String who, Progress progress) throws IOException {
        try (Reading reading = vault.read()) {
            Set<Long> places = PendingDeletionStore.of(reading).placesWaiting();
            for (Place place : reading.places()) {
                if (!place.isOutside() && places.contains(place.id())) {
                    PlaceRules.of(reading, place).rights(who, place).require(Permission.ERASE);
                }
            }
        }
        return run(true, progress);
    }

    private Done run(boolean endGrace, Progress progress) throws IOException {
        int[] counts = new int[2];
        boolean erased = forget(endGrace, counts);
        List<Long> victims;
        long before;
        NeededChunks needed;
        try (WriteSession session = vault.writeToMakeRoom()) {
            needed = NeededChunks.of(session);
            List<PackUse> all = PackUse.of(session, needed::has);
            before = all.stream().mapToLong(PackUse::bytes).sum();
            victims = victims(session, all, needed, erased, endGrace ? WORTH_NOW : WORTH);
        }
        progress.begin(Words.of("job.reclaim"), victims.size(), 0);
        int emptied = 0;
        List<String> damaged = new ArrayList<>();
        boolean cancelled = false;
        for (long pack : victims) {
            if (progress.isCancelled()) {
                cancelled = true;
                break;
            }
            try {
                needed = empty(pack, needed);
                emptied++;
            } catch (VaultException.Damaged e) {
                damaged.add(e.words());
            }
            progress.advance(1, 0);
        }
        // Readers that nobody uses now would keep the files of emptied packs on the drive.
        vault.closeIdle();
        new Reserve(vault.folder()).keep();
        forgetWords();
        FeatureKeep.forget(vault);
        return end(counts, emptied, before, erased && !cancelled, damaged, cancelled);
    }

    /** What was forgotten is found no more. An index that cannot be worked in goes whole; it is made anew. */
    private void forgetWords() throws IOException {
        try {
            Indexer.forget(vault);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(Reclaim.class).info("the index is taken away", e);
            FindIndex.remove(vault.folder());
        }
    }

    private Done end(int[] counts, int emptied, long before, boolean prove, List<String> damaged, boolean cancelled)
            throws IOException {
        try (WriteSession session = vault.writeToMakeRoom()) {
            long after = PackUse.bytes(session);
            java.util.Optional<PackProof.Seen> proof = java.util.Optional.empty();
            if (prove) {
                PackProof.Seen seen = new PackProof(session.vault()).run(NeededChunks.of(session)::has);
                proof = java.util.Optional.of(seen);
                ChunkIndexCache.forget(session.vault());
                if (seen.leftIn().isEmpty()) {
                    session.note(PROVED, Moment.micros(clock.instant()));
                }
            }
            session.note(UnfoldQueue.REPLACED, cancelled ? session.note(UnfoldQueue.REPLACED) : 0);
            session.note(UNFINISHED, cancelled ? Moment.micros(clock.instant().plus(AFTER_STOPPING)) : 0);
            session.commit();
            return new Done(counts[0], counts[1], emptied, before, after, proof, damaged, cancelled);
        }
    }

    /** Makes the catalogue forget what is due. Returns whether anything erased is not proved to be gone yet. */
    private boolean forget(boolean endGrace, int[] counts) throws IOException {
        try (WriteSession session = vault.writeToMakeRoom()) {
            Instant now = TrustedTime.of(session, clock.instant());
            if (endGrace) {
                PendingDeletionStore.dueNow(session, now);
            }
            VersionTable table = VersionTable.of(session);
            Verdicts holds = Verdicts.of(
                    table,
                    HoldStore.of(session).standing(),
                    RuleSet.NONE,
                    now,
                    new Calendar(clock.getZone(), DayOfWeek.MONDAY));
            session.note(UNFINISHED, Moment.micros(now.plus(AGAIN)));
            List<PendingDeletion> due;
            do {
                due = PendingDeletionStore.of(session).due(now, COMMIT_EVERY);
                for (PendingDeletion l : due) {
                    int row = table.row(l.line(), l.number());
                    boolean needed = row < 0
                            || holds.hold(row).isPresent()
                            || table.snapshot(row) >= 0
                            || table.replaced(row) == Moment.OPEN;
                    if (needed) {
                        PendingDeletionStore.back(session, l.line(), l.number());
                        counts[1]++;
                    } else {
                        PendingDeletionStore.gone(session, l, now);
                        counts[0]++;
                    }
                }
                session.commit();
            } while (due.size() == COMMIT_EVERY);
            return PendingDeletionStore.of(session).erasedSince(Moment.instant(session.note(PROVED)));
        }
    }

    private static List<Long> victims(
            WriteSession session, List<PackUse> all, NeededChunks needed, boolean erased, double worthIt)
            throws IOException {
        Set<Long> must = new HashSet<>();
        if (erased) {
            must.addAll(new PackProof(session.vault()).run(needed::has).leftIn());
            for (long pack : Set.copyOf(must)) {
                boolean known = all.stream().anyMatch(p -> p.pack() == pack);
                if (!known && session.chunks().dropUnknown(pack)) {
                    must.remove(pack);
                }
            }
        }
        long newest = all.stream().mapToLong(PackUse::pack).max().orElse(0);
        long leftOpen = all.stream().filter(p -> isLeftOpen(p, newest)).count();
        List<PackUse> chosen = new ArrayList<>();
        for (PackUse p : all) {
            long held = p.neededBytes() + p.unusedBytes();
            boolean worth = p.unusedBytes() > 0 && p.unusedBytes() >= worthIt * held;
            if (must.contains(p.pack()) || worth || (leftOpen >= LEFT_OPEN_MOST && isLeftOpen(p, newest))) {
                chosen.add(p);
            }
        }
        // Where there is little space left, what gives most back for the least writing comes first.
        chosen.sort((a, b) -> Long.compare(a.neededBytes(), b.neededBytes()));
        if (chosen.stream().anyMatch(p -> p.pack() == newest && !p.sealed())) {
            session.chunks().sealNext();
            session.commit();
        }
        return chosen.stream().map(PackUse::pack).toList();
    }

    /** A small pack that a crash ended. */
    private static boolean isLeftOpen(PackUse pack, long newest) {
        return !pack.sealed() && pack.pack() != newest && pack.bytes() < SMALL;
    }

    private NeededChunks empty(long pack, NeededChunks before) throws IOException {
        try (WriteSession session = vault.writeToMakeRoom()) {
            NeededChunks needed = before.asOf(session);
            session.chunks().empty(pack, needed::has);
            session.commit();
            // Moving chunks changes no version.
            needed.stillHolds(session);
            return needed;
        }
    }
}
