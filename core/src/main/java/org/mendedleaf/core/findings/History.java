package org.mendedleaf.core.findings;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What happened in a place, as detectors see it.
 *
 * @param place its id
 * @param saves all versions, by time
 * @param turns renames and removals, by time
 */
public record History(long place, List<SavedVersion> saves, List<NameChange> turns) {

    /** Puts them in order of time. */
    public History {
        saves = saves.stream()
                .sorted(Comparator.comparing(SavedVersion::at)
                        .thenComparing(SavedVersion::line)
                        .thenComparing(SavedVersion::number))
                .toList();
        turns = turns.stream()
                .sorted(Comparator.comparing(NameChange::at).thenComparing(NameChange::line))
                .toList();
    }

    /** The versions of each file, oldest first. */
    public Map<Long, List<SavedVersion>> byLine() {
        Map<Long, List<SavedVersion>> lines = new HashMap<>();
        for (SavedVersion save : saves) {
            lines.computeIfAbsent(save.line(), k -> new ArrayList<>()).add(save);
        }
        lines.values().forEach(l -> l.sort(Comparator.comparing(SavedVersion::number)));
        return lines;
    }
}
