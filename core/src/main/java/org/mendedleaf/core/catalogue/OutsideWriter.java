package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.StoredContent;

/**
 * Puts what another system says of its files on lines: which versions there are, who holds them, what it forgot. The
 * contents stay there, until they are taken into the vault. One thread, within one {@link WriteSession}.
 */
public final class OutsideWriter {

    private static final int MODE = 0644;

    private final WriteSession session;
    private final Place place;
    private final LineWriter lines;
    private final Sql sql;

    /** A writer for the lines of this place. */
    public OutsideWriter(WriteSession session, Place place) {
        this.session = session;
        this.place = place;
        this.lines = new LineWriter(session);
        this.sql = session.sql();
    }

    /**
     * A file as it was mirrored last.
     *
     * @param line its line
     * @param tag what the system said then to recognise that nothing changed
     */
    public record Known(long line, String tag) {}

    /** A content that a system keeps. */
    public record Held(int number, String point, String label, Optional<Instant> expires) {}

    /**
     * A content that turned up.
     *
     * @param at since when it was current
     * @param who put it there
     * @param modifiedNanos modified time, nanoseconds since 1970
     * @param content with its recipe, or {@link #elsewhere}
     */
    public record Arrived(
            String path,
            Instant at,
            String who,
            long modifiedNanos,
            Origin origin,
            int source,
            String note,
            StoredContent content) {}

    /** A content that only the system holds. */
    public static StoredContent elsewhere(long size, Digest sha256) {
        return new StoredContent(Recipe.ELSEWHERE, size, sha256, sha256);
    }

    /** What is live in the place, by path. */
    public Map<String, LiveEntry> live() throws IOException {
        Map<String, LiveEntry> all = new HashMap<>();
        for (LiveEntry e : sql.list(
                "SELECT " + LiveEntry.COLUMNS + " FROM folder f JOIN span s ON s.folder = f.id AND s.valid_to = ?"
                        + " JOIN node n ON n.id = s.node WHERE f.place = ? AND s.kind <> 3",
                LiveEntry::of,
                Moment.OPEN,
                place.id())) {
            all.put(RelativePath.child(lines.path(e.folder()), e.name()), e);
        }
        return all;
    }

    /** What is live under a path. */
    public Optional<LiveEntry> at(String path) throws IOException {
        Optional<Long> folder = lines.knownFolder(place, RelativePath.parent(path));
        return folder.isEmpty() ? Optional.empty() : lines.live(folder.get(), RelativePath.name(path));
    }

    /** What is live of a line. */
    public Optional<LiveEntry> live(long line) throws IOException {
        return lines.liveLine(line);
    }

    /** Where a live entry is. */
    public String path(LiveEntry live) throws IOException {
        return RelativePath.child(lines.path(live.folder()), live.name());
    }

    /** Digest, recipe and SHA-256 of a version. */
    public LineWriter.Content content(long line, int number) throws IOException {
        return lines.content(line, number);
    }

    /** What the system was known to hold of a line. */
    public List<Held> held(long line) throws IOException {
        return sql.list(
                "SELECT number, point, label, expires FROM holding WHERE line = ? ORDER BY number",
                r -> new Held(
                        r.getInt(1),
                        r.getString(2),
                        r.getString(3),
                        r.getLong(4) == 0 ? Optional.empty() : Optional.of(Moment.instant(r.getLong(4)))),
                line);
    }

    /** Where a content came to stand. */
    public record Stood(long line, int number) {}

    /** The line of a file by the system's key, as it stands now. */
    public Optional<Long> lineOf(String key) throws IOException {
        return sql.first(
                "SELECT line FROM outside_file WHERE place = ? AND key = ?", r -> r.getLong(1), place.id(), key);
    }

    /** Adds a content as the first of a line of its own, whatever is or was under its path. */
    public Stood begins(Arrived a) throws IOException {
        appear(RelativePath.parent(a.path()), a.at());
        long folder = lines.folder(place, RelativePath.parent(a.path()));
        return new Stood(lines.newLine(place, folder, RelativePath.name(a.path()), a.content(), arrival(a)), 1);
    }

    private static LineWriter.Arrival arrival(Arrived a) {
        FileAttributes facts =
                new FileAttributes(EntryKind.FILE, a.content().length(), a.modifiedNanos(), MODE, a.who());
        return new LineWriter.Arrival(facts, a.origin(), a.source(), a.at(), a.at(), a.note());
    }

    /** Adds a content: to this line if it is given, else to the line that is or was under the path, else to a new one. */
    public Stood arrives(@Nullable Long line, Arrived a) throws IOException {
        appear(RelativePath.parent(a.path()), a.at());
        long folder = lines.folder(place, RelativePath.parent(a.path()));
        String name = RelativePath.name(a.path());
        LineWriter.Arrival arrival = arrival(a);
        Optional<LiveEntry> live = line == null ? lines.live(folder, name) : lines.liveLine(line);
        if (live.isPresent()) {
            if (live.get().folder() != folder || !live.get().name().equals(name)) {
                lines.moved(place, live.get(), folder, name, arrival.facts(), a.at());
                live = lines.liveLine(live.get().line());
            }
            LiveEntry there = live.orElseThrow();
            return new Stood(there.line(), lines.changed(place, there, a.content(), arrival));
        }
        Optional<LineWriter.Gone> gone = line == null ? lines.gone(folder, name) : lines.goneLine(line);
        if (gone.isPresent()) {
            int number = lines.returnedTo(place, folder, name, gone.get(), a.content(), arrival);
            return new Stood(gone.get().line(), number);
        }
        return new Stood(lines.newLine(place, folder, name, a.content(), arrival), 1);
    }

