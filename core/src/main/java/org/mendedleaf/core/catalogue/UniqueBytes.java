package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.Recipe;

/** What only one version holds: the stored bytes of those of its chunks that no other version needs. */
public final class UniqueBytes {

    private UniqueBytes() {}

    /**
     * Counts them, exactly, by looking through the recipes of all versions.
     *
     * @return bytes in packs that nothing but this version needs
     */
    public static long storedBytes(Reading reading, Version version) throws IOException {
        if (version.recipe().isElsewhere()) {
            return 0;
        }
        Map<Long, Integer> own = new HashMap<>();
        for (ChunkPlace chunk : reading.contents().places(version.recipe())) {
            own.put(chunk.id(), chunk.storedBytes());
        }
        List<byte[]> others = reading.sql()
                .list(
                        "SELECT recipe FROM version WHERE NOT (line = ? AND number = ?)",
                        r -> r.getBytes(1),
                        version.line(),
                        version.number());
        for (byte[] recipe : others) {
            for (Recipe.Run run : Recipe.decode(recipe).runs()) {
                for (long id = run.first(); id < run.first() + run.count(); id++) {
                    own.remove(id);
                }
            }
            if (own.isEmpty()) {
                return 0;
            }
        }
        return own.values().stream().mapToLong(Integer::longValue).sum();
    }
}
