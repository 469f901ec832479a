package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/**
 * Lets versions go: notes them in the journal with the reason and the day on which they are due. Until then their content
 * stays where it is, and one undo keeps them after all; afterwards {@link Reclaim} gives the space back.
 */
public final class Thinning {

    private static final int COMMIT_EVERY = 20_000;

    private final OpenVault vault;
    private final Clock clock;
    private final String who;

    /** Letting go in this vault, by this person. */
    public Thinning(OpenVault vault, Clock clock, String who) {
        this.vault = vault;
        this.clock = clock;
        this.who = who;
    }

    /**
     * What became of it.
     *
     * @param actions in the journal, one for each place; none when nothing went
     * @param versions that were let go
     * @param kept that the plan would have let go and that something protects by now
     * @param due from when on their space is given back
     */
    public record Done(List<Long> actions, int versions, int kept, Instant due) {

        /** Copies. */
        public Done {
            actions = List.copyOf(actions);
        }

        /** Both together; due when the later one is. */
        Done and(Done other) {
            List<Long> all = new ArrayList<>(actions);
            all.addAll(other.actions);
            return new Done(
                    all, versions + other.versions, kept + other.kept, due.isAfter(other.due) ? due : other.due);
        }
    }

    /**
     * Carries a plan out. What was held, or became the newest of its file, since the plan was made stays.
     *
     * @throws org.mendedleaf.core.rules.NotAllowedException when this person may not erase in one of the places
     */
    public Done thin(ThinPlan plan, Progress progress) throws IOException {
        return run(plan.verdicts().table(), plan.going(), plan, true, progress);
    }

    /** The same for rules that are carried out by themselves: who set them was allowed to. */
    Done thinByItself(ThinPlan plan, Progress progress) throws IOException {
        return run(plan.verdicts().table(), plan.going(), plan, false, progress);
    }

    /**
     * Lets versions of removed files go because somebody said so; what is held stays.
     *
     * @param rows of versions; none of them may be what a file holds now
     */
    public Done erase(VersionTable table, BitSet rows, Progress progress) throws IOException {
        return run(table, rows, null, true, progress);
    }

    /** Lets some versions of one line go because somebody said so. */
    Done erase(WriteSession session, VersionTable table, BitSet rows, long action) throws IOException {
        Instant now = TrustedTime.of(session, clock.instant());
        Instant due = due(RuleSets.of(session), now);
        int n = 0;
        for (int row = rows.nextSetBit(0); row >= 0; row = rows.nextSetBit(row + 1)) {
            long line = table.lineId(table.lineOf(row));
            PendingDeletionStore.put(
                    session,
                    new PendingDeletion(
                            line, table.number(row), action, now, due, who, "ERASED", "", Optional.empty()));
            n++;
        }
        return new Done(List.of(action), n, 0, due);
    }

    private Instant due(RuleSet rules, Instant now) {
        return Moment.instant(rules.grace().after(Moment.micros(now), clock.getZone()));
    }

    private Done run(VersionTable table, BitSet going, @Nullable ThinPlan plan, boolean asks, Progress progress)
            throws IOException {
        progress.begin(Words.of("job.thin"), going.cardinality(), 0);
        try (WriteSession session = vault.writeToMakeRoom()) {
            Instant now = TrustedTime.of(session, clock.instant());
            Instant due = due(RuleSets.of(session), now);
            // What changed since the plan was made is looked at again.
            VersionTable fresh = table.isAsOf(session) ? table : VersionTable.ofProtection(session);
            Verdicts check = Verdicts.of(
                    fresh,
                    HoldStore.of(session).standing(),
                    RuleSet.NONE,
                    now,
                    new Calendar(clock.getZone(), java.time.DayOfWeek.MONDAY));
            BitSet mayGo = new BitSet(table.size());
            for (int row = going.nextSetBit(0); row >= 0; row = going.nextSetBit(row + 1)) {
                int line = table.lineOf(row);
                int there = fresh.row(table.lineId(line), table.number(row));
                boolean may = there >= 0
                        && switch (check.reason(there)) {
                            case HELD, SNAPSHOT, NEWEST, NOT_HERE, WAITING -> false;
                            default -> true;
                        };
                mayGo.set(row, may);
            }
            int kept = going.cardinality() - mayGo.cardinality();
            Map<Long, int[]> byPlace = byPlace(table, mayGo);
            for (Place place : table.places()) {
                if (asks && byPlace.containsKey(place.id()) && !place.isOutside()) {
                    PlaceRules.of(session, place).rights(who, place).require(Permission.ERASE);
                }
            }
            List<Long> actions = new ArrayList<>();
            int done = 0;
            for (Map.Entry<Long, int[]> e : byPlace.entrySet()) {
                long action = JournalStore.begin(
                        session, new Action(0, now, who, ActionKind.THINNED, e.getKey(), 0, false, List.of()));
                actions.add(action);
                done += note(session, table, plan, e.getValue(), action, now, due, progress);
            }
            session.commit();
            return new Done(actions, done, kept, due);
        }
    }

    /** Rows of one place, in less memory than a list. */
    private static final class Rows {
        private int[] rows = new int[64];
        private int size;

        void add(int row) {
            rows = size == rows.length ? Arrays.copyOf(rows, size * 2) : rows;
            rows[size++] = row;
        }
    }

    /** Rows by the ids of their places, ascending; they may be many millions. */
    private static Map<Long, int[]> byPlace(VersionTable table, BitSet rows) {
        TreeMap<Long, Rows> found = new TreeMap<>();
        rows.stream()
                .forEach(row -> found.computeIfAbsent(table.place(table.lineOf(row)), p -> new Rows())
                        .add(row));
        TreeMap<Long, int[]> all = new TreeMap<>();
        found.forEach((place, of) -> all.put(place, Arrays.copyOf(of.rows, of.size)));
        return all;
    }

    private int note(
            WriteSession session,
            VersionTable table,
            @Nullable ThinPlan plan,
            int[] rows,
            long action,
            Instant now,
            Instant due,
            Progress progress)
            throws IOException {
        int seq = 0;
        int lastLine = -1;
        int n = 0;
        for (int row : rows) {
            int line = table.lineOf(row);
            if (line != lastLine) {
                lastLine = line;
                JournalStore.add(
                        session,
                        action,
                        seq++,
                        table.folder(line).id(),
                        new Action.Item(table.lineId(line), "", table.name(line), 0, 0));
            }
            // What somebody asked for is no rule's doing.
            int rule = plan == null || plan.reason(row) == Reason.ASKED
                    ? -1
                    : plan.verdicts().rule(row);
            String name = plan == null || rule < 0
                    ? ""
                    : plan.verdicts().rules().rules().get(rule).name();
            PendingDeletionStore.put(
                    session,
                    new PendingDeletion(
                            table.lineId(line),
                            table.number(row),
                            action,
                            now,
                            due,
                            who,
                            plan == null ? "ERASED" : plan.reason(row).name(),
                            name,
                            Optional.empty()));
            progress.advance(1, 0);
            if (++n % COMMIT_EVERY == 0) {
                session.commit();
            }
        }
        return n;
    }
}
