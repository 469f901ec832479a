package org.mendedleaf.core.snapshots;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Rights;
import org.mendedleaf.core.words.Words;

/** Snapshots of one protected folder: takes, names, holds and erases them, and sees to their schedules. */
public final class Snapshots {

    private final WorkContext context;
    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final String who;

    /** @param context where; who works there stands at the snapshots and in the journal */
    public Snapshots(WorkContext context) {
        this.context = context;
        this.vault = context.vault();
        this.place = context.place();
        this.clock = context.clock();
        this.who = context.who();
    }

    /**
     * Takes a snapshot of a folder: looks, and then names the moment.
     *
     * @param path of the folder, from the place's root
     */
    public Snapshot take(String path, String label, Progress progress) throws IOException {
        try (Reading reading = vault.read()) {
            requireFolder(reading, path);
        }
        try (WriteSession session = vault.write()) {
            Snapshot taken = take(session, path, label, 0, progress);
            session.commit();
            return taken;
        }
    }

    private Snapshot take(WriteSession session, String path, String label, long schedule, Progress progress)
            throws IOException {
        boolean whole = !context.capture()
                .runWithin(session, CaptureScope.WHOLE, progress)
                .cancelled();
        if (!whole) {
            throw new java.io.InterruptedIOException(Words.of("restore.cancelled"));
        }
        Snapshot taken = SnapshotStore.put(
                session,
                new Snapshot(
                        0,
                        place.id(),
                        path,
                        Present.moment(session, place, clock.instant()),
                        label.strip(),
                        who,
                        schedule,
                        Optional.empty()));
        JournalStore.begin(
                session, new Action(0, clock.instant(), who, ActionKind.SNAPSHOT, place.id(), 0, false, List.of()));
        return taken;
    }

    private void requireFolder(Reading reading, String path) throws IOException {
        if (!path.isEmpty() && !reading.folders().isFolder(place, path)) {
            throw new IllegalArgumentException(Words.of("snapshot.noFolder", path, place.name()));
        }
    }

    /** The snapshots that stand, oldest first. */
    public List<Snapshot> standing() throws IOException {
        try (Reading reading = vault.read()) {
            return SnapshotStore.of(reading).standing(place);
        }
    }

    /** The schedules that go on. */
    public List<SnapshotSchedule> schedules() throws IOException {
        try (Reading reading = vault.read()) {
            return SnapshotStore.of(reading).schedules(place);
        }
    }

    private interface Change {
        Snapshot of(Snapshot before);
    }

    private Snapshot change(long id, Change change) throws IOException {
        try (WriteSession session = vault.write()) {
            Snapshot stored = SnapshotStore.put(session, change.of(mine(SnapshotStore.of(session), id)));
            session.commit();
            return stored;
        }
    }

    private Snapshot mine(SnapshotStore store, long id) throws IOException {
        return store.snapshot(id)
                .filter(s -> s.place() == place.id() && s.erased().isEmpty())
                .orElseThrow(() -> new IllegalArgumentException(Words.of("snapshot.none", String.valueOf(id))));
    }

    /** Gives a snapshot another label. */
    public Snapshot rename(long id, String label) throws IOException {
        require(Permission.NOTE);
        return change(id, s -> s.labelled(label.strip()));
    }

    /**
     * Holds a snapshot: no limit takes it away, nor does a person by accident. Without a reason the hold ends.
     *
     * @param until when the hold ends by itself; empty for never
     * @throws IllegalArgumentException with a message for the user, when that has passed
     */
    public Snapshot hold(long id, String reason, Optional<Instant> until) throws IOException {
        Instant now = clock.instant();
        Hold.requireToCome(until, now);
        try (WriteSession session = vault.write()) {
            boolean others = HoldStore.of(session).standing().stream()
                    .anyMatch(h -> h.kind() == Hold.Kind.SNAPSHOT
                            && h.snapshot() == id
                            && h.holds(now)
                            && !h.who().equalsIgnoreCase(who));
            // As with any hold: what somebody else holds is not everybody's to let go.
            PlaceRules.of(session, place).rights(who, place).require(others ? Permission.ERASE : Permission.NOTE);
            Snapshot held = SnapshotStore.put(
                    session, mine(SnapshotStore.of(session), id).held(reason.strip(), until));
            for (Hold h : HoldStore.of(session).standing()) {
                if (h.kind() == Hold.Kind.SNAPSHOT && h.snapshot() == id) {
                    HoldStore.put(session, h.lift(now));
                }
            }
            if (held.isHeld(now)) {
                HoldStore.put(
                        session,
                        Hold.of(place, Hold.Kind.SNAPSHOT, 0, 0, held.path(), id)
                                .because(held.hold(), who, now, until));
            }
            session.commit();
            return held;
        }
    }

    /**
     * Erases snapshots. The versions stay on their lines; the snapshots themselves come back by undoing.
     *
     * @return id of the action in the journal
     * @throws IllegalArgumentException with a message for the user, when one of them is held; then none is erased
     * @throws org.mendedleaf.core.rules.NotAllowedException when one is somebody else's, and not theirs to erase
     */
    public long erase(List<Long> ids) throws IOException {
        try (WriteSession session = vault.write()) {
            long action = erase(session, erasable(SnapshotStore.of(session), PlaceRules.of(session, place), ids));
            session.commit();
            return action;
        }
    }

    /** Says what {@link #erase(List)} would refuse, and erases nothing. */
    public void requireErasable(List<Long> ids) throws IOException {
        try (Reading reading = vault.read()) {
            erasable(SnapshotStore.of(reading), PlaceRules.of(reading, place), ids);
        }
    }

