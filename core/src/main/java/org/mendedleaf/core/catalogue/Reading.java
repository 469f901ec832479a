package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.line.Difference;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Source;
import org.mendedleaf.core.line.Space;
import org.mendedleaf.core.line.Totals;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.ContentReader;
import org.mendedleaf.core.vault.Digest;

/**
 * A view of a vault for reading: of one state of it, the one at its first question, until it is given back by closing it.
 * What is captured meanwhile is seen by the next view. One thread at a time.
 */
public final class Reading implements AutoCloseable {

    private final OpenVault vault;
    private final Sql sql;
    private final PathIds names;
    private final int generation;
    private @Nullable ContentReader contents;

    /**
     * A view.
     *
     * @param generation counts how often the catalogue was replaced by another
     */
    Reading(OpenVault vault, Sql sql, int generation) {
        this.vault = vault;
        this.sql = sql;
        this.generation = generation;
        this.names = new PathIds(sql);
    }

    /** The vault that is read. */
    public OpenVault vault() {
        return vault;
    }

    public Sql sql() {
        return sql;
    }

    int generation() {
        return generation;
    }

    /** From here on questions see what the vault is by then. */
    private void endState() throws IOException {
        try {
            sql.connection().rollback();
        } catch (SQLException e) {
            throw Catalogue.translate(vault.folder(), e);
        }
    }

    /** The contents behind versions. */
    public ContentReader contents() throws IOException {
        if (contents == null) {
            try {
                contents = new ContentReader(
                        vault.folder(), sql.connection(), () -> Catalogue.openForReading(vault.folder()));
            } catch (SQLException e) {
                throw Catalogue.translate(vault.folder(), e);
            }
        }
        return contents;
    }

    /** A number that is kept beside the rows, see {@link WriteSession#note(String)}; 0 before it was set. */
    public long note(String name) throws IOException {
        return sql.number("SELECT value FROM counter WHERE name = ?", name);
    }

    /** The number of the last change that is seen; each change of a vault has the next one. */
    public long commit() throws IOException {
        return new PackTables(sql).commit();
    }

    /** What is another after anything was captured, done, let go, held or ruled. */
    public String state() throws IOException {
        return sql.list(
                        "SELECT coalesce((SELECT max(id) FROM capture), 0) || '/' || coalesce((SELECT max(id) FROM journal), 0)"
                                + " || '/' || (SELECT count(*) || '/' || coalesce(sum(gone <> 0), 0) FROM let_go)"
                                + " || '/' || (SELECT count(*) || '/' || coalesce(sum(lifted), 0) FROM hold)"
                                + " || '/' || (SELECT count(*) || '/' || coalesce(sum(erased), 0) FROM snapshot)"
                                + " || '/' || coalesce((SELECT max(id) FROM ruleset), 0)",
                        r -> r.getString(1))
                .get(0);
    }

    /** All places of the vault, in the order in which they were protected. */
    public List<Place> places() throws IOException {
        return new PlaceQuery(sql).all();
    }

    /** The place whose folder this is or in which it lies. */
    public Optional<Place> placeOf(Path path) throws IOException {
        return places().stream()
                .filter(p -> !p.isOutside() && path.startsWith(p.root()))
                .findFirst();
    }

    /** A place in another system, if this vault knows it. */
    public Optional<Place> outside(String system, String name) throws IOException {
        Source wanted = new Source.Outside(system, name);
        return places().stream().filter(p -> p.source().equals(wanted)).findFirst();
    }

    /** Who holds each version of a line, by number: this vault, and points and cuts in other systems. */
    public Map<Integer, List<Holder>> holders(Line line) throws IOException {
        return new HolderQuery(sql).of(line);
    }

    /** The files of a place in another system as they were mirrored last, by the system's key. */
    public Map<String, OutsideWriter.Known> outsideFiles(Place place) throws IOException {
        Map<String, OutsideWriter.Known> all = new HashMap<>();
        sql.list(
                "SELECT key, line, tag FROM outside_file WHERE place = ?",
                r -> all.put(r.getString(1), new OutsideWriter.Known(r.getLong(2), r.getString(3))),
                place.id());
        return all;
    }

