package org.mendedleaf.core.retention;

import java.io.IOException;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.UnfoldQueue;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Carries standing rules out by itself: once a day what they no longer keep is let go, caps are kept, and space is given back
 * whose grace has ended. When the drive has little space left, the oldest expendable points go at once.
 */
public final class StandingRules {

    /** With less free space than this on the drive, space is needed. Two packs and something for the catalogue. */
    public static final long LEAST_FREE = 300L << 20;

    private static final Duration EVERY = Duration.ofDays(1);

    /** While the drive stays nearly full, it is tried again so often. */
    private static final Duration AGAIN = Duration.ofMinutes(10);

    private static final String RUN = "standing-run";

    private final OpenVault vault;
    private final Clock clock;
    private final String who;
    private final Calendar calendar;
    private final FreeSpace free;

    /** Says how much space is left on the vault's drive. */
    @FunctionalInterface
    public interface FreeSpace {
        /** In bytes. */
        long bytes() throws IOException;
    }

    /** Standing rules of this vault, in this person's name. */
    public StandingRules(OpenVault vault, Clock clock, String who, Calendar calendar) {
        this(
                vault,
                clock,
                who,
                calendar,
                () -> Files.getFileStore(vault.folder().root()).getUsableSpace());
    }

    StandingRules(OpenVault vault, Clock clock, String who, Calendar calendar, FreeSpace free) {
        this.vault = vault;
        this.clock = clock;
        this.who = who;
        this.calendar = calendar;
        this.free = free;
    }

    /**
     * What was done.
     *
     * @param letGo versions that rules no longer keep; empty when nothing was to be done
     * @param forSpace versions that went since space was needed
     * @param missingBytes that the drive still lacks when all that may go has gone
     * @param unmet limits of space that are not kept although all that may go has gone
     * @param reclaimed what was given back; empty when nothing was due
     */
    public record Done(
            Optional<Thinning.Done> letGo,
            int forSpace,
            long missingBytes,
            List<Pressure.Cap> unmet,
            Optional<Reclaim.Done> reclaimed) {

        /** Copies. */
        public Done {
            unmet = List.copyOf(unmet);
        }

        /** What was done and what could not be kept, a message each. */
        public List<String> words() {
            List<String> said = new ArrayList<>();
            letGo.ifPresent(d -> said.add(Words.of("cli.watch.letGo", d.versions())));
            reclaimed.ifPresent(r -> said.add(Words.of("cli.watch.reclaimed", Formats.size(r.freedBytes()))));
            said.addAll(trouble());
            return said;
        }

        /** What could not be kept, as a message; empty when all was. */
        public List<String> trouble() {
            List<String> said = new ArrayList<>();
            unmet.forEach(cap -> said.add(cap.unmetWords()));
            if (missingBytes > 0) {
                said.add(Words.of("thin.warn.missing", Formats.size(missingBytes)));
            }
            return said;
        }
    }

    /**
     * Verdicts with what goes in addition where rules are carried out by themselves and the drive has too little space.
     *
     * @param freeBytes on the vault's drive
     */
    public static Verdicts outlook(Verdicts verdicts, SpaceTable space, long freeBytes) {
        return verdicts.rules().standing() ? verdicts.pressed(space, LEAST_FREE - freeBytes) : verdicts;
    }

    /** Whether it is time. Asks a little only. */
    public boolean isDue() throws IOException {
        try (Reading reading = vault.read()) {
            Instant now = TrustedTime.of(reading, clock.instant());
            boolean standing = RuleSets.of(reading).standing();
            PendingDeletionStore store = PendingDeletionStore.of(reading);
            boolean grace = isToReclaim(store, UnfoldQueue.of(reading), now);
            Instant last = Moment.instant(store.note(RUN));
            boolean space = standing && !last.plus(AGAIN).isAfter(now) && free.bytes() < LEAST_FREE;
            return space || grace || (standing && !last.plus(EVERY).isAfter(now));
        }
    }

    private static boolean isToReclaim(PendingDeletionStore store, UnfoldQueue unfolded, Instant now)
            throws IOException {
        return store.isAnyDue(now) || Reclaim.isUnfinished(store, now) || Reclaim.isWorthIt(unfolded);
    }

    /** Does what is due. */
    public Done run(Progress progress) throws IOException {
        Instant now;
        try (WriteSession session = vault.writeToMakeRoom()) {
            now = TrustedTime.of(session, clock.instant());
            session.commit();
        }
        RuleSet rules;
        VersionTable table;
        Verdicts verdicts;
        try (Reading reading = vault.read()) {
            rules = RuleSets.of(reading);
            table = VersionTable.of(reading);
            verdicts = Verdicts.of(table, HoldStore.of(reading).standing(), rules, now, calendar);
        }
        Optional<Thinning.Done> letGo = Optional.empty();
        int forSpace = 0;
        long missing = 0;
        List<Pressure.Cap> unmet = List.of();
        List<Long> atOnce = new ArrayList<>();
        if (rules.standing()) {
            SpaceTable space = new SpaceTable(table);
            Verdicts pressed = outlook(verdicts, space, free.bytes());
            ThinPlan whole = ThinPlan.of(pressed, space, ThinPlan.Limits.RULES);
            BitSet full = pressed.pressedRows();
            forSpace = (int) whole.going().stream()
                    .filter(row -> pressed.reason(row) == Reason.CAP || pressed.reason(row) == Reason.ROOM)
                    .count();
            missing = pressed.missingBytes();
            unmet = pressed.unmet();
            Thinning letting = new Thinning(vault, clock, who);
            // What the drive needs now goes by an action of its own: only that has no grace.
            ThinPlan urgent = whole.only(full::get, space);
            if (urgent.versions() > 0) {
                letGo = Optional.of(letting.thinByItself(urgent, progress));
                atOnce.addAll(letGo.get().actions());
            }
            ThinPlan later = whole.only(row -> !full.get(row), space);
            if (later.versions() > 0) {
                Thinning.Done done = letting.thinByItself(later, progress);
                letGo = Optional.of(letGo.map(d -> d.and(done)).orElse(done));
            }
        }
        boolean due;
        try (WriteSession session = vault.writeToMakeRoom()) {
            session.note(RUN, Moment.micros(now));
            for (long action : atOnce) {
                PendingDeletionStore.dueNow(session, action, now);
            }
            session.commit();
            PendingDeletionStore store = PendingDeletionStore.of(session);
            due = isToReclaim(store, UnfoldQueue.of(session), now);
        }
        Optional<Reclaim.Done> reclaimed =
                due ? Optional.of(new Reclaim(vault, clock).run(progress)) : Optional.empty();
        return new Done(letGo, forSpace, missing, unmet, reclaimed);
    }
}
