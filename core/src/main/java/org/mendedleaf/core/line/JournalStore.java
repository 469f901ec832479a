package org.mendedleaf.core.line;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;

/** Actions in the catalogue. */
public final class JournalStore {

    private final Sql sql;
    private final Names names;

    private JournalStore(Sql sql) {
        this.sql = sql;
        this.names = new Names(sql);
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
        return id;
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

    /** What an item intended did not come about. */
    public static void didNot(WriteSession session, long action, int seq) throws IOException {
        session.apply(Op.JOURNAL_ITEM_VOID, action, seq);
    }

    /** The actions that can be undone and were not, newest first. */
    public List<Action> undoable(int most) throws IOException {
        List<Action> found = new ArrayList<>();
        for (long id : sql.list(
                "SELECT id FROM journal j WHERE undoes = 0 AND kind <> 3"
                        + " AND NOT EXISTS (SELECT 1 FROM journal u WHERE u.undoes = j.id)"
                        + " AND EXISTS (SELECT 1 FROM journal_item i WHERE i.journal = j.id)"
                        // What was only let go can be undone while something of it waits.
                        + " AND (kind <> 17 OR EXISTS (SELECT 1 FROM let_go g WHERE g.journal = j.id AND g.gone = 0))"
                        + " ORDER BY id DESC LIMIT ?",
                r -> r.getLong(1),
                most)) {
            get(id).ifPresent(found::add);
        }
        return found;
    }

    /** The last action that can be undone and was not. */
    public Optional<Action> lastUndoable() throws IOException {
        return undoable(1).stream().findFirst();
    }

    /** An action by its id. */
    public Optional<Action> get(long id) throws IOException {
        record Raw(long at, String who, int kind, long place, long undoes) {}
        Optional<Raw> raw = sql.first(
                "SELECT at, who, kind, place, undoes FROM journal WHERE id = ?",
                r -> new Raw(r.getLong(1), r.getString(2), r.getInt(3), r.getLong(4), r.getLong(5)),
                id);
        if (raw.isEmpty()) {
            return Optional.empty();
        }
        boolean undone = sql.number("SELECT count(*) FROM journal WHERE undoes = ?", id) > 0;
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