    /**
     * A version that a system holds.
     *
     * @param ended when something else became current; empty while it is
     */
    public record HeldPoint(
            long line, int number, String point, String label, long size, Instant saved, Optional<Instant> ended) {}

    /** All versions that a system holds file by file, by line and number. */
    public List<HeldPoint> heldPoints(Place place) throws IOException {
        Map<String, Long> ends = new HashMap<>();
        sql.list(
                "SELECT n.line, s.number, max(s.valid_to) FROM folder f JOIN span s ON s.folder = f.id"
                        + " JOIN node n ON n.id = s.node WHERE f.place = ? GROUP BY n.line, s.number",
                r -> ends.put(r.getLong(1) + "/" + r.getInt(2), r.getLong(3)),
                place.id());
        return sql.list(
                "SELECT h.line, h.number, h.point, h.label, v.size, v.saved FROM line l"
                        + " JOIN holding h ON h.line = l.id JOIN version v ON v.line = h.line AND v.number = h.number"
                        + " WHERE l.place = ? ORDER BY h.line, h.number",
                r -> {
                    long end = ends.getOrDefault(r.getLong(1) + "/" + r.getInt(2), Moment.OPEN);
                    return new HeldPoint(
                            r.getLong(1),
                            r.getInt(2),
                            r.getString(3),
                            r.getString(4),
                            r.getLong(5),
                            Moment.instant(r.getLong(6)),
                            end == Moment.OPEN ? Optional.empty() : Optional.of(Moment.instant(end)));
                },
                place.id());
    }

    /** Versions of a place, all of them. */
    public long versions(Place place) throws IOException {
        return sql.number("SELECT coalesce(sum(versions), 0) FROM line WHERE place = ?", place.id());
    }

    /** Lines of a place. */
    public List<Long> lines(Place place) throws IOException {
        return sql.list("SELECT id FROM line WHERE place = ? ORDER BY id", r -> r.getLong(1), place.id());
    }

    /** Cuts of a place in another system that are still there, oldest first. */
    public List<RemoteSnapshot> cuts(Place place) throws IOException {
        return new HolderQuery(sql).cuts(place.id());
    }

    /** What is declared to be the same in other places. */
    public List<Relation> relations() throws IOException {
        return sql.list(
                "SELECT place, path, other, other_path FROM relation ORDER BY place, path, other",
                r -> new Relation(r.getLong(1), r.getString(2), r.getLong(3), r.getString(4)));
    }

    /** What another system said of a place when it was last looked at, as JSON; empty before that. */
    public Optional<String> outsideFacts(Place place) throws IOException {
        return sql.first("SELECT facts FROM outside_place WHERE place = ?", r -> r.getString(1), place.id());
    }

    /** Lines in other systems that hold one of these contents. */
    public List<Long> outsideLinesWith(Digest sha256) throws IOException {
        return sql.list(
                "SELECT DISTINCT v.line FROM version v JOIN line l ON l.id = v.line JOIN place p ON p.id = l.place"
                        + " WHERE v.sha256 = ? AND v.origin >= 5 AND p.root LIKE 'outside:%' LIMIT 50",
                r -> r.getLong(1), sha256.bytes());
    }

    /** Lines in folders that are known to hold this content; looks through all versions. */
    public List<Long> folderLinesWith(Digest sha256, long size) throws IOException {
        return sql.list(
                "SELECT DISTINCT v.line FROM version v JOIN line l ON l.id = v.line JOIN place p ON p.id = l.place"
                        + " WHERE v.size = ? AND v.sha256 = ? AND p.root NOT LIKE 'outside:%' LIMIT 50",
                r -> r.getLong(1), size, sha256.bytes());
    }

