package org.mendedleaf.core.systems;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;

/**
 * Finds the same file in other places: by declaration (a folder is backed up, shared or filed there), and by equal
 * content. Equal content counts when the name is the same too, or when only one file of a place has it; an empty file
 * says nothing.
 */
final class Relatives {

    /** Contents that are looked up, the newest first. */
    private static final int MOST = 200;

    private Relatives() {}

    static List<Line> of(Reading reading, Line line, Map<Integer, Digest> digests) throws IOException {
        Map<Long, Place> places = new LinkedHashMap<>();
        reading.places().forEach(p -> places.put(p.id(), p));
        Set<Long> found = new LinkedHashSet<>();
        declared(reading, line, places, found);
        equal(reading, line, digests, found);
        found.remove(line.id());
        List<Line> lines = new ArrayList<>();
        for (long id : found) {
            reading.line(id).ifPresent(lines::add);
        }
        return lines;
    }

    private record At(long place, String path) {}

    /** Follows declarations from place to place. */
    private static void declared(Reading reading, Line line, Map<Long, Place> places, Set<Long> found)
            throws IOException {
        List<Relation> relations = reading.outside().relations();
        if (relations.isEmpty()) {
            return;
        }
        Deque<At> open = new ArrayDeque<>(List.of(new At(line.place().id(), line.path())));
        Set<At> seen = new HashSet<>(open);
        while (!open.isEmpty()) {
            At at = open.pop();
            for (Relation r : relations) {
                Optional<String> there = r.there(at.place(), at.path());
                Place place = places.get(r.end(at.place()));
                if (there.isPresent() && place != null && seen.add(new At(place.id(), there.get()))) {
                    reading.line(place, there.get()).ifPresent(l -> found.add(l.id()));
                    open.push(new At(place.id(), there.get()));
                }
            }
        }
    }

    private static void equal(Reading reading, Line line, Map<Integer, Digest> digests, Set<Long> found)
            throws IOException {
        int n = 0;
        Set<Digest> asked = new HashSet<>();
        for (Version v : line.versions()) {
            Digest sha = v.sha256().orElse(digests.get(v.number()));
            if (sha == null || v.size() == 0 || !asked.add(sha) || ++n > MOST) {
                continue;
            }
            List<Long> with = new ArrayList<>(reading.content().outsideLines(sha));
            if (line.place().isOutside()) {
                with.addAll(reading.content().folderLines(sha, v.size()));
            }
            accept(reading, line, with, found);
        }
    }

    private static void accept(Reading reading, Line line, List<Long> candidates, Set<Long> found) throws IOException {
        Map<Long, List<Line>> byPlace = new LinkedHashMap<>();
        for (long id : candidates) {
            Optional<Line> other = found.contains(id) ? Optional.empty() : reading.line(id);
            if (other.isPresent() && other.get().place().id() != line.place().id()) {
                byPlace.computeIfAbsent(other.get().place().id(), p -> new ArrayList<>())
                        .add(other.get());
            }
        }
        for (List<Line> lines : byPlace.values()) {
            for (Line other : lines) {
                if (lines.size() == 1 || other.name().equalsIgnoreCase(line.name())) {
                    found.add(other.id());
                }
            }
        }
    }
}
