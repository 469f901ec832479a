package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.WritableByteChannel;
import java.security.MessageDigest;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.words.Words;

/** The outgoing side of the vault: contents by their recipes. One thread at a time. */
public final class ContentReader implements AutoCloseable {

    private final VaultFolder vault;
    private final PackReader packs;
    private final PreparedStatement places;

    /**
     * Reads contents of this vault.
     *
     * @param connection on the catalogue; it stays the caller's
     */
    public ContentReader(VaultFolder vault, Connection connection) throws SQLException {
        this.vault = vault;
        this.packs = new PackReader(vault);
        this.places = connection.prepareStatement(
                "SELECT id, hash, pack, off, clen, len FROM chunk WHERE id BETWEEN ? AND ? ORDER BY id");
    }

    /** What takes the chunks of a content, in order. */
    @FunctionalInterface
    public interface Sink {
        void take(byte[] chunk) throws IOException;
    }

    /** Where the chunks of a content lie, in the order of the content. */
    public List<ChunkPlace> places(Recipe recipe) throws IOException {
        if (recipe.isElsewhere()) {
            throw new VaultException.Elsewhere();
        }
        List<ChunkPlace> found = new ArrayList<>();
        try {
            for (Recipe.Run run : recipe.runs()) {
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
            throw new VaultException.Damaged(Words.of("catalogue.damaged", vault.root(), e.getMessage()), e);
        }
        return found;
    }

    /**
     * Reads a content chunk by chunk; each is checked before it is handed on.
     *
     * @throws VaultException.Damaged when a chunk is not what was stored
     */
    public void read(Recipe recipe, Sink sink) throws IOException {
        for (ChunkPlace place : places(recipe)) {
            sink.take(read(place));
        }
    }

    /** A chunk may have moved since its place was asked for: then its old pack is gone, and the catalogue knows the new one. */
    private byte[] read(ChunkPlace place) throws IOException {
        try {
            return packs.read(place);
        } catch (VaultException.Damaged e) {
            if (!(e.getCause() instanceof java.nio.file.NoSuchFileException)) {
                throw e;
            }
            ChunkPlace now =
                    places(new Recipe(List.of(new Recipe.Run(place.id(), 1)))).get(0);
            if (now.pack() == place.pack()) {
                throw e;
            }
            return packs.read(now);
        }
    }

    /** Writes a content to a channel. */
    public void copy(Recipe recipe, WritableByteChannel out) throws IOException {
        read(recipe, chunk -> Durable.write(out, ByteBuffer.wrap(chunk)));
    }

    /**
     * The first bytes of a content.
     *
     * @param most at most so many
     */
    public byte[] head(Recipe recipe, int most) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (ChunkPlace place : places(recipe)) {
            byte[] chunk = read(place);
            out.write(chunk, 0, Math.min(chunk.length, most - out.size()));
            if (out.size() >= most) {
                break;
            }
        }
        return out.toByteArray();
    }

    /** The plain SHA-256 of a content, computed by reading all of it. */
    public Digest sha256(Recipe recipe) throws IOException {
        MessageDigest sha = Digest.sha256();
        read(recipe, sha::update);
        return Digest.of(sha.digest());
    }

    /** The digest that a content must have by the digests of its chunks. */
    public Digest contentDigest(Recipe recipe) throws IOException {
        ContentDigest digest = new ContentDigest();
        for (ChunkPlace place : places(recipe)) {
            digest.add(place.digest(), place.length());
        }
        return digest.finish();
    }

    @Override
    public void close() throws IOException {
        packs.close();
        try {
            places.close();
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }
}
