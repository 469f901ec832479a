package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Difference;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Totals;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;

/** What folders hold, and held at a moment. */
public final class FolderQuery {

    private final Sql sql;
    private final PathIds names;

    FolderQuery(Sql sql, PathIds names) {
        this.sql = sql;
        this.names = names;
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

    /** A folder with all below it at a moment, with the versions of its files. */
    public TreeAt treeAt(Place place, String folder, Instant at) throws IOException {
        return treeAt(place, folder, at, Progress.NONE, UnaryOperator.identity());
    }

    /**
     * As {@link #treeAt(Place, String, Instant)}, for what may be a million files.
     *
     * @param progress each file that was read counts as done
     * @param same gives a version for one that was read, which may be one that is in memory already
     * @throws java.io.InterruptedIOException when somebody asked to stop
     */
    public TreeAt treeAt(Place place, String folder, Instant at, Progress progress, UnaryOperator<Version> same)
            throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        return id.isEmpty()
                ? new TreeAt(new TreeMap<>(), List.of())
                : new TreeQuery(sql).at(id.get(), folder, Moment.micros(at), progress, same);
    }

    /** What differs in a folder and below it between two moments, the earlier one first. */
    public Difference difference(Place place, String folder, Instant from, Instant to) throws IOException {
        Optional<Long> id = names.folder(place.id(), folder);
        return id.isEmpty() || !from.isBefore(to)
                ? new Difference(List.of(), List.of())
                : new TreeQuery(sql).difference(id.get(), folder, Moment.micros(from), Moment.micros(to));
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
}
