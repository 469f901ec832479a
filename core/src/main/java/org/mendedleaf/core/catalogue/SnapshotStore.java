package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.time.Moment;

/** Snapshots and their schedules in the catalogue. */
public final class SnapshotStore {

    private static final String SNAPSHOT = "SELECT id, place, path, at, label, who, schedule, hold, erased,"
            + " (SELECT max(until) FROM hold WHERE kind = 'SNAPSHOT' AND snapshot = snapshot.id AND lifted = 0)"
            + " FROM snapshot";
    private static final String SCHEDULE =
            "SELECT id, place, path, label, rule, start, zone, keep, missed, handled, ended FROM schedule";

    private final Sql sql;

    SnapshotStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees them. */
    public static SnapshotStore of(Reading reading) {
        return new SnapshotStore(reading.sql());
    }

    /** As a session sees them. */
    public static SnapshotStore of(WriteSession session) {
        return new SnapshotStore(session.sql());
    }

    private static Snapshot snapshot(java.sql.ResultSet r) throws java.sql.SQLException {
        long erased = r.getLong(9);
        long ends = r.getLong(10);
        return new Snapshot(
                r.getLong(1),
                r.getLong(2),
                r.getString(3),
                Moment.instant(r.getLong(4)),
                r.getString(5),
                r.getString(6),
                r.getLong(7),
                r.getString(8),
                ends == 0 ? Optional.empty() : Optional.of(Moment.instant(ends)),
                erased == 0 ? Optional.empty() : Optional.of(Moment.instant(erased)));
    }

    /** The snapshots of a place that stand, oldest first. */
    public List<Snapshot> standing(Place place) throws IOException {
        return sql.list(
                SNAPSHOT + " WHERE place = ? AND erased = 0 ORDER BY at, id", SnapshotStore::snapshot, place.id());
    }

    /** The snapshots by which a moment of a place can be named: ours, and in another system those that it holds. */
    public List<Snapshot> all(Place place) throws IOException {
        return place.isOutside()
                ? new HolderQuery(sql)
                        .cuts(place.id()).stream()
                                .filter(c -> !c.isLive())
                                .map(c -> new Snapshot(0, place.id(), "", c.at(), c.label(), "", 0, Optional.empty()))
                                .toList()
                : standing(place);
    }

    /** A snapshot, standing or erased. */
    public Optional<Snapshot> snapshot(long id) throws IOException {
        return sql.first(SNAPSHOT + " WHERE id = ?", SnapshotStore::snapshot, id);
    }

    /** When the newest snapshot of a place was taken, whether it stands or not. */
    public Optional<Instant> newest(Place place) throws IOException {
        long at = sql.number("SELECT max(at) FROM snapshot WHERE place = ?", place.id());
        return at == 0 ? Optional.empty() : Optional.of(Moment.instant(at));
    }

    /** Stores a snapshot; one with the id 0 is new. Returns it with its id. */
    public static Snapshot put(WriteSession session, Snapshot s) throws IOException {
        long id = s.id() == 0 ? session.nextId(WriteSession.Table.SNAPSHOT) : s.id();
        session.apply(
                Op.SNAPSHOT,
                id,
                s.place(),
                s.path(),
                Moment.micros(s.at()),
                s.label(),
                s.who(),
                s.schedule(),
                s.hold(),
                s.erased().map(Moment::micros).orElse(0L));
        return new Snapshot(
                id, s.place(), s.path(), s.at(), s.label(), s.who(), s.schedule(), s.hold(), s.holdEnds(), s.erased());
    }

    private static SnapshotSchedule schedule(java.sql.ResultSet r) throws java.sql.SQLException {
        return new SnapshotSchedule(
                r.getLong(1),
                r.getLong(2),
                r.getString(3),
                r.getString(4),
                r.getString(5),
                LocalDateTime.parse(r.getString(6)),
                ZoneId.of(r.getString(7)),
                r.getInt(8),
                SnapshotSchedule.Missed.valueOf(r.getString(9)),
                Moment.instant(r.getLong(10)),
                r.getLong(11) != 0);
    }

    /** The schedules of a place that go on, in the order in which they were made. */
    public List<SnapshotSchedule> schedules(Place place) throws IOException {
        return sql.list(SCHEDULE + " WHERE place = ? AND ended = 0 ORDER BY id", SnapshotStore::schedule, place.id());
    }

    /** A schedule, ended or not. */
    public Optional<SnapshotSchedule> schedule(long id) throws IOException {
        return sql.first(SCHEDULE + " WHERE id = ?", SnapshotStore::schedule, id);
    }

    /** Stores a schedule; one with the id 0 is new. Returns it with its id. */
    public static SnapshotSchedule put(WriteSession session, SnapshotSchedule s) throws IOException {
        long id = s.id() == 0 ? session.nextId(WriteSession.Table.SCHEDULE) : s.id();
        session.apply(
                Op.SCHEDULE,
                id,
                s.place(),
                s.path(),
                s.label(),
                s.rule(),
                s.start().toString(),
                s.zone().getId(),
                s.keep(),
                s.missed().name(),
                Moment.micros(s.handled()),
                s.ended() ? 1 : 0);
        return new SnapshotSchedule(
                id,
                s.place(),
                s.path(),
                s.label(),
                s.rule(),
                s.start(),
                s.zone(),
                s.keep(),
                s.missed(),
                s.handled(),
                s.ended());
    }
}
