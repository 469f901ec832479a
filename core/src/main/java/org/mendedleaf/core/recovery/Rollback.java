package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Difference;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Words;

/**
 * Folders or files that shall be again as they were at a moment.
 *
 * @param paths from the place's root; the empty path is all of it
 * @param at the moment
 * @param removeLater whether files that came later are removed, such that they can be brought back; otherwise they stay
 */
public record Rollback(List<String> paths, Instant at, boolean removeLater) {

    /** Copies the list. */
    public Rollback {
        paths = List.copyOf(paths);
    }

    /**
     * What has to be done for it: only what is not as it was.
     *
     * @throws java.io.InterruptedIOException when somebody asked to stop
     */
    public RestoreRequest request(Reading reading, Place place, Progress progress) throws IOException {
        Map<String, RestoreItem> requested = new TreeMap<>();
        Map<String, RestoreRequest.Late> late = new TreeMap<>();
        Map<String, TreeAt.Folder> folders = new TreeMap<>();
        Set<String> lateFolders = new HashSet<>();
        // How many there are in all is not known before the last folder.
        progress.begin(Words.of("plan.reading"), 0, 0);
        for (String path : paths) {
            Optional<Line> line = path.isEmpty() ? Optional.empty() : reading.line(place, path);
            if (line.isPresent() && !isFolderThen(reading, place, path)) {
                file(reading, line.get(), requested);
                continue;
            }
            if (!reading.folders().isFolder(place, path)) {
                throw new IllegalArgumentException(Words.of("cli.noLine", path));
            }
            folder(reading, place, path, requested, late, folders, lateFolders, progress);
        }
        List<String> deepestFirst = new ArrayList<>(lateFolders);
        deepestFirst.sort(java.util.Comparator.reverseOrder());
        return new RestoreRequest(
                ActionKind.ROLLED_BACK,
                List.copyOf(requested.values()),
                Collisions.all(Collision.REPLACE),
                List.copyOf(late.values()),
                List.copyOf(folders.values()),
                removeLater ? deepestFirst : inTheWay(deepestFirst, requested.keySet()));
    }

    /** Of folders that came later those that have the name of a file of that moment, and what is in these. */
    private static List<String> inTheWay(List<String> lateFolders, Set<String> files) {
        return lateFolders.stream().filter(late -> isWithinAny(late, files)).toList();
    }

    private static boolean isWithinAny(String path, Set<String> files) {
        String above = path;
        while (!above.isEmpty() && !files.contains(above)) {
            above = RelativePath.parent(above);
        }
        return !above.isEmpty();
    }

    private boolean isFolderThen(Reading reading, Place place, String path) throws IOException {
        return reading.folders().isFolder(place, path)
                && (!reading.folders().listing(place, path, at, false).isEmpty()
                        || !reading.folders()
                                .listing(place, path, Moment.FAR, false)
                                .isEmpty());
    }

    /** A chosen file goes back to the version and the path that it had; one that was not there then stays. */
    private void file(Reading reading, Line line, Map<String, RestoreItem> requested) throws IOException {
        int number = reading.lines()
                .numberAt(line.id(), at)
                .orElseThrow(() -> new IllegalArgumentException(Words.of("rollback.notThere", line.path())));
        Version then = line.version(number).orElseThrow();
        String path = reading.lines().pathAt(line.id(), at).orElse(then.path());
        boolean live = line.removed().isEmpty();
        boolean same = live
                && path.equals(line.path())
                && line.newest().map(v -> v.sameContent(then)).orElse(false);
        if (!same) {
            requested.put(path, new RestoreItem(then, path, live && !path.equals(line.path()) ? line.path() : ""));
        }
    }

    private void folder(
            Reading reading,
            Place place,
            String path,
            Map<String, RestoreItem> requested,
            Map<String, RestoreRequest.Late> late,
            Map<String, TreeAt.Folder> folders,
            Set<String> lateFolders,
            Progress progress)
            throws IOException {
        Difference difference = reading.folders().difference(place, path, at, Moment.FAR);
        Map<Long, Version> versions = new HashMap<>();
        List<TwoMoments.Change> changes = TwoMoments.of(difference).changes();
        for (TwoMoments.Change c : changes) {
            progress.stopIfCancelled();
            progress.advance(1, 0);
            Optional<Difference.At> before = c.before();
            if (before.isPresent()) {
                Version then = version(reading, c.line(), before.get(), versions);
                String now = c.after().map(Difference.At::path).orElse("");
                String target = before.get().path();
                requested.put(target, new RestoreItem(then, target, now.equals(target) ? "" : now));
            } else {
                Difference.At now = c.after().orElseThrow();
                late.put(
                        now.path(),
                        new RestoreRequest.Late(version(reading, c.line(), now, versions), now.path(), removeLater));
            }
        }
        Set<String> now = new HashSet<>();
        Set<String> then = new HashSet<>();
        difference.after().stream().filter(a -> a.kind() == EntryKind.FOLDER).forEach(a -> now.add(a.path()));
        for (Difference.At b : difference.before()) {
            if (b.kind() == EntryKind.FOLDER && then.add(b.path()) && !now.contains(b.path())) {
                folders.put(b.path(), new TreeAt.Folder(b.path(), b.mtimeNanos(), b.mode()));
            }
        }
        now.removeAll(then);
        lateFolders.addAll(now);
    }

    private static Version version(Reading reading, long line, Difference.At at, Map<Long, Version> known)
            throws IOException {
        Version v = known.get(line);
        if (v == null || v.number() != at.number()) {
            v = reading.version(line, at.number())
                    .orElseThrow(() -> new IllegalStateException("expected version " + at.number() + " of " + line));
            known.put(line, v);
        }
        return v.looking(at.mtimeNanos(), at.mode());
    }
}
