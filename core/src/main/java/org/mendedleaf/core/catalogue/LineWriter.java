package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.Edition;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.StoredContent;

/** Adds points to lines. Nothing here takes a point away. One thread, within one {@link WriteSession}. */
public final class LineWriter {

    private final WriteSession session;
    private final Sql sql;
    private final PathIds names;
    private final Numbering numbering;
    private final HeldLines held;
    private final Map<Long, Long> lastSnapshots = new HashMap<>();

    /** A writer within this session. */
    public LineWriter(WriteSession session) {
        this.session = session;
        this.sql = session.sql();
        this.names = new PathIds(sql);
        this.numbering = new Numbering(session);
        this.held = new HeldLines(session, names);
    }

    /** The id of a folder, made when it is new. */
    public long folder(Place place, String path) throws IOException {
        return names.folderForWriting(session, place.id(), path);
    }

    /** The id of a folder that was seen before. */
    public Optional<Long> knownFolder(Place place, String path) throws IOException {
        return names.folder(place.id(), path);
    }

    /** The path of a folder. */
    public String path(long folder) throws IOException {
        return names.path(folder);
    }

    /** What the catalogue holds as present in a folder. */
    public List<LiveEntry> live(long folder) throws IOException {
        return sql.list(
                "SELECT " + LiveEntry.COLUMNS
                        + " FROM span s JOIN node n ON n.id = s.node WHERE s.folder = ? AND s.valid_to = ?",
                LiveEntry::of,
                folder,
                Moment.OPEN);
    }

    /** What the catalogue holds as present of a line, wherever it is. */
    public Optional<LiveEntry> liveLine(long line) throws IOException {
        return sql.first(
                "SELECT " + LiveEntry.COLUMNS + " FROM line l JOIN node n ON n.id = l.node JOIN span s"
                        + " ON s.folder = n.folder AND s.node = n.id AND s.valid_to = ? WHERE l.id = ? AND l.removed = 0",
                LiveEntry::of,
                Moment.OPEN,
                line);
    }

    /** What the catalogue holds as present under one name. */
    public Optional<LiveEntry> live(long folder, String name) throws IOException {
        return sql.first(LiveEntry.BY_NAME, LiveEntry::of, Moment.OPEN, folder, name);
    }

    /** Digest and recipe of a version. */
    public record Content(Digest digest, Recipe recipe, Optional<Digest> sha256) {}

    /** The content of one version. */
    public Content content(long line, int number) throws IOException {
        record Raw(byte[] digest, byte[] recipe, byte @org.jspecify.annotations.Nullable [] sha256) {}
        Raw raw = sql.first(
                        "SELECT digest, recipe, sha256 FROM version WHERE line = ? AND number = ?",
                        r -> new Raw(r.getBytes(1), r.getBytes(2), r.getBytes(3)),
                        line,
                        number)
                .orElseThrow(() -> new IllegalArgumentException("expected a version, got " + line + "/" + number));
        byte[] sha = raw.sha256();
        return new Content(
                Digest.of(raw.digest()),
                Recipe.decode(raw.recipe()),
                sha == null ? Optional.empty() : Optional.of(Digest.of(sha)));
    }

    /** Whether a content is one of a line's versions and is here. */
    public boolean holds(long line, Digest digest) throws IOException {
        for (byte[] recipe : sql.list(
                "SELECT recipe FROM version WHERE line = ? AND digest = ?", r -> r.getBytes(1), line, digest.bytes())) {
            if (!Recipe.decode(recipe).isElsewhere()) {
                return true;
            }
        }
        return false;
    }

    /** Who saved a version, as far as known. */
    public String who(long line, int number) throws IOException {
        return sql.first("SELECT who FROM version WHERE line = ? AND number = ?", r -> r.getString(1), line, number)
                .orElse("");
    }

    /**
     * Modified time and permissions that a version last had under a name.
     *
     * @param mtimeNanos nanoseconds since 1970
     */
    public record Look(long mtimeNanos, int mode) {}

    /** How a version of a line looked last under a name. */
    public Optional<Look> look(long folder, String name, long line, int number) throws IOException {
        return sql.first(
                "SELECT mtime, mode FROM ("
                        + Spans.of(
                                "s.mtime, s.mode, s.valid_to",
                                "(SELECT id FROM node WHERE folder = ?1 AND name = ?2 AND line = ?3)",
                                " AND s.number = ?4")
                        + ") ORDER BY valid_to DESC LIMIT 1",
                r -> new Look(r.getLong(1), r.getInt(2)),
                folder,
                name,
                line,
                number);
    }

