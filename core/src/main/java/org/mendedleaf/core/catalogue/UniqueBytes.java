package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.Recipe;

/** What only some versions hold: the stored bytes of those of their chunks that no other version needs. */
public final class UniqueBytes {

    private UniqueBytes() {}

    /** As {@link #storedBytes(Reading, long, Set)}, of one version. */
    public static long storedBytes(Reading reading, Version version) throws IOException {
        return storedBytes(reading, version.line(), Set.of(version.number()));
    }

    /**
     * Counts them, exactly. The other versions of the line are asked first: where they need everything, as is common, no others
     * are. Otherwise the recipes of all versions are gone through, one at a time.
     *
     * @param line of the versions
     * @param numbers of the versions
     * @return bytes in packs that nothing but these versions needs
     */
    public static long storedBytes(Reading reading, long line, Set<Integer> numbers) throws IOException {
        Map<Integer, Recipe> recipes = new HashMap<>();
        reading.sql()
                .each(
                        "SELECT number, recipe FROM version WHERE line = ?",
                        r -> recipes.put(r.getInt(1), Recipe.decode(r.getBytes(2))),
                        line);
        Map<Integer, Integer> stored = new HashMap<>();
        BitSet own = new BitSet();
        for (int number : numbers) {
            Recipe recipe = recipes.get(number);
            if (recipe != null && !recipe.isElsewhere()) {
                for (ChunkPlace chunk : reading.contents().places(recipe)) {
                    own.set((int) chunk.id());
                    stored.put((int) chunk.id(), chunk.storedBytes());
                }
            }
        }
        recipes.forEach((number, recipe) -> {
            if (!numbers.contains(number) && !recipe.isElsewhere()) {
                recipe.runs().forEach(run -> own.clear((int) run.first(), (int) run.first() + run.count()));
            }
        });
        if (!own.isEmpty()) {
            reading.sql()
                    .until(
                            "SELECT recipe FROM version WHERE line < ? OR line > ?",
                            r -> isNeededByOthers(own, Recipe.listed(r.getBytes(1))),
                            line,
                            line);
        }
        return own.stream().mapToLong(id -> stored.getOrDefault(id, 0)).sum();
    }

    /** Takes out what this version needs too; true where nothing is left. */
    private static boolean isNeededByOthers(BitSet own, byte[] recipe) {
        if (Recipe.isElsewhere(recipe)) {
            return false;
        }
        for (RecipeRuns runs = new RecipeRuns(recipe, 0, recipe.length); runs.next(); ) {
            own.clear(runs.first(), runs.first() + runs.count());
        }
        return own.isEmpty();
    }
}
