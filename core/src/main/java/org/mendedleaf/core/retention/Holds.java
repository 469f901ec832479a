package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.words.Words;

/** Holding and lifting; a snapshot is held by {@code Snapshots.hold}. */
public final class Holds {

    private final OpenVault vault;
    private final Clock clock;
    private final String who;

    /** Holds in this vault, by this person. */
    public Holds(OpenVault vault, Clock clock, String who) {
        this.vault = vault;
        this.clock = clock;
        this.who = who;
    }

    /** All that nobody lifted and that have not ended, oldest first. */
    public List<Hold> standing() throws IOException {
        Instant now = clock.instant();
        try (Reading reading = vault.read()) {
            return HoldStore.of(reading).standing().stream()
                    .filter(h -> h.holds(now))
                    .toList();
        }
    }

    /** Holds a version of a file. */
    public Hold version(Place place, long line, int number, String path, String reason, Optional<Instant> until)
            throws IOException {
        return put(place, Hold.of(place, Hold.Kind.VERSION, line, number, path, 0), reason, until);
    }

    /** Holds all versions of a file. */
    public Hold line(Place place, long line, String path, String reason, Optional<Instant> until) throws IOException {
        return put(place, Hold.of(place, Hold.Kind.LINE, line, 0, path, 0), reason, until);
    }

    /** Holds all files of a folder and below it. */
    public Hold folder(Place place, String path, String reason, Optional<Instant> until) throws IOException {
        return put(place, Hold.of(place, Hold.Kind.FOLDER, 0, 0, path, 0), reason, until);
    }

    /**
     * Holds a version, a file or a folder.
     *
     * @param what that nobody has put yet
     * @param until when it ends by itself; empty for never
     * @throws IllegalArgumentException with a message for the user, without a reason, or when the end has passed
     */
    public Hold put(Place place, Hold what, String reason, Optional<Instant> until) throws IOException {
        if (reason.isBlank()) {
            throw new IllegalArgumentException(Words.of("hold.noReason"));
        }
        Instant now = clock.instant();
        Hold.requireToCome(until, now);
        try (WriteSession session = vault.write()) {
            allowed(session, place);
            Hold hold = HoldStore.put(session, what.because(reason, who, now, until));
            session.commit();
            return hold;
        }
    }

    private void allowed(WriteSession session, Place place) throws IOException {
        if (!place.isOutside()) {
            PlaceRules.of(session, place).rights(who, place).require(Permission.NOTE);
        }
    }

    /** A held snapshot says so itself; that ends with its hold. */
    private static void unmark(WriteSession session, Hold hold) throws IOException {
        if (hold.kind() == Hold.Kind.SNAPSHOT) {
            Optional<Snapshot> s = SnapshotStore.of(session).snapshot(hold.snapshot());
            if (s.isPresent()) {
                SnapshotStore.put(session, s.get().held("", Optional.empty()));
            }
        }
    }

    /**
     * Lifts a hold. Nothing goes by that: what it held is judged by the rules from now on.
     *
     * @throws IllegalArgumentException when there is no such hold, or it was lifted before
     */
    public Hold lift(long id) throws IOException {
        try (WriteSession session = vault.write()) {
            Hold hold = HoldStore.of(session)
                    .get(id)
                    .filter(h -> h.lifted().isEmpty())
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("hold.none", String.valueOf(id))));
            for (Place place : session.places()) {
                if (place.id() == hold.place()
                        && !place.isOutside()
                        && !hold.who().equalsIgnoreCase(who)) {
                    PlaceRules.of(session, place).rights(who, place).require(Permission.ERASE);
                }
            }
            Hold lifted = HoldStore.put(session, hold.lift(clock.instant()));
            unmark(session, lifted);
            session.commit();
            return lifted;
        }
    }
}