    /** A line that once was under this name and is now removed or left out. */
    public record Gone(long line, long node, int last) {}

    /** The line that ended under this name, if there is one. */
    public Optional<Gone> gone(long folder, String name) throws IOException {
        return sql.first(
                "SELECT l.id, n.id, l.last FROM node n JOIN line l ON l.id = n.line AND l.node = n.id"
                        + " WHERE n.folder = ? AND n.name = ? AND l.removed <> 0 ORDER BY l.removed DESC",
                r -> new Gone(r.getLong(1), r.getLong(2), r.getInt(3)),
                folder,
                name);
    }

    /** A line that is removed or left out, wherever it was last. */
    public Optional<Gone> goneLine(long line) throws IOException {
        return sql.first(
                "SELECT id, node, last FROM line WHERE id = ? AND removed <> 0",
                r -> new Gone(r.getLong(1), r.getLong(2), r.getInt(3)),
                line);
    }

    /** A removed file that is back, under this name. Returns the number of the new version. */
    public int returnedTo(Place place, long folder, String name, Gone gone, StoredContent content, Arrival arrival)
            throws IOException {
        long node =
                sql.number("SELECT id FROM node WHERE folder = ? AND name = ? AND line = ?", folder, name, gone.line());
        if (node == 0) {
            node = session.nextId(WriteSession.Table.NODE);
            session.apply(Op.NODE, node, folder, RelativePath.requireName(name), gone.line(), 0);
        }
        return returned(place, folder, new Gone(gone.line(), node, gone.last()), content, arrival);
    }

    /** What a new version brings, beside its content. */
    public record Arrival(
            FileAttributes facts,
            Origin origin,
            int source,
            Instant saved,
            Instant captured,
            String note,
            DraftChoice stage) {

        /** One that is a draft or not as the rules of its place say. */
        public Arrival(FileAttributes facts, Origin origin, int source, Instant saved, Instant captured, String note) {
            this(facts, origin, source, saved, captured, note, DraftChoice.BY_RULE);
        }

        Arrival notBefore(Instant earliest) {
            return saved.isBefore(earliest) ? at(earliest) : this;
        }

        private Arrival at(Instant other) {
            return new Arrival(facts, origin, source, other, captured, note, stage);
        }
    }

    /** A file that was never seen: a new line with its first version. Returns the line's id. */
    public long newLine(Place place, long folder, String name, StoredContent content, Arrival arrival)
            throws IOException {
        Arrival after = arrival.origin() == Origin.FOUND ? arrival : afterOthers(folder, name, arrival);
        long line = session.nextId(WriteSession.Table.LINE);
        long node = session.nextId(WriteSession.Table.NODE);
        session.apply(Op.NODE, node, folder, RelativePath.requireName(name), line, 0);
        session.apply(Op.LINE, line, place.id(), node);
        addVersion(place, line, 0, node, folder, content, after);
        return line;
    }

    /** A removed file that is back under its name: its line goes on. Returns the number of the new version. */
    public int returned(Place place, long folder, Gone gone, StoredContent content, Arrival arrival)
            throws IOException {
        Instant removed = Moment.instant(sql.number("SELECT removed FROM line WHERE id = ?", gone.line()));
        String name = sql.first("SELECT name FROM node WHERE id = ?", r -> r.getString(1), gone.node())
                .orElseThrow();
        Arrival after = afterOthers(folder, name, arrival.notBefore(removed));
        return addVersion(place, gone.line(), gone.last(), gone.node(), folder, content, after);
    }

    /** Under one name there is one file at a time: what comes begins when what was there before had ended. */
    private Arrival afterOthers(long folder, String name, Arrival arrival) throws IOException {
        long ended = 0;
        for (long node :
                sql.list("SELECT id FROM node WHERE folder = ? AND name = ?", r -> r.getLong(1), folder, name)) {
            ended = Math.max(ended, sql.number(Spans.LAST_END, node));
        }
        return ended == 0 ? arrival : arrival.notBefore(Moment.instant(ended));
    }

