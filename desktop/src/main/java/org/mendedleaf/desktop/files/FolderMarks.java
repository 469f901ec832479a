package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Difference;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/** How a folder of the past, and all below it, stands to now. */
final class FolderMarks {

    static final FolderMarks NONE = new FolderMarks();

    private final Map<String, FileRow.Change> byPath = new HashMap<>();
    private final Map<String, ChangesSince> byFolder = new HashMap<>();
    private final Map<String, List<String>> added = new HashMap<>();

    private FolderMarks() {}

    static FolderMarks of(Reading reading, Place place, String folder, Instant past) throws java.io.IOException {
        Difference difference = reading.folders().difference(place, folder, past, Moment.FAR);
        FolderMarks marks = new FolderMarks();
        for (TwoMoments.Change c : TwoMoments.of(difference).changes()) {
            switch (c.kind()) {
                case ADDED -> {
                    marks.added(c.path());
                    marks.count(c.path(), folder, new ChangesSince(0, 0, 1, 0));
                }
                case REMOVED -> marks.mark(c, folder, FileRow.Change.REMOVED, new ChangesSince(0, 1, 0, 0));
                case CHANGED -> marks.mark(c, folder, FileRow.Change.CHANGED, new ChangesSince(1, 0, 0, 0));
                case MOVED, MOVED_AND_CHANGED ->
                    marks.mark(c, folder, FileRow.Change.MOVED, new ChangesSince(0, 0, 0, 1));
            }
        }
        Set<String> then = new HashSet<>();
        difference.before().stream().filter(b -> b.kind() == EntryKind.FOLDER).forEach(b -> then.add(b.path()));
        Set<String> now = new HashSet<>();
        difference.after().stream().filter(a -> a.kind() == EntryKind.FOLDER).forEach(a -> now.add(a.path()));
        now.stream().filter(p -> !then.contains(p)).forEach(marks::added);
        then.stream().filter(p -> !now.contains(p)).forEach(p -> marks.byPath.put(p, FileRow.Change.REMOVED));
        return marks;
    }

    private void added(String path) {
        added.computeIfAbsent(RelativePath.parent(path), p -> new ArrayList<>()).add(RelativePath.name(path));
    }

    private void mark(TwoMoments.Change c, String top, FileRow.Change against, ChangesSince since) {
        String path = c.before().orElseThrow().path();
        byPath.put(path, against);
        count(path, top, since);
    }

    private void count(String path, String top, ChangesSince since) {
        String at = path;
        do {
            at = RelativePath.parent(at);
            byFolder.merge(at, since, ChangesSince::plus);
        } while (!at.equals(top) && !at.isEmpty());
    }

    FileRow.Change against(String path) {
        return byPath.getOrDefault(path, FileRow.Change.SAME);
    }

    ChangesSince since(String folder) {
        return byFolder.getOrDefault(folder, ChangesSince.NOTHING);
    }

    /** Names in a folder that were not there then. */
    Set<String> added(String folder, boolean shown) {
        return shown ? Set.copyOf(added.getOrDefault(folder, List.of())) : Set.of();
    }

    int countAdded(String folder) {
        return added.getOrDefault(folder, List.of()).size();
    }
}
