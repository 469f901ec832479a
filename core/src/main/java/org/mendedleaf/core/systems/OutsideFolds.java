package org.mendedleaf.core.systems;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.FoldResult;
import org.mendedleaf.core.recovery.Folding;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Makes copies in a place of another system the versions of one file each. */
final class OutsideFolds {

    private final OutsideFiles files;

    OutsideFolds(OutsideFiles files) {
        this.files = files;
    }

    /** Makes copies the versions of one file each: their contents go in one after the other, then they are removed. */
    FoldResult fold(List<Folding> foldings, Progress progress) throws IOException {
        files.look(Progress.NONE);
        Map<String, Integer> before = new LinkedHashMap<>();
        Map<String, Integer> versions = new LinkedHashMap<>();
        Map<String, String> failed = new LinkedHashMap<>();
        List<String> removed = new ArrayList<>();
        progress.begin(
                Words.of("fold.step"),
                foldings.stream().mapToInt(f -> f.order().size()).sum(),
                0);
        boolean cancelled = false;
        for (Folding f : foldings) {
            if (progress.isCancelled()) {
                cancelled = true;
                break;
            }
            Map<String, Integer> touched = new LinkedHashMap<>();
            touched.put(f.keep(), OutsideFiles.current(files.line(f.keep())));
            for (String path : f.order()) {
                touched.put(path, OutsideFiles.current(files.line(path)));
            }
            before.putAll(touched);
            fold(f, versions, failed, removed);
            progress.advance(f.order().size(), 0);
        }
        files.look(Progress.NONE);
        long action = files.note(ActionKind.FOLDED, 0, before, new HashMap<>());
        return new FoldResult(action, versions, removed, failed, cancelled);
    }

    private void fold(Folding f, Map<String, Integer> versions, Map<String, String> failed, List<String> removed)
            throws IOException {
        Map<String, Version> contents = new LinkedHashMap<>();
        for (String path : f.order()) {
            Optional<Version> v =
                    files.line(path).filter(l -> l.removed().isEmpty()).flatMap(Line::newest);
            if (v.isPresent()) {
                contents.put(path, v.get());
            } else {
                failed.put(path, Words.of("fold.notKept"));
            }
        }
        if (contents.keySet().stream().allMatch(f.keep()::equals)) {
            return;
        }
        files.secure(f.keep());
        Version current = null;
        boolean begun = false;
        int added = 0;
        for (Map.Entry<String, Version> e : contents.entrySet()) {
            boolean isKept = e.getKey().equals(f.keep());
            Version v = e.getValue();
            boolean there = isKept ? !begun : current != null && current.sameContent(v);
            try {
                if (!there) {
                    if (begun) {
                        // A system that keeps no versions would have forgotten this one with the next.
                        files.look(Progress.NONE);
                        files.secure(f.keep());
                    }
                    files.putContent(f.keep(), v, isKept ? v.note() : note(v));
                    begun = true;
                    added++;
                }
                current = v;
                if (!isKept) {
                    files.secure(e.getKey());
                    files.remove(e.getKey());
                    removed.add(e.getKey());
                }
            } catch (SystemException x) {
                failed.put(e.getKey(), x.words());
            }
        }
        versions.merge(f.keep(), added, Integer::sum);
    }

    private String note(Version v) {
        String words = Words.of(
                "fold.note",
                RelativePath.name(v.path()),
                Formats.full(Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)), files.clock.getZone()));
        return v.note().isEmpty() ? words : words + " " + v.note();
    }
}
