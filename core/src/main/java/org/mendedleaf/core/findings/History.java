package org.mendedleaf.core.findings;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What happened in a place, as detectors see it. There may be a million files in it. Not for several threads. */
public final class History {

    private final long place;
    private final List<SavedVersion> saves;
    private final List<NameChange> turns;
    private @Nullable Map<Long, List<SavedVersion>> lines;

    /** Puts all versions, renames and removals of a place in order of time. */
    public History(long place, List<SavedVersion> saves, List<NameChange> turns) {
        this.place = place;
        this.saves = saves.stream()
                .sorted(Comparator.comparing(SavedVersion::at)
                        .thenComparing(SavedVersion::line)
                        .thenComparing(SavedVersion::number))
                .toList();
        this.turns = turns.stream()
                .sorted(Comparator.comparing(NameChange::at).thenComparing(NameChange::line))
                .toList();
    }

    /** The id of the place. */
    public long place() {
        return place;
    }

    /** All versions, by time. */
    public List<SavedVersion> saves() {
        return saves;
    }

    /** Renames and removals, by time. */
    public List<NameChange> turns() {
        return turns;
    }

    /** The versions of each file, oldest first; gathered once. Most files of a large place have one. */
    public Map<Long, List<SavedVersion>> byLine() {
        if (lines == null) {
            Map<Long, List<SavedVersion>> all = new HashMap<>();
            for (SavedVersion save : saves) {
                all.merge(save.line(), List.of(save), History::more);
            }
            all.values().stream()
                    .filter(l -> l.size() > 1)
                    .forEach(l -> l.sort(Comparator.comparing(SavedVersion::number)));
            lines = all;
        }
        return lines;
    }

    private static List<SavedVersion> more(List<SavedVersion> before, List<SavedVersion> one) {
        List<SavedVersion> all = before.size() == 1 ? new ArrayList<>(before) : before;
        all.addAll(one);
        return all;
    }
}