    /** A new content under a name that is there. Returns the number of the new version. */
    public int changed(Place place, LiveEntry live, StoredContent content, Arrival arrival) throws IOException {
        Instant saved = notBefore(arrival.saved(), live.from());
        session.apply(Op.SPAN_ENDS, afterSnapshots(place, saved), live.folder(), live.node());
        Arrival placed = arrival.at(saved);
        int last = (int) sql.number("SELECT last FROM line WHERE id = ?", live.line());
        return addVersion(place, live.line(), last, live.node(), live.folder(), content, placed);
    }

    /**
     * What comes after a snapshot was taken begins after its moment, however that was dated: a snapshot shows for ever what was
     * there when it was taken.
     *
     * @return microseconds since 1970
     */
    private long afterSnapshots(Place place, Instant at) throws IOException {
        Long last = lastSnapshots.get(place.id());
        if (last == null) {
            last = sql.number("SELECT coalesce(max(at), 0) FROM snapshot WHERE place = ?", place.id());
            lastSnapshots.put(place.id(), last);
        }
        return Math.max(Moment.micros(at), last + 1);
    }

    /** An interval is never empty: what follows begins at least a microsecond later. */
    private static Instant notBefore(Instant at, long from) {
        return Moment.micros(at) > from ? at : Moment.instant(from + 1);
    }

    private int addVersion(
            Place place, long line, int last, long node, long folder, StoredContent given, Arrival arrival)
            throws IOException {
        int number = last + 1;
        StoredContent content = session.standing(given);
        FileAttributes facts = arrival.facts();
        long saved = Moment.micros(arrival.saved());
        Digest sha = content.sha256();
        session.apply(
                Op.VERSION,
                line,
                number,
                node,
                saved,
                Moment.micros(arrival.captured()),
                facts.who(),
                arrival.origin().code(),
                arrival.source(),
                facts.kind().code(),
                content.length(),
                facts.mtimeNanos(),
                facts.mode(),
                content.digest().bytes(),
                sha == null ? null : sha.bytes(),
                content.recipe().encode(),
                arrival.note());
        if (content.mayUnfold()) {
            UnfoldQueue.came(session, line, number, last == 0);
        }
        session.apply(Op.LINE_GROWS, number, content.length(), node, line);
        numbering.added(place, line, number, arrival);
        // The first capture knows nothing of what was before it, however old the files are.
        long from = arrival.origin() == Origin.FOUND
                ? Moment.micros(arrival.captured())
                : afterSnapshots(place, arrival.saved());
        session.apply(
                Op.SPAN,
                folder,
                Moment.OPEN,
                node,
                from,
                number,
                facts.kind().code(),
                content.length(),
                facts.mtimeNanos(),
                facts.mode());
        if (arrival.origin() != Origin.FOUND) {
            session.countChange(place.id(), arrival.saved());
        }
        held.arrives(place, line, folder);
        return number;
    }

    /**
     * A content that the line has was stored once more, as it is. Versions with it that are stored otherwise, of which something
     * is known to be damaged, are stored so from now on.
     */
    public void storedAgain(long line, StoredContent content) throws IOException {
        if (sql.number("SELECT count(*) FROM damaged") == 0) {
            return;
        }
        record Held(int number, byte[] recipe) {}
        List<Held> all = sql.list(
                "SELECT number, recipe FROM version WHERE line = ? AND digest = ?",
                r -> new Held(r.getInt(1), r.getBytes(2)),
                line,
                content.digest().bytes());
        for (Held held : all) {
            Recipe recipe = Recipe.decode(held.recipe());
            if (!recipe.equals(content.recipe()) && isDamaged(recipe)) {
                OutsideWriter.fill(session, line, held.number(), content);
            }
        }
    }

    private boolean isDamaged(Recipe recipe) throws IOException {
        long damaged = 0;
        for (Recipe.Run run : recipe.isElsewhere() ? List.<Recipe.Run>of() : recipe.runs()) {
            damaged += sql.number(
                    "SELECT count(*) FROM damaged WHERE chunk BETWEEN ? AND ?",
                    run.first(),
                    run.first() + run.count() - 1);
        }
        return damaged > 0;
    }

    /** The same content with another modified time or other permissions: no new version, but the moment is kept. */
    public void attributes(LiveEntry live, FileAttributes facts, Instant at) throws IOException {
        Instant from = notBefore(at, live.from());
        session.apply(Op.SPAN_ENDS, Moment.micros(from), live.folder(), live.node());
        session.apply(
                Op.SPAN,
                live.folder(),
                Moment.OPEN,
                live.node(),
                Moment.micros(from),
                live.number(),
                live.kind().code(),
                live.size(),
                facts.mtimeNanos(),
                facts.mode());
    }

