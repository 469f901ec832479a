package org.mendedleaf.core.vault;

import java.io.IOException;
import java.lang.ref.SoftReference;
import java.sql.Connection;
import java.sql.SQLException;
import org.jspecify.annotations.Nullable;

/**
 * Keeps the index of chunks of an open vault between sessions, so that a save does not read all of them again. A large one is not
 * kept, and none when memory is short.
 */
public final class ChunkIndexCache {

    /** So many chunks are some 25 MB of memory. */
    private static final int MOST = 1_000_000;

    private @Nullable SoftReference<ChunkIndex> kept;

    /** An index that knows all that the catalogue does; nobody else has it until it is given back. */
    ChunkIndex take(Connection connection, VaultFolder vault) throws SQLException, IOException {
        ChunkIndex index;
        synchronized (this) {
            index = kept == null ? null : kept.get();
            kept = null;
        }
        ChunkIndex taken = index == null ? new ChunkIndex() : index;
        taken.begin(connection, vault);
        return taken;
    }

    /** Gives it back. */
    void giveBack(ChunkIndex index) throws SQLException {
        index.end();
        synchronized (this) {
            kept = index.size() <= MOST ? new SoftReference<>(index) : null;
        }
    }
}