    /** What a folder held at a moment; without {@code removed}, only what was there. */
    public List<Entry> listing(Place place, String folder, Instant at, boolean removed) throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        if (id.isEmpty()) {
            return List.of();
        }
        ListingQuery query = new ListingQuery(sql);
        List<Entry> entries = query.present(id.get(), Moment.micros(at));
        if (removed) {
            List<Entry> all = new ArrayList<>(entries);
            all.addAll(query.removed(id.get(), Moment.micros(at)));
            return all;
        }
        return entries;
    }

    /** Whether this path was ever a folder of the place. */
    public boolean isFolder(Place place, String path) throws IOException {
        return names.folder(place.id(), path).isPresent();
    }

    /** Sums over a folder and all below it, as it was at a moment. */
    public Totals totals(Place place, String folder, Instant at) throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        return id.isEmpty() ? new Totals(0, 0, 0, 0, 0) : new ListingQuery(sql).totals(id.get(), Moment.micros(at));
    }

    /** All files and folders in a folder and below it at a moment, by path; how many versions they have is not counted. */
    public Map<String, Entry> tree(Place place, String folder, Instant at) throws IOException {
        Map<String, Entry> found = new TreeMap<>();
        Optional<Long> id = names.folder(place.id(), folder);
        if (id.isPresent()) {
            collect(new ListingQuery(sql), id.get(), folder, Moment.micros(at), found);
        }
        return found;
    }

    /** A folder with all below it at a moment, with the versions of its files. */
    public TreeAt treeAt(Place place, String folder, Instant at) throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        return id.isEmpty()
                ? new TreeAt(new TreeMap<>(), List.of())
                : new TreeQuery(sql).at(id.get(), folder, Moment.micros(at));
    }

    /** What differs in a folder and below it between two moments, the earlier one first. */
    public Difference difference(Place place, String folder, Instant from, Instant to) throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        return id.isEmpty() || !from.isBefore(to)
                ? new Difference(List.of(), List.of())
                : new TreeQuery(sql).difference(id.get(), folder, Moment.micros(from), Moment.micros(to));
    }

    private static void collect(ListingQuery query, long folder, String path, long at, Map<String, Entry> into)
            throws IOException {
        for (Entry entry : query.presentOnly(folder, at)) {
            String child = RelativePath.child(path, entry.name());
            into.put(child, entry);
            if (entry.kind() == EntryKind.FOLDER) {
                collect(query, entry.folder(), child, at, into);
            }
        }
    }

    /** The line of a file by its path, as it is now or was once; what is there now comes first. */
    public Optional<Line> line(Place place, String path) throws IOException {
        return new LineQuery(sql, names).find(place, path);
    }

    /** A line by its id. */
    public Optional<Line> line(long id) throws IOException {
        return new LineQuery(sql, names).get(id, places());
    }

    /** What the catalogue holds as present at a path. */
    public Optional<LiveEntry> live(Place place, String path) throws IOException {
        Optional<Long> folder = names.folder(place.id(), RelativePath.parent(path));
        return folder.isEmpty()
                ? Optional.empty()
                : sql.first(LiveEntry.BY_NAME, LiveEntry::of, Moment.OPEN, folder.get(), RelativePath.name(path));
    }

    /**
     * A file that is there, with its current version.
     *
     * @param path from the place's root
     * @param digest of the content, see {@code ContentDigest}
     */
    public record LiveFile(long line, String path, int number, long size, Digest digest, Instant saved) {}

    /** All files that are there in a place; links and folders are none. */
    public List<LiveFile> liveFiles(Place place) throws IOException {
        record Raw(long line, long folder, String name, int number, long size, byte[] digest, long saved) {}
        List<LiveFile> found = new ArrayList<>();
        for (Raw r : sql.list(
                "SELECT l.id, n.folder, n.name, l.last, v.size, v.digest, v.saved FROM line l JOIN node n ON n.id = l.node"
                        + " JOIN version v ON v.line = l.id AND v.number = l.last"
                        + " WHERE l.place = ? AND l.removed = 0 AND v.kind = 1",
                r -> new Raw(
                        r.getLong(1),
                        r.getLong(2),
                        r.getString(3),
                        r.getInt(4),
                        r.getLong(5),
                        r.getBytes(6),
                        r.getLong(7)),
                place.id())) {
            found.add(new LiveFile(
                    r.line(),
                    RelativePath.child(names.path(r.folder()), r.name()),
                    r.number(),
                    r.size(),
                    Digest.of(r.digest()),
                    Moment.instant(r.saved())));
        }
        return found;
    }

    /** Files that are there in a place whose current version has this content. */
    public List<String> pathsHolding(Place place, Digest digest, long size) throws IOException {
        List<String> found = new ArrayList<>();
        for (long node : sql.list(
                "SELECT l.node FROM line l JOIN version v ON v.line = l.id AND v.number = l.last"
                        + " WHERE l.place = ? AND l.removed = 0 AND v.size = ? AND (v.digest = ? OR v.sha256 = ?)",
                r -> r.getLong(1),
                place.id(),
                size,
                digest.bytes(),
                digest.bytes())) {
            found.add(names.nodePath(node));
        }
        return found;
    }

    /** One version of a line. */
    public Optional<Version> version(long line, int number) throws IOException {
        return new LineQuery(sql, names).version(line, number);
    }

    /** All versions with this content. */
    public List<Version> versionsWith(Digest digest) throws IOException {
        record Key(long line, int number) {}
        List<Version> found = new ArrayList<>();
        for (Key key : sql.list(
                "SELECT line, number FROM version WHERE digest = ?",
                r -> new Key(r.getLong(1), r.getInt(2)),
                digest.bytes())) {
            version(key.line(), key.number()).ifPresent(found::add);
        }
        return found;
    }

    /** Where a file was at a moment; empty when it was not there. */
    public Optional<String> pathAt(long line, Instant at) throws IOException {
        return new LineQuery(sql, names).pathAt(line, Moment.micros(at));
    }

    /** The version of a line that was current at a moment, if the file was there. */
    public Optional<Integer> numberAt(long line, Instant at) throws IOException {
        return new LineQuery(sql, names).numberAt(line, Moment.micros(at));
    }

    /** Changes per hour, by hours since 1970, in a range of them. */
    public Map<Long, Integer> density(Place place, long fromHour, long toHour) throws IOException {
        Map<Long, Integer> found = new HashMap<>();
        sql.list(
                        "SELECT hour, changes FROM density WHERE place = ? AND hour BETWEEN ? AND ?",
                        r -> Map.entry(r.getLong(1), r.getInt(2)),
                        place.id(),
                        fromHour,
                        toHour)
                .forEach(e -> found.put(e.getKey(), e.getValue()));
        return found;
    }

    /** The captures that changed something, oldest first. */
    public List<CaptureRecord> captures(Place place) throws IOException {
        return sql.list(
                "SELECT started, ended, first, changes, bytes FROM capture WHERE place = ? ORDER BY id",
                r -> new CaptureRecord(
                        Moment.instant(r.getLong(1)),
                        Moment.instant(r.getLong(2)),
                        r.getInt(3) == 1,
                        r.getLong(4),
                        r.getLong(5)),
                place.id());
    }

    /** When the first capture of a place began: before that nothing is known. */
    public Optional<Instant> firstCapture(Place place) throws IOException {
        return sql.first(
                "SELECT started FROM capture WHERE place = ? ORDER BY id LIMIT 1",
                r -> Moment.instant(r.getLong(1)),
                place.id());
    }

    /** The last change in a folder (not below it) before a moment. */
    public Optional<Instant> changeBefore(Place place, String folder, Instant at) throws IOException {
        return neighbour(place, folder, Moment.micros(at), true);
    }

    /** The next change in a folder (not below it) after a moment. */
    public Optional<Instant> changeAfter(Place place, String folder, Instant at) throws IOException {
        return neighbour(place, folder, Moment.micros(at), false);
    }

    private Optional<Instant> neighbour(Place place, String folder, long at, boolean before) throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        if (id.isEmpty()) {
            return Optional.empty();
        }
        String query = before
                ? "SELECT max(m) FROM (SELECT valid_from m FROM span WHERE folder = ? AND valid_from < ?"
                        + " UNION ALL SELECT valid_to FROM span WHERE folder = ? AND valid_to < ?)"
                : "SELECT min(m) FROM (SELECT valid_from m FROM span WHERE folder = ? AND valid_from > ?"
                        + " UNION ALL SELECT valid_to FROM span WHERE folder = ? AND valid_to > ?"
                        + " AND valid_to < " + Moment.OPEN + ")";
        long found = sql.number(query, id.get(), at, id.get(), at);
        return found == 0 ? Optional.empty() : Optional.of(Moment.instant(found));
    }

    /** The first change anywhere in a place at or after a moment. */
    public Optional<Instant> firstChangeFrom(Place place, Instant from) throws IOException {
        long found = sql.number(
                "SELECT min(at) FROM (SELECT min(v.saved) at FROM version v JOIN line l ON l.id = v.line"
                        + " WHERE l.place = ? AND v.saved >= ? AND v.origin <> 1 UNION ALL"
                        + " SELECT min(e.at) FROM event e JOIN line l ON l.id = e.line"
                        + " WHERE l.place = ? AND e.at >= ? AND e.kind <= 4)",
                place.id(),
                Moment.micros(from),
                place.id(),
                Moment.micros(from));
        return found == 0 ? Optional.empty() : Optional.of(Moment.instant(found));
    }

    /** When a capture of a place last found that something had been saved, moved or removed. */
    public Optional<Instant> lastSave(Place place) throws IOException {
        return sql.first(
                "SELECT ended FROM capture WHERE place = ? AND changes > 0 ORDER BY id DESC LIMIT 1",
                r -> Moment.instant(r.getLong(1)),
                place.id());
    }

    /** The last change in a folder or below it, or of a file; the first capture is none. */
    public Optional<Instant> lastChange(Place place, String path) throws IOException {
        Optional<Long> folder = names.folder(place.id(), path);
        Optional<Line> line = path.isEmpty() ? Optional.empty() : line(place, path);
        long found;
        if (line.isPresent()) {
            found = sql.number(
                    "SELECT max(at) FROM (SELECT saved at FROM version WHERE line = ?1 AND origin <> 1 UNION ALL"
                            + " SELECT at FROM event WHERE line = ?1 AND kind <= 4)",
                    line.get().id());
        } else if (folder.isPresent()) {
            found = sql.number(
                    "WITH RECURSIVE inside(id) AS (SELECT ?1 UNION ALL SELECT f.id FROM folder f"
                            + " JOIN inside i ON f.parent = i.id), change(at) AS ("
                            + "SELECT v.saved FROM inside i JOIN node n ON n.folder = i.id AND n.line <> 0"
                            + " JOIN version v ON v.line = n.line AND v.node = n.id AND v.origin <> 1 UNION ALL"
                            + " SELECT e.at FROM inside i JOIN node n ON n.folder = i.id AND n.line <> 0"
                            + " JOIN event e ON e.line = n.line AND e.kind <= 4"
                            + " AND n.id IN (e.origin_node, e.target_node))"
                            + " SELECT max(at) FROM change",
                    folder.get());
        } else {
            found = 0;
        }
        return found == 0 ? Optional.empty() : Optional.of(Moment.instant(found));
    }

    /** How a place stands. */
    public PlaceState state(Place place) throws IOException {
        return new PlaceQuery(sql).state(place, names);
    }

    /** How much the vault holds and takes. */
    public Space space() throws IOException {
        return new PlaceQuery(sql).space();
    }

    void dispose() throws IOException {
        if (contents != null) {
            contents.close();
        }
        sql.close();
    }

    @Override
    public void close() throws IOException {
        try {
            endState();
        } catch (IOException e) {
            // A view that cannot be ended serves nobody any longer.
            dispose();
            return;
        }
        vault.giveBack(this);
    }
}