    private List<Snapshot> erasable(SnapshotStore store, PlaceRules rules, List<Long> ids) throws IOException {
        Rights rights = rules.rights(who, place);
        List<Snapshot> all = new ArrayList<>();
        for (long id : ids) {
            Snapshot s = mine(store, id);
            rights.require(s.who().equalsIgnoreCase(who) ? Permission.NOTE : Permission.ERASE);
            if (s.isHeld(clock.instant())) {
                throw new IllegalArgumentException(Words.of("snapshot.held", name(s), s.hold()));
            }
            all.add(s);
        }
        return all;
    }

    private void require(Permission deed) throws IOException {
        try (Reading reading = vault.read()) {
            PlaceRules.of(reading, place).rights(who, place).require(deed);
        }
    }

    private String name(Snapshot s) {
        return s.label().isEmpty() ? org.mendedleaf.core.words.Formats.full(s.at(), clock.getZone()) : s.label();
    }

    private long erase(WriteSession session, List<Snapshot> all) throws IOException {
        Instant now = clock.instant();
        long action = JournalStore.begin(
                session, new Action(0, now, who, ActionKind.SNAPSHOT_ERASED, place.id(), 0, false, List.of()));
        long folder = new LineWriter(session).folder(place, "");
        int seq = 0;
        for (Snapshot s : all) {
            SnapshotStore.put(session, s.erased(Optional.of(now)));
            JournalStore.add(session, action, seq++, folder, new Action.Item(s.id(), "", name(s), 1, 0));
        }
        return action;
    }

    /** Brings back what an action erased; returns what they are called. */
    public List<String> bringBack(Action action) throws IOException {
        return erased(action, Optional.empty(), ActionKind.UNDONE, action.id());
    }

    /**
     * Erases again what was brought back; returns what they are called.
     *
     * @param undo by which they were
     */
    public List<String> eraseAgain(Action action, Action undo) throws IOException {
        return erased(action, Optional.of(clock.instant()), ActionKind.REDONE, undo.id());
    }

    private List<String> erased(Action action, Optional<Instant> when, ActionKind kind, long undoes)
            throws IOException {
        try (WriteSession session = vault.write()) {
            List<String> names = new ArrayList<>();
            long id = JournalStore.begin(
                    session, new Action(0, clock.instant(), who, kind, place.id(), undoes, false, List.of()));
            long folder = new LineWriter(session).folder(place, "");
            for (Action.Item item : action.items()) {
                Optional<Snapshot> s = SnapshotStore.of(session)
                        .snapshot(item.line())
                        .filter(found -> when.isEmpty() || found.hold().isEmpty());
                if (s.isPresent()) {
                    SnapshotStore.put(session, s.get().erased(when));
                    JournalStore.add(session, id, names.size(), folder, item);
                    names.add(name(s.get()));
                }
            }
            session.commit();
            return names;
        }
    }

    /**
     * Stores a schedule, new or changed. A new one counts from now on.
     *
     * @throws IllegalArgumentException with a message for the user, when its rule or its folder is none
     * @throws org.mendedleaf.core.rules.NotAllowedException when what is taken by itself is not theirs to change
     */
    public SnapshotSchedule schedule(SnapshotSchedule schedule) throws IOException {
        Recurrence.of(schedule);
        require(Permission.SETTINGS);
        try (Reading reading = vault.read()) {
            requireFolder(reading, schedule.path());
        }
        try (WriteSession session = vault.write()) {
            SnapshotSchedule stored =
                    SnapshotStore.put(session, schedule.id() == 0 ? schedule.handled(clock.instant()) : schedule);
            session.commit();
            return stored;
        }
    }

    /** Ends a schedule; its snapshots stay. */
    public void end(long id) throws IOException {
        require(Permission.SETTINGS);
        try (WriteSession session = vault.write()) {
            SnapshotSchedule s = SnapshotStore.of(session)
                    .schedule(id)
                    .filter(e -> e.place() == place.id() && !e.ended())
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("schedule.none", String.valueOf(id))));
            SnapshotStore.put(session, s.end());
            session.commit();
        }
    }

    /**
     * Sees to all schedules of which a time has come.
     *
     * @return the snapshots that were taken
     */
    public List<Snapshot> seeToSchedules(Progress progress) throws IOException {
        List<Snapshot> taken = new ArrayList<>();
        for (SnapshotSchedule s : schedules()) {
            if (Due.of(s, clock.instant()).isPresent()) {
                try (WriteSession session = vault.write()) {
                    seeTo(session, s.id(), progress).ifPresent(taken::add);
                    session.commit();
                }
            }
        }
        return taken;
    }

    /** Another program may have seen to it while we waited for our turn to write. */
    private Optional<Snapshot> seeTo(WriteSession session, long schedule, Progress progress) throws IOException {
        SnapshotSchedule s = SnapshotStore.of(session).schedule(schedule).orElseThrow();
        Optional<Due> due = Due.of(s, clock.instant());
        if (due.isEmpty()) {
            return Optional.empty();
        }
        Optional<Snapshot> taken =
                due.get().take() ? Optional.of(take(session, s.path(), s.label(), s.id(), progress)) : Optional.empty();
        SnapshotStore.put(session, s.handled(due.get().at()));
        thin(session, s);
        return taken;
    }

    /** Erases the oldest of a schedule's snapshots, those that are held apart, until no more than its number is left. */
    private void thin(WriteSession session, SnapshotSchedule schedule) throws IOException {
        if (schedule.keep() == 0) {
            return;
        }
        List<Snapshot> own = SnapshotStore.of(session).standing(place).stream()
                .filter(s -> s.schedule() == schedule.id() && !s.isHeld(clock.instant()))
                .sorted(Comparator.comparing(Snapshot::at))
                .toList();
        int over = own.size() - schedule.keep();
        if (over > 0) {
            erase(session, own.subList(0, over));
        }
    }
}
