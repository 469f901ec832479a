package org.mendedleaf.core.vault;

import java.io.IOException;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.words.Words;

/** Asks a catalogue where chunks lie. */
final class ChunkPlaces {

    /** The question; its arguments are the first chunk and the last one. */
    static final String PLACES =
            "SELECT id, hash, pack, off, clen, len FROM chunk WHERE id BETWEEN ? AND ? ORDER BY id";

    private ChunkPlaces() {}

    /** Where the chunks of these runs lie, in their order. */
    static List<ChunkPlace> of(VaultFolder vault, List<Recipe.Run> runs, PreparedStatement places) throws IOException {
        List<ChunkPlace> found = new ArrayList<>();
        try {
            for (Recipe.Run run : runs) {
                places.setLong(1, run.first());
                places.setLong(2, run.first() + run.count() - 1);
                int n = 0;
                try (ResultSet rows = places.executeQuery()) {
                    while (rows.next()) {
                        found.add(new ChunkPlace(
                                rows.getLong(1),
                                rows.getLong(3),
                                rows.getLong(4),
                                rows.getInt(5),
                                rows.getInt(6),
                                rows.getBytes(2)));
                        n++;
                    }
                }
                if (n != run.count()) {
                    throw new VaultException.Damaged(Words.of("vault.chunk.missing", String.valueOf(run.first())));
                }
            }
        } catch (SQLException e) {
            throw VaultException.Damaged.ofCatalogue(vault.root(), e);
        }
        return found;
    }
}
