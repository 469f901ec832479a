package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.time.MomentText;

/**
 * A cut across all lines of a folder at one moment. Nothing is copied for it: it names the moment, and what was there
 * then is what it holds.
 *
 * @param id in its vault
 * @param place id of the place
 * @param path of the folder, from the place's root
 * @param at the moment
 * @param label what people call it; empty when nobody named it
 * @param who took it
 * @param schedule id of the schedule that asked for it; 0 for one taken by hand
 * @param hold why nothing may take it away; empty when it is not held
 * @param holdEnds when that ends by itself; empty for never
 * @param erased when somebody erased it; empty while it stands
 */
public record Snapshot(
        long id,
        long place,
        String path,
        Instant at,
        String label,
        String who,
        long schedule,
        String hold,
        Optional<Instant> holdEnds,
        Optional<Instant> erased) {

    /** One that nobody holds. */
    public Snapshot(
            long id,
            long place,
            String path,
            Instant at,
            String label,
            String who,
            long schedule,
            Optional<Instant> erased) {
        this(id, place, path, at, label, who, schedule, "", Optional.empty(), erased);
    }

    /** Whether nothing may take it away at this moment. */
    public boolean isHeld(Instant now) {
        return !hold.isEmpty() && holdEnds.map(now::isBefore).orElse(true);
    }

    /** What a typed moment can mean by it. */
    public MomentText.Named named() {
        return new MomentText.Named(id, label, at);
    }

    /** The same under another label. */
    public Snapshot labelled(String newLabel) {
        return new Snapshot(id, place, path, at, newLabel, who, schedule, hold, holdEnds, erased);
    }

    /** The same, held for a reason until it ends; with no reason, not held. */
    public Snapshot held(String reason, Optional<Instant> ends) {
        return new Snapshot(id, place, path, at, label, who, schedule, reason, ends, erased);
    }

    /** The same, erased or standing again. */
    public Snapshot erased(Optional<Instant> when) {
        return new Snapshot(id, place, path, at, label, who, schedule, hold, holdEnds, when);
    }
}
