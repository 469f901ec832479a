package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.catalogue.HeldLines;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/**
 * What is held of other systems. None of them can be kept from forgetting one version, so the vault takes what is held,
 * and keeps it; what comes onto a held line later is taken at the next scan.
 */
public final class OutsideHolds {

    private final OpenVault vault;
    private final SystemRegistry registry;

    /** What this vault holds of other systems. */
    public OutsideHolds(OpenVault vault, SystemRegistry registry) {
        this.vault = vault;
        this.registry = registry;
    }

    /**
     * What came of it.
     *
     * @param versions that were taken into the vault
     * @param failed why others were not, by their path and number; they are tried again at the next scan
     */
    public record Taken(int versions, Map<String, String> failed) {

        /** Copies, in order. */
        public Taken {
            failed = new LinkedHashMap<>(failed);
        }
    }

    /** Takes into the vault what is held in a place and is not there yet. */
    public Taken take(Place place, Instant now, Progress progress) throws IOException {
        List<Version> missing = missing(place, now);
        progress.begin(
                Words.of("outside.holding", place.where()),
                missing.size(),
                missing.stream().mapToLong(Version::size).sum());
        ContentFetch fetch = new ContentFetch(vault, registry);
        Map<String, String> failed = new LinkedHashMap<>();
        int taken = 0;
        for (Version v : missing) {
            if (progress.isCancelled()) {
                break;
            }
            try {
                fetch.intoVault(v, Progress.NONE);
                taken++;
            } catch (SystemException e) {
                failed.put(OutsideErasing.named(v), e.words());
            }
            progress.advance(1, v.size());
        }
        return new Taken(taken, failed);
    }

    private List<Version> missing(Place place, Instant now) throws IOException {
        List<Version> found = new ArrayList<>();
        try (Reading reading = vault.read()) {
            List<Hold> holds = HoldStore.of(reading).standing().stream()
                    .filter(h -> h.place() == place.id() && h.holds(now))
                    .toList();
            if (holds.isEmpty()) {
                return found;
            }
            boolean folders = holds.stream().anyMatch(h -> h.kind() == Hold.Kind.FOLDER);
            List<Long> lines = folders
                    ? reading.lines().ids(place)
                    : holds.stream()
                            .map(Hold::line)
                            .filter(l -> l != 0)
                            .distinct()
                            .toList();
            for (long id : lines) {
                Line line = reading.line(id).orElseThrow();
                for (Version v : line.versions()) {
                    // What nobody holds any longer is gone, and no hold brings it back.
                    if (v.recipe().isElsewhere()
                            && HeldLines.covering(reading, holds, place, line, v.number())
                                    .isPresent()
                            && reading.outside().holders(line).containsKey(v.number())) {
                        found.add(v);
                    }
                }
            }
        }
        return found;
    }
}
