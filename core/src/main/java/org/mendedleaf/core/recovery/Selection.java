package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Totals;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/**
 * Files and folders that somebody chose at a moment: what was there then, whole folders with all below them; of what was
 * removed by then, its newest content.
 *
 * @param paths from the place's root; the empty path is all of it
 * @param at the moment
 */
public record Selection(List<String> paths, Instant at) {

    /** Copies the list. */
    public Selection {
        paths = List.copyOf(paths);
    }

    /**
     * What to restore for it.
     *
     * @param elsewhere whether it goes somewhere else: then paths count from the folder that all of it has in common
     * @throws java.io.InterruptedIOException when somebody asked to stop
     */
    public RestoreRequest request(
            Reading reading, Place place, boolean elsewhere, Collisions collisions, Progress progress)
            throws IOException {
        return request(reading, place, elsewhere, collisions, progress, UnaryOperator.identity());
    }

    /**
     * As {@link #request(Reading, Place, boolean, Collisions, Progress)}, for a million files.
     *
     * @param same see {@link SameVersions}
     */
    public RestoreRequest request(
            Reading reading,
            Place place,
            boolean elsewhere,
            Collisions collisions,
            Progress progress,
            UnaryOperator<Version> same)
            throws IOException {
        Listings listings = new Listings(reading, place);
        // Of paths in many folders it is not said how many files they are: to count them is to list all these folders
        // twice.
        boolean counted = paths.stream()
                        .map(RelativePath::parent)
                        .distinct()
                        .limit(Listings.FOLDERS + 1)
                        .count()
                <= Listings.FOLDERS;
        progress.begin(Words.of("plan.reading"), counted ? sum(listings).files() : 0, 0);
        Map<String, Version> files = new TreeMap<>();
        Map<String, TreeAt.Folder> folders = new TreeMap<>();
        for (String path : paths) {
            add(listings, path, files, folders, progress, same);
            progress.stopIfCancelled();
        }
        String above = elsewhere ? common(paths) : "";
        List<RestoreItem> requested = new ArrayList<>();
        files.forEach((path, v) -> requested.add(new RestoreItem(v, below(above, path))));
        List<TreeAt.Folder> wanted = folders.values().stream()
                .map(f -> new TreeAt.Folder(below(above, f.path()), f.mtimeNanos(), f.mode()))
                .toList();
        return RestoreRequest.restore(requested, collisions, wanted);
    }

    /**
     * How much it is.
     *
     * @param files how many
     * @param bytes of them
     */
    public record Sum(long files, long bytes) {
        private Sum and(long more, long size) {
            return new Sum(files + more, bytes + size);
        }
    }

    /** How much {@link #request} would bring back; of folders the catalogue tells the sums, since there may be a million files in them. */
    public Sum sum(Reading reading, Place place) throws IOException {
        return sum(new Listings(reading, place));
    }

    private Sum sum(Listings listings) throws IOException {
        Reading reading = listings.reading;
        Place place = listings.place;
        Sum sum = new Sum(0, 0);
        for (String path : paths) {
            Optional<Entry> entry = listings.chosen(path);
            if (entry.isPresent() && entry.get().removed().isPresent()) {
                sum = removed(reading, place, path, entry.get(), sum);
            } else if (entry.isPresent() && entry.get().kind() != EntryKind.FOLDER) {
                sum = sum.and(1, entry.get().size());
            } else {
                Totals all = reading.folders().totals(place, path, at);
                sum = sum.and(all.files(), all.size());
            }
        }
        return sum;
    }

    private Sum removed(Reading reading, Place place, String path, Entry entry, Sum sum) throws IOException {
        if (entry.kind() != EntryKind.FOLDER) {
            return sum.and(1, entry.size());
        }
        Sum all = sum;
        for (Entry inside : reading.folders().listing(place, path, at, true)) {
            all = removed(reading, place, RelativePath.child(path, inside.name()), inside, all);
        }
        return all;
    }

    /** What is in the folders that paths are in: each is listed once, though a hundred thousand of the paths may be in one. */
    private final class Listings {
        /** Paths that follow each other are in few folders. */
        private static final int FOLDERS = 16;