    /** A file under a new name or in another folder: the line goes along. */
    public void moved(Place place, LiveEntry live, long toFolder, String toName, FileAttributes facts, Instant when)
            throws IOException {
        Instant at = notBefore(when, live.from());
        long target = sql.number(
                "SELECT id FROM node WHERE folder = ? AND name = ? AND line = ?", toFolder, toName, live.line());
        if (target == 0) {
            target = session.nextId(WriteSession.Table.NODE);
            session.apply(Op.NODE, target, toFolder, RelativePath.requireName(toName), live.line(), 0);
        }
        long from = afterSnapshots(place, at);
        session.apply(Op.SPAN_ENDS, from, live.folder(), live.node());
        session.apply(
                Op.SPAN,
                toFolder,
                Moment.OPEN,
                target,
                from,
                live.number(),
                live.kind().code(),
                live.size(),
                facts.mtimeNanos(),
                facts.mode());
        session.apply(Op.LINE_STATE, target, 0, live.line());
        held.arrives(place, live.line(), toFolder);
        EventKind kind = live.folder() == toFolder ? EventKind.RENAMED : EventKind.MOVED;
        event(live.line(), at, kind, facts.who(), live.node(), target, live.number());
        session.countChange(place.id(), at);
    }

    /** A file that is gone from its folder, or left out from now on. */
    public void ended(Place place, LiveEntry live, EventKind kind, String who, Instant when) throws IOException {
        Instant at = notBefore(when, live.from());
        session.apply(Op.SPAN_ENDS, afterSnapshots(place, at), live.folder(), live.node());
        if (live.kind() == EntryKind.FOLDER) {
            return;
        }
        session.apply(Op.LINE_STATE, live.node(), Moment.micros(at), live.line());
        event(live.line(), at, kind, who, live.node(), live.node(), live.number());
        session.countChange(place.id(), at);
    }

    /** What people call a version. */
    public Edition edition(long line, int number) throws IOException {
        return Numbering.of(sql, line, number);
    }

    /** Makes a draft the next whole number. Returns what it is called from now on. */
    public Edition publish(Place place, LiveEntry live, String who, Instant at) throws IOException {
        Edition published = edition(live.line(), live.number()).nextPublished();
        session.apply(Op.EDITION, live.line(), live.number(), published.major(), published.minor());
        happened(live, EventKind.PUBLISHED, who, at);
        return published;
    }

    /** Makes a published version the draft again that it was. */
    public void unpublish(long line, int number) throws IOException {
        Edition draft = edition(line, number - 1).nextDraft();
        session.apply(Op.EDITION, line, number, draft.major(), draft.minor());
    }

    /** Notes something that happened to a file and changed neither its content nor its name. */
    public void happened(LiveEntry live, EventKind kind, String who, Instant when) throws IOException {
        event(live.line(), notBefore(when, live.from()), kind, who, live.node(), live.node(), live.number());
    }

    private void event(long line, Instant at, EventKind kind, String who, long from, long to, int number)
            throws IOException {
        session.apply(
                Op.EVENT,
                session.nextId(WriteSession.Table.EVENT),
                line,
                Moment.micros(at),
                kind.code(),
                who,
                from,
                to,
                number);
    }

    /** A folder that is there now. Returns its id. */
    public long folderAppears(
            Place place, long parent, String parentPath, String name, FileAttributes facts, Instant at)
            throws IOException {
        long child = folder(place, RelativePath.child(parentPath, name));
        long node = sql.number("SELECT id FROM node WHERE folder = ? AND name = ? AND child = ?", parent, name, child);
        if (node == 0) {
            node = session.nextId(WriteSession.Table.NODE);
            session.apply(Op.NODE, node, parent, RelativePath.requireName(name), 0, child);
        }
        long last = sql.number(Spans.LAST_END, node);
        session.apply(
                Op.SPAN,
                parent,
                Moment.OPEN,
                node,
                Math.max(Moment.micros(at), last),
                0,
                EntryKind.FOLDER.code(),
                0,
                facts.mtimeNanos(),
                facts.mode());
        return child;
    }
}
