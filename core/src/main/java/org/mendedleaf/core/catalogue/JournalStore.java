package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.time.Moment;

/** Actions in the catalogue. */
public final class JournalStore {

    private final Sql sql;
    private final PathIds names;

    private JournalStore(Sql sql) {
        this.sql = sql;
        this.names = new PathIds(sql);
    }

    /** Actions as a reader sees them. */
    public static JournalStore of(Reading reading) {
        return new JournalStore(reading.sql());
    }

    /** Actions as a session sees them. */
    public static JournalStore of(WriteSession session) {
        return new JournalStore(session.sql());
    }

    /** Notes an action without items yet; returns its id. */
    public static long begin(WriteSession session, Action action) throws IOException {
        long id = session.nextId(WriteSession.Table.JOURNAL);
        session.apply(
                Op.JOURNAL,
                id,
                Moment.micros(action.at()),
                action.who(),
                action.kind().code(),
                action.place(),
                action.undoes());
        JournalChain.link(
                session,
                id,
                Moment.micros(action.at()),
                action.who(),
                action.kind().code(),
                action.place());
        return id;
    }

    /** An action goes on over several commits, until {@link #end}; one that has none was cut short. */
    public static void goesOn(WriteSession session, long action) {
        session.ends().hold(action);
    }

    /** An action has come to its end: it stands so with the next commit. */
    public static void end(WriteSession session, long action, JournalEnds.End end) {
        session.ends().end(action, end);
    }

    /** Adds an item to an action. */
    public static void add(WriteSession session, long action, int seq, long folder, Action.Item item)
            throws IOException {
        session.apply(Op.JOURNAL_ITEM, action, seq, item.line(), folder, item.name(), item.before(), item.after());
    }

    /** What an item intended is done: on this line, with this number. */
    public static void done(WriteSession session, long action, int seq, long line, int after) throws IOException {
        session.apply(Op.JOURNAL_ITEM_DONE, line, after, action, seq);
    }

    /** Another version than was foreseen was there before an item. */
    public static void was(WriteSession session, long action, int seq, int before) throws IOException {
        session.apply(Op.JOURNAL_ITEM_BEFORE, before, action, seq);
    }

    /** What an item intended did not come about. */
    public static void didNot(WriteSession session, long action, int seq) throws IOException {
        session.apply(Op.JOURNAL_ITEM_VOID, action, seq);
    }

    /** What an action undid or did again stands with it from now on: it is through. */
    public static void undoes(WriteSession session, long action, long undone) throws IOException {
        session.apply(Op.JOURNAL_UNDOES, undone, action);
    }

    /** An action was part of another one, which is undone as a whole. */
    public static void isPart(WriteSession session, long action) throws IOException {
        session.apply(Op.JOURNAL_ITEMS_VOID, action);
    }

    /** Actions that do not count since they were undone, and undoings that were taken back. */
    private Set<Long> undone() throws IOException {
        record Undo(long id, long undoes) {}
        Set<Long> undone = new HashSet<>();
        // What undoes something is younger than that.
        for (Undo u : sql.list(
                "SELECT id, undoes FROM journal WHERE undoes <> 0 ORDER BY id DESC",
                r -> new Undo(r.getLong(1), r.getLong(2)))) {
            if (!undone.contains(u.id())) {
                undone.add(u.undoes());
            }
        }
        return undone;
    }

    /** The actions that can be undone and were not, newest first. */
    public List<Action> undoable(int most) throws IOException {
        return newest(
                "kind NOT IN (3, 19)"
                        // What was only let go can be undone while something of it waits.
                        + " AND (kind <> 17 OR EXISTS (SELECT 1 FROM let_go g WHERE g.journal = j.id AND g.gone = 0))",
                0,
                most);
    }

    /** The last action that can be undone and was not. */
    public Optional<Action> lastUndoable() throws IOException {
        return undoable(1).stream().findFirst();
    }

    /** The undoings that can be taken back and were not, newest first. */
    public List<Action> redoable(int most) throws IOException {
        return newest("kind = 3 AND undoes <> 0", 0, most);
    }

    /** The undoing that can be taken back; empty when something else was done since. */
    public Optional<Action> lastRedoable() throws IOException {
        Optional<Action> undo = redoable(1).stream().findFirst();
        return undo.isEmpty()
                        || !newest("kind NOT IN (3, 19)", undo.get().id(), 1).isEmpty()
                ? Optional.empty()
                : undo;
    }

    private List<Action> newest(String which, long after, int most) throws IOException {
        Set<Long> undone = undone();
        List<Action> found = new ArrayList<>();
        for (long id : sql.list(
                "SELECT id FROM journal j WHERE id > ? AND " + which
                        + " AND EXISTS (SELECT 1 FROM journal_item i WHERE i.journal = j.id) ORDER BY id DESC",
                r -> r.getLong(1),
                after)) {
            if (found.size() == most) {
                break;
            }
            if (!undone.contains(id)) {
                get(id, undone).ifPresent(found::add);
            }
        }
        return found;
    }

    /** All actions, the latest first. */
    List<Action> all() throws IOException {
        Set<Long> undone = undone();
        List<Action> all = new ArrayList<>();
        for (long id : sql.list("SELECT id FROM journal ORDER BY id DESC", r -> r.getLong(1))) {
            get(id, undone).ifPresent(all::add);
        }
        return all;
    }

    /** An action by its id. */
    public Optional<Action> get(long id) throws IOException {
        return get(id, undone());
    }

    private Optional<Action> get(long id, Set<Long> undoneOnes) throws IOException {
        record Raw(long at, String who, int kind, long place, long undoes) {}
        Optional<Raw> raw = sql.first(
                "SELECT at, who, kind, place, undoes FROM journal WHERE id = ?",
                r -> new Raw(r.getLong(1), r.getString(2), r.getInt(3), r.getLong(4), r.getLong(5)),
                id);
        if (raw.isEmpty()) {
            return Optional.empty();
        }
        boolean undone = undoneOnes.contains(id);
        Raw r = raw.get();
        return Optional.of(new Action(
                id,
                Moment.instant(r.at()),
                r.who(),
                ActionKind.of(r.kind()),
                r.place(),
                r.undoes(),
                undone,
                items(id)));
    }

    private List<Action.Item> items(long id) throws IOException {
        record Raw(long line, long folder, String name, int before, int after) {}
        List<Action.Item> items = new ArrayList<>();
        for (Raw r : sql.list(
                "SELECT line, folder, name, before, after FROM journal_item WHERE journal = ? ORDER BY seq",
                r -> new Raw(r.getLong(1), r.getLong(2), r.getString(3), r.getInt(4), r.getInt(5)),
                id)) {
            items.add(new Action.Item(r.line(), names.path(r.folder()), r.name(), r.before(), r.after()));
        }
        return items;
    }
}