        private final Reading reading;
        private final Place place;
        private final Map<String, Map<String, Entry>> known = new LinkedHashMap<>(FOLDERS, 0.75f, true) {
            private static final long serialVersionUID = 1;

            @Override
            protected boolean removeEldestEntry(Map.Entry<String, Map<String, Entry>> eldest) {
                return size() > FOLDERS;
            }
        };

        Listings(Reading reading, Place place) {
            this.reading = reading;
            this.place = place;
        }

        /** What was chosen; empty for the whole place. */
        Optional<Entry> chosen(String path) throws IOException {
            Optional<Entry> entry = path.isEmpty() ? Optional.empty() : entry(path);
            if (!path.isEmpty() && entry.isEmpty()) {
                throw new IllegalArgumentException(Words.of("selection.notThere", path));
            }
            return entry;
        }

        private Optional<Entry> entry(String path) throws IOException {
            String folder = RelativePath.parent(path);
            Map<String, Entry> entries = known.get(folder);
            if (entries == null) {
                entries = new HashMap<>();
                for (Entry e : reading.folders().listing(place, folder, at, true)) {
                    entries.putIfAbsent(e.name(), e);
                }
                known.put(folder, entries);
            }
            return Optional.ofNullable(entries.get(RelativePath.name(path)));
        }
    }

    private void add(
            Listings listings,
            String path,
            Map<String, Version> files,
            Map<String, TreeAt.Folder> folders,
            Progress progress,
            UnaryOperator<Version> same)
            throws IOException {
        Reading reading = listings.reading;
        Place place = listings.place;
        Optional<Entry> entry = listings.chosen(path);
        if (entry.isPresent() && entry.get().removed().isPresent()) {
            removed(reading, place, path, entry.get(), files, progress);
        } else if (entry.isPresent() && entry.get().kind() != EntryKind.FOLDER) {
            Entry e = entry.get();
            files.put(path, reading.version(e.line(), e.number()).orElseThrow().looking(e.mtimeNanos(), e.mode()));
            progress.advance(1, 0);
        } else {
            TreeAt tree = reading.folders().treeAt(place, path, at, progress, same);
            files.putAll(tree.files());
            entry.ifPresent(e -> folders.put(path, new TreeAt.Folder(path, e.mtimeNanos(), e.mode())));
            tree.folders().forEach(f -> folders.put(f.path(), f));
        }
    }

    /** What was removed from a folder, and from all below it. */
    private void removed(
            Reading reading, Place place, String path, Entry entry, Map<String, Version> files, Progress progress)
            throws IOException {
        progress.stopIfCancelled();
        if (entry.kind() != EntryKind.FOLDER) {
            files.put(
                    path,
                    reading.version(entry.line(), entry.number())
                            .orElseThrow()
                            .looking(entry.mtimeNanos(), entry.mode()));
            progress.advance(1, 0);
            return;
        }
        for (Entry inside : reading.folders().listing(place, path, at, true)) {
            removed(reading, place, RelativePath.child(path, inside.name()), inside, files, progress);
        }
    }

    /** All that is removed in a folder and below it, as somebody would choose it. */
    public static List<String> removedIn(Reading reading, Place place, String folder, Instant at) throws IOException {
        List<String> found = new ArrayList<>();
        Deque<String> left = new ArrayDeque<>(List.of(folder));
        while (!left.isEmpty()) {
            String in = left.removeFirst();
            for (Entry e : reading.folders().listing(place, in, at, true)) {
                String path = RelativePath.child(in, e.name());
                if (e.removed().isPresent()) {
                    found.add(path);
                } else if (e.kind() == EntryKind.FOLDER) {
                    left.addLast(path);
                }
            }
        }
        return found;
    }

    /** The folder that has all of these in it. */
    static String common(Collection<String> paths) {
        List<String> common = null;
        for (String path : paths) {
            List<String> above = path.isEmpty() ? List.of() : RelativePath.names(RelativePath.parent(path));
            if (common == null) {
                common = above;
            } else {
                int same = 0;
                while (same < Math.min(common.size(), above.size())
                        && common.get(same).equals(above.get(same))) {
                    same++;
                }
                common = common.subList(0, same);
            }
        }
        return common == null ? "" : String.join("/", common);
    }

    private static String below(String above, String path) {
        return above.isEmpty() ? path : path.substring(above.length() + 1);
    }
}
