package org.mendedleaf.core.vault;

import java.io.IOException;
import java.lang.ref.SoftReference;
import java.sql.Connection;
import java.sql.SQLException;
import org.jspecify.annotations.Nullable;

/**
 * Keeps the index of chunks of an open vault between sessions, so that a save does not read all of them again. What it has in
 * memory is not kept where that is much, or when memory is short.
 */
public final class ChunkIndexCache implements AutoCloseable {

    /** So many chunks are some 12 MB of memory. */
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
    void giveBack(ChunkIndex index) throws SQLException, IOException {
        index.end();
        if (index.size() > MOST) {
            index.close();
            return;
        }
        ChunkIndex before;
        synchronized (this) {
            before = kept == null ? null : kept.get();
            kept = new SoftReference<>(index);
        }
        if (before != null) {
            before.close();
        }
    }

    /** Takes away what is on disk of it: it says something of the contents of chunks, and some of those were erased. */
    public static void forget(VaultFolder vault) throws IOException {
        ChunkIndexFile.remove(vault);
    }

    @Override
    public void close() throws IOException {
        ChunkIndex index;
        synchronized (this) {
            index = kept == null ? null : kept.get();
            kept = null;
        }
        if (index != null) {
            index.close();
        }
    }
}
