package org.mendedleaf.core.line;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What somebody wants to be different about a protected folder. What is not named stays as it is; a folder that is
 * protected with this for the first time begins with what is usual.
 *
 * @param rhythm how often it is captured; null when that was not named
 * @param excluded patterns to leave out from now on, beside those that are left out already
 * @param included patterns to leave out no longer
 */
public record PlaceChange(@Nullable Rhythm rhythm, List<String> excluded, List<String> included) {

    /** Copies the lists. */
    public PlaceChange {
        excluded = List.copyOf(excluded);
        included = List.copyOf(included);
    }

    /** Only how often it is captured. */
    public static PlaceChange to(Rhythm rhythm) {
        return new PlaceChange(rhythm, List.of(), List.of());
    }

    /** Whether a place is like that already. */
    public boolean changesNothing(Place place) {
        return rhythmOver(Optional.of(place)).equals(place.rhythm())
                && exclusionsOver(Optional.of(place)).equals(place.exclusions());
    }

    /** A place as it is with this. */
    public Place over(Place before) {
        return new Place(
                before.id(),
                before.source(),
                before.name(),
                rhythmOver(Optional.of(before)),
                exclusionsOver(Optional.of(before)),
                before.created(),
                before.versioning());
    }

    public Rhythm rhythmOver(Optional<Place> before) {
        return rhythm != null ? rhythm : before.map(Place::rhythm).orElse(Rhythm.ON_SAVE);
    }

    public List<String> exclusionsOver(Optional<Place> before) {
        List<String> all = new ArrayList<>(before.map(Place::exclusions).orElse(List.of()));
        all.removeAll(included);
        excluded.stream().filter(p -> !all.contains(p)).forEach(all::add);
        return all;
    }
}