    /** A file got another name or went to another folder. */
    public void moved(LiveEntry live, String path, Instant at, String who) throws IOException {
        appear(RelativePath.parent(path), at);
        long folder = lines.folder(place, RelativePath.parent(path));
        FileAttributes facts = new FileAttributes(EntryKind.FILE, live.size(), live.mtimeNanos(), live.mode(), who);
        lines.moved(place, live, folder, RelativePath.name(path), facts, at);
        vanish(live.folder(), at);
    }

    /** A file is gone. */
    public void removed(LiveEntry live, Instant at, String who) throws IOException {
        lines.ended(place, live, EventKind.REMOVED, who, at);
        vanish(live.folder(), at);
    }

    /** Folders are there as long as a file is in them, from the first on. A path may be deeper than a stack is. */
    private void appear(String path, Instant at) throws IOException {
        for (int end = path.indexOf('/'); !path.isEmpty(); end = path.indexOf('/', end + 1)) {
            String folder = end < 0 ? path : path.substring(0, end);
            String above = RelativePath.parent(folder);
            long parent = lines.folder(place, above);
            Optional<LiveEntry> live = lines.live(parent, RelativePath.name(folder));
            if (live.isEmpty()) {
                FileAttributes facts = new FileAttributes(EntryKind.FOLDER, 0, Moment.micros(at) * 1000, 0755, "");
                lines.folderAppears(place, parent, above, RelativePath.name(folder), facts, at);
            } else if (live.get().from() > Moment.micros(at)) {
                session.apply(
                        Op.SPAN_BEGINS, Moment.micros(at), parent, live.get().node(), Moment.OPEN);
            }
            if (end < 0) {
                return;
            }
        }
    }

    private void vanish(long from, Instant at) throws IOException {
        long folder = from;
        String path = lines.path(folder);
        while (!path.isEmpty() && lines.live(folder).isEmpty()) {
            String above = RelativePath.parent(path);
            long parent = lines.folder(place, above);
            Optional<LiveEntry> live = lines.live(parent, RelativePath.name(path));
            if (live.isEmpty()) {
                return;
            }
            lines.ended(place, live.get(), EventKind.REMOVED, "", at);
            folder = parent;
            path = above;
        }
    }

    /** The system holds this content. */
    public void hold(long line, int number, String point, String label, Optional<Instant> expires) throws IOException {
        session.apply(
                Op.HOLDING,
                line,
                number,
                point,
                label,
                expires.map(Moment::micros).orElse(0L));
    }

    /** The system holds it no longer. */
    public void forgot(long line, int number, String point) throws IOException {
        session.apply(Op.HOLDING_ENDS, line, number, point);
    }

    /** Remembers which line a file is on, and by what to see that it did not change. */
    public void remember(String key, long line, String tag) throws IOException {
        session.apply(Op.OUTSIDE_FILE, place.id(), key, line, tag);
    }

    /** A cut that the system holds, new or changed. */
    public void cut(RemoteSnapshot cut) throws IOException {
        long id = sql.number("SELECT id FROM cut WHERE place = ? AND key = ?", place.id(), cut.key());
        session.apply(
                Op.CUT,
                id == 0 ? session.nextId(WriteSession.Table.CUT) : id,
                place.id(),
                cut.key(),
                Moment.micros(cut.at()),
                cut.label(),
                cut.expires().map(Moment::micros).orElse(0L));
    }

    /** A cut that it holds no longer. */
    public void cutEnds(String key) throws IOException {
        session.apply(Op.CUT_ENDS, place.id(), key);
    }

    /** The cuts that it was known to hold, oldest first. */
    public List<RemoteSnapshot> cuts() throws IOException {
        return new HolderQuery(sql).cuts(place.id());
    }

    /** A content that was elsewhere is in the vault now. */
    public static void fill(WriteSession session, long line, int number, StoredContent given) throws IOException {
        StoredContent content = session.standing(given);
        if (content.mayUnfold()) {
            UnfoldQueue.came(session, line, number, false);
        }
        session.apply(
                Op.VERSION_CONTENT, content.digest().bytes(), content.recipe().encode(), line, number);
    }

    /** Changes the note of a version, if it is another. */
    public void note(long line, int number, String note) throws IOException {
        boolean same = sql.number(
                        "SELECT count(*) FROM version WHERE line = ? AND number = ? AND note = ?", line, number, note)
                > 0;
        if (!same) {
            session.apply(Op.VERSION_NOTE, note, line, number);
        }
    }

    /** Declares that two folders are the same files. */
    public static void relate(WriteSession session, Relation r) throws IOException {
        session.apply(Op.RELATION, r.place(), r.path(), r.other(), r.otherPath());
    }

    /** Takes a declaration back. */
    public static void unrelate(WriteSession session, Relation r) throws IOException {
        session.apply(Op.RELATION_ENDS, r.place(), r.path(), r.other(), r.otherPath());
    }

    /** Remembers what the system said of the place, as JSON. */
    public void facts(String json) throws IOException {
        session.applyUnlogged("INSERT OR REPLACE INTO outside_place(place, facts) VALUES (?,?)", place.id(), json);
    }

    /** When the oldest version of the place was saved. */
    public Optional<Instant> oldest() throws IOException {
        long at = sql.number(
                "SELECT min(v.saved) FROM line l JOIN version v ON v.line = l.id WHERE l.place = ?", place.id());
        return at == 0 ? Optional.empty() : Optional.of(Moment.instant(at));
    }

    /** From when on the past of the place is known, as noted. */
    public Optional<Instant> begins() throws IOException {
        long at = sql.number("SELECT min(started) FROM capture WHERE place = ?", place.id());
        return at == 0 ? Optional.empty() : Optional.of(Moment.instant(at));
    }
}
