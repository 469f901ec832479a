package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.BitSet;
import org.mendedleaf.core.vault.Recipe;

/**
 * Chunks that versions need, waiting ones too: from their recipes alone, a bit for each chunk. A picture of the state after one
 * commit; it holds for as long as nothing else was committed.
 */
public final class NeededChunks {

    private final BitSet needed = new BitSet();
    private long commit;

    private NeededChunks(long commit) {
        this.commit = commit;
    }

    /** As a session sees them now. Goes through all versions. */
    public static NeededChunks of(WriteSession session) throws IOException {
        NeededChunks all = new NeededChunks(session.lastCommit());
        session.sql().each("SELECT recipe FROM version", r -> {
            byte[] recipe = Recipe.listed(r.getBytes(1));
            if (Recipe.isElsewhere(recipe)) {
                return;
            }
            for (RecipeRuns runs = new RecipeRuns(recipe, 0, recipe.length); runs.next(); ) {
                all.needed.set(runs.first(), runs.first() + runs.count());
            }
        });
        return all;
    }

    /** These, or others where something was committed since. */
    public NeededChunks asOf(WriteSession session) throws IOException {
        return session.lastCommit() == commit ? this : of(session);
    }

    /** Notes that what this session committed last changes nothing of it. */
    public void stillHolds(WriteSession session) throws IOException {
        commit = session.lastCommit();
    }

    /** Whether any version needs a chunk. */
    public boolean has(long chunk) {
        return chunk <= Integer.MAX_VALUE && needed.get((int) chunk);
    }
}
