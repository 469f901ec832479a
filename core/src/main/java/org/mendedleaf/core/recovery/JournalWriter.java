package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import org.mendedleaf.core.catalogue.JournalEnds;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Place;

/**
 * Writes an action into the journal: what is about to be changed before it is, so that it can be undone whatever happens
 * in between, and how it came out afterwards.
 */
final class JournalWriter {

    private final WriteSession session;
    private final Place place;
    private final Clock clock;
    private final String who;
    private final ActionKind kind;
    private final boolean items;
    private final long began = System.nanoTime();
    private long action;
    private int seq;

    /** @param items whether what is changed stands in the journal too; what undoes something needs no items */
    JournalWriter(WriteSession session, Place place, Clock clock, String who, ActionKind kind, boolean items) {
        this.session = session;
        this.place = place;
        this.clock = clock;
        this.who = who;
        this.kind = kind;
        this.items = items;
    }

    /** The place that is changed. */
    Place place() {
        return place;
    }

    /** Id of the action; 0 while nothing was changed. */
    long action() {
        return action;
    }

    private void begin() throws IOException {
        if (action == 0) {
            action = JournalStore.begin(
                    session, new Action(0, clock.instant(), who, kind, place.id(), 0, false, List.of()));
            JournalStore.goesOn(session, action);
        }
    }

    /**
     * The action has come to its end, with so many files that did not come about.
     *
     * @throws IOException when that cannot be written down
     */
    void end(int failed) throws IOException {
        if (action != 0) {
            Duration took = Duration.ofNanos(System.nanoTime() - began);
            JournalStore.end(session, action, new JournalEnds.End(took, failed));
            session.commit();
        }
    }

    /** The action is through, and undoes another. One that is cut short before that undoes nothing. */
    void undoes(long other) throws IOException {
        begin();
        JournalStore.undoes(session, action, other);
    }

    /** Notes all that another action changed as changed by this one too. */
    void copy(List<Action.Item> all, LineWriter lines) throws IOException {
        begin();
        for (Action.Item i : all) {
            JournalStore.add(session, action, seq++, lines.folder(place, i.folder()), i);
        }
    }

    /**
     * Something that is about to be changed.
     *
     * @param folder id of the folder
     * @param line of the file; 0 when it is not known yet, or for a folder
     * @param before number of the version that is there; 0 when nothing is
     */
    record Intent(long folder, String name, long line, int before) {}

    /** Notes what is about to be changed; returns the number of the first of these items. */
    int intend(List<Intent> intents) throws IOException {
        int first = seq;
        if (!items) {
            return first;
        }
        begin();
        for (Intent i : intents) {
            JournalStore.add(
                    session, action, seq++, i.folder(), new Action.Item(i.line(), "", i.name(), i.before(), 0));
        }
        return first;
    }

    /** An item came about. */
    void done(int item, long line, int after) throws IOException {
        if (items) {
            JournalStore.done(session, action, item, line, after);
        }
    }

    /** An item did not come about. */
    void didNot(int item) throws IOException {
        if (items) {
            JournalStore.didNot(session, action, item);
        }
    }

    /** Another version than was foreseen was there before. */
    void was(int item, int before) throws IOException {
        if (items) {
            JournalStore.was(session, action, item, before);
        }
    }
}
