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
public record History(long place, List<Save> saves, List<Turn> turns) {

    /** Puts them in order of time. */
    public History {
        saves = saves.stream()
                .sorted(Comparator.comparing(Save::at).thenComparing(Save::line).thenComparing(Save::number))
                .toList();
        turns = turns.stream()
                .sorted(Comparator.comparing(Turn::at).thenComparing(Turn::line))
                .toList();
    }

    /** The versions of each file, oldest first. */
    public Map<Long, List<Save>> byLine() {
        Map<Long, List<Save>> lines = new HashMap<>();
        for (Save save : saves) {
            lines.computeIfAbsent(save.line(), k -> new ArrayList<>()).add(save);
        }
        lines.values().forEach(l -> l.sort(Comparator.comparing(Save::number)));
        return lines;
    }
}
