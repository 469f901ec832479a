package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Makes scattered copies the versions of one file, and removes the copies. The contents go onto the line in their order,
 * each as a version of its own; a copy is removed only when its content is on the line.
 */
final class FoldWork {

    private final InPlace files;
    private final Reading reading;
    private final JournalWriter noting;
    private final ZoneId zone;
    private final Map<String, Integer> versions = new LinkedHashMap<>();
    private final List<String> removed = new ArrayList<>();
    private final Map<String, String> failed = new LinkedHashMap<>();

    FoldWork(InPlace files, Reading reading, JournalWriter noting, ZoneId zone) {
        this.files = files;
        this.reading = reading;
        this.noting = noting;
        this.zone = zone;
    }

    FoldResult run(List<Folding> foldings, Progress progress) throws IOException {
        int steps = foldings.stream().mapToInt(f -> f.order().size()).sum();
        progress.begin(Words.of("fold.step"), steps, 0);
        boolean cancelled = false;
        for (Folding f : foldings) {
            if (progress.isCancelled()) {
                cancelled = true;
                break;
            }
            fold(f, progress);
        }
        noting.end(failed.size());
        return new FoldResult(noting.action(), versions, removed, failed, cancelled);
    }

    private void fold(Folding f, Progress progress) throws IOException {
        Map<String, Version> contents = contents(f);
        if (contents.isEmpty()) {
            return;
        }
        Digest current = null;
        boolean begun = false;
        int added = 0;
        List<String> onTheLine = new ArrayList<>();
        for (Map.Entry<String, Version> e : contents.entrySet()) {
            String path = e.getKey();
            Version v = e.getValue();
            boolean isKept = path.equals(f.keep());
            // What the kept file holds stands on its line already, unless something came after it now.
            boolean there = isKept ? !begun : current != null && v.digest().equals(current);
            if (!there) {
                String why = put(f.keep(), v, isKept);
                if (why != null) {
                    failed.put(path, why);
                    continue;
                }
                begun = true;
                added++;
            }
            current = v.digest();
            if (!isKept) {
                onTheLine.add(path);
            }
        }
        versions.merge(f.keep(), added, Integer::sum);
        List<Task> tasks =
                onTheLine.stream().map(p -> (Task) new Task.Remove(p)).toList();
        // A fold that was begun is brought to its end: its contents are on the line.
        List<Task.Outcome> outcomes = files.run(tasks, noting, Progress.NONE);
        for (int i = 0; i < tasks.size(); i++) {
            if (outcomes.get(i).isGood()) {
                removed.add(onTheLine.get(i));
            } else {
                failed.put(onTheLine.get(i), outcomes.get(i).why());
            }
        }
        progress.advance(f.order().size(), 0);
    }

    /** The current contents of the copies, in their order. */
    private Map<String, Version> contents(Folding f) throws IOException {
        Map<String, Version> found = new LinkedHashMap<>();
        for (String path : f.order()) {
            Optional<LiveEntry> live = files.live(path);
            if (live.isEmpty() || live.get().kind() != EntryKind.FILE) {
                failed.put(path, Words.of("fold.notKept"));
                continue;
            }
            LiveEntry l = live.get();
            found.put(path, reading.version(l.line(), l.number()).orElseThrow().looking(l.mtimeNanos(), l.mode()));
        }
        boolean others = found.keySet().stream().anyMatch(p -> !p.equals(f.keep()));
        return others ? found : Map.of();
    }

    /** Puts a content onto the line of the kept file. Returns why it could not be done; null when it was. */
    private @Nullable String put(String keep, Version v, boolean isKept) throws IOException {
        Optional<LiveEntry> live = files.live(keep);
        Version next = isKept ? v : folded(v, live.map(LiveEntry::line).orElse(endedUnder(keep)));
        Task.Outcome o = files.run(List.of(new Task.Put(next, keep, live.isPresent(), "")), noting, Progress.NONE)
                .get(0);
        return o.isGood() ? null : o.why();
    }

    private long endedUnder(String path) throws IOException {
        Optional<Long> folder = files.lines().knownFolder(noting.place(), RelativePath.parent(path));
        return folder.isEmpty()
                ? 0
                : files.lines()
                        .gone(folder.get(), RelativePath.name(path))
                        .map(LineWriter.Gone::line)
                        .orElse(0L);
    }

    private Version folded(Version v, long line) {
        String note = Words.of(
                "fold.note",
                RelativePath.name(v.path()),
                Formats.full(Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)), zone));
        String whole = v.note().isEmpty() ? note : note + " " + v.note();
        return new Version(line, 0, v.saved(), v.captured(), v.who(), Origin.FOLDED, 0, v.file(), whole, v.path());
    }
}
