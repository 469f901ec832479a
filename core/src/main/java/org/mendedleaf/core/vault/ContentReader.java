package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.WritableByteChannel;
import java.security.MessageDigest;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.disk.Durable;

/** The outgoing side of the vault: contents by their recipes. One thread at a time. */
public final class ContentReader implements AutoCloseable {

    private final VaultFolder vault;
    private final PackReader packs;
    private final PreparedStatement places;
    private final Now now;
    private final UnfoldedReader unfolded = new UnfoldedReader();

    /** Asks the catalogue as it is by now. */
    public interface Now {
        /** Opens it. */
        Connection open() throws IOException;

        /** How a content is stored by now that was stored by this recipe; empty when that is still how it is stored. */
        Optional<Recipe> recipe(Recipe before) throws IOException;
    }

    /**
     * Reads contents of this vault.
     *
     * @param connection on the catalogue as it was at some moment; it stays the caller's
     * @param now asks it as it is by now, to follow chunks that moved since and contents that were stored anew
     */
    public ContentReader(VaultFolder vault, Connection connection, Now now) throws SQLException {
        this.vault = vault;
        this.packs = new PackReader(vault);
        this.places = connection.prepareStatement(ChunkPlaces.PLACES);
        this.now = now;
    }

    /** What takes the chunks of a content, in order. */
    @FunctionalInterface
    public interface Sink {
        void take(byte[] chunk) throws IOException;
    }

    /** Where the chunks lie that a content needs; when nothing in it is unfolded, in the order of the content. */
    public List<ChunkPlace> places(Recipe recipe) throws IOException {
        if (recipe.isElsewhere()) {
            throw new VaultException.Elsewhere();
        }
        return places(recipe.runs());
    }

    /** Chunks that are newer than the view of the catalogue are those of a content that was stored anew since. */
    private List<ChunkPlace> places(List<Recipe.Run> runs) throws IOException {
        try {
            return ChunkPlaces.of(vault, runs, places);
        } catch (VaultException.Damaged e) {
            return placesNow(runs, e);
        }
    }

    private interface Work<T> {
        T with(Recipe recipe) throws IOException;
    }

    /** What cannot be read by its recipe may have been unfolded since, and what it was stored as before given up. */
    private <T> T asItStands(Recipe recipe, Work<T> work) throws IOException {
        try {
            return work.with(recipe);
        } catch (VaultException.Damaged e) {
            return work.with(recipeNow(recipe, e));
        }
    }

    private Recipe recipeNow(Recipe recipe, VaultException.Damaged why) throws IOException {
        try {
            return now.recipe(recipe).orElseThrow(() -> why);
        } catch (IOException e) {
            if (e != why) {
                why.addSuppressed(e);
            }
            throw why;
        }
    }

    /**
     * Reads a content chunk by chunk; each is checked before it is handed on. What is made of an unfolded content is
     * checked when all of it was handed on.
     *
     * @throws VaultException.Damaged when a chunk is not what was stored
     */
    public void read(Recipe recipe, Sink sink) throws IOException {
        readWhile(recipe, chunk -> {
            sink.take(chunk);
            return true;
        });
    }

    private void readWhile(Recipe recipe, UnfoldedReader.Sink sink) throws IOException {
        long[] given = {0};
        asItStands(recipe, by -> {
            long[] at = {0};
            readBy(by, bytes -> {
                int again = (int) Math.min(bytes.length, given[0] - at[0]);
                at[0] += bytes.length;
                if (again == bytes.length && again > 0) {
                    return true;
                }
                given[0] = at[0];
                return sink.take(again == 0 ? bytes : java.util.Arrays.copyOfRange(bytes, again, bytes.length));
            });
            return at[0];
        });
    }

    private void readBy(Recipe recipe, UnfoldedReader.Sink sink) throws IOException {
        if (recipe.isElsewhere()) {
            throw new VaultException.Elsewhere();
        }
        if (recipe.unfolded().isPresent()) {
            unfolded.read(recipe.unfolded().get(), this::readRuns, sink);
        } else {
            readRuns(recipe.runs(), sink);
        }
    }

    private void readRuns(List<Recipe.Run> runs, UnfoldedReader.Sink sink) throws IOException {
        for (ChunkPlace place : places(runs)) {
            if (!sink.take(read(place))) {
                return;
            }
        }
    }

    /**
     * A chunk may have moved since its place was asked for, or have been stored anew: then its old pack is gone, or what is
     * there is damaged, and the catalogue knows the new place by now.
     */
    byte[] read(ChunkPlace place) throws IOException {
        try {
            return packs.read(place);
        } catch (VaultException.Damaged e) {
            ChunkPlace moved = placeNow(place.id(), e);
            if (moved.pack() == place.pack() && moved.offset() == place.offset()) {
                throw e;
            }
            return packs.read(moved);
        }
    }

    private ChunkPlace placeNow(long chunk, VaultException.Damaged why) throws IOException {
        return placesNow(List.of(new Recipe.Run(chunk, 1)), why).get(0);
    }

    private List<ChunkPlace> placesNow(List<Recipe.Run> runs, VaultException.Damaged why) throws IOException {
        try (Connection fresh = now.open();
                PreparedStatement ask = fresh.prepareStatement(ChunkPlaces.PLACES)) {
            return ChunkPlaces.of(vault, runs, ask);
        } catch (SQLException | VaultException.Damaged e) {
            why.addSuppressed(e);
            throw why;
        }
    }

    /** The chunks that a content needs and that cannot be read, by their ids. */
    public Set<Long> damaged(Recipe recipe) throws IOException {
        Set<Long> found = damagedOf(recipe);
        if (found.isEmpty()) {
            return found;
        }
        Optional<Recipe> replaced = now.recipe(recipe);
        return replaced.isEmpty() ? found : damagedOf(replaced.get());
    }

    private Set<Long> damagedOf(Recipe recipe) throws IOException {
        Set<Long> found = new HashSet<>();
        for (ChunkPlace place : places(recipe)) {
            try {
                read(place);
            } catch (VaultException.Damaged e) {
                found.add(place.id());
            }
        }
        return found;
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
        readWhile(recipe, chunk -> {
            out.write(chunk, 0, Math.min(chunk.length, most - out.size()));
            return out.size() < most;
        });
        return out.toByteArray();
    }

    /**
     * Bytes of a content from a place on; what lies before is not read where nothing of the content is unfolded.
     *
     * @param most at most so many; fewer at the end of the content only
     */
    public byte[] range(Recipe recipe, long from, int most) throws IOException {
        return asItStands(recipe, by -> rangeBy(by, from, most));
    }

    private byte[] rangeBy(Recipe recipe, long from, int most) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        long[] at = {0};
        UnfoldedReader.Sink sink = chunk -> {
            int skip = (int) Math.max(0, Math.min(chunk.length, from - at[0]));
            at[0] += chunk.length;
            out.write(chunk, skip, Math.min(chunk.length - skip, most - out.size()));
            return out.size() < most;
        };
        if (recipe.isElsewhere() || recipe.unfolded().isPresent()) {
            readBy(recipe, sink);
            return out.toByteArray();
        }
        for (ChunkPlace place : places(recipe.runs())) {
            if (at[0] + place.length() <= from) {
                at[0] += place.length();
            } else if (!sink.take(read(place))) {
                break;
            }
        }
        return out.toByteArray();
    }

    /** A content that is stored as it is, by the places of its chunks. */
    ContentChannel open(List<ChunkPlace> of) {
        return new ContentChannel(of, this::read);
    }

    /** The plain SHA-256 of a content, computed by reading all of it. */
    public Digest sha256(Recipe recipe) throws IOException {
        MessageDigest sha = Digest.sha256();
        read(recipe, sha::update);
        return Digest.of(sha.digest());
    }

    /** By which digests the bytes of a content can be compared with what was stored. */
    public ContentParts parts(Recipe recipe) throws IOException {
        return asItStands(recipe, this::partsBy);
    }

    private ContentParts partsBy(Recipe recipe) throws IOException {
        if (recipe.unfolded().isEmpty()) {
            return new ContentParts(stretches(places(recipe)), null);
        }
        Recipe.Unfolded by = recipe.unfolded().get();
        List<ContentParts.Stretch> found = new ArrayList<>();
        for (Recipe.Part part : by.parts()) {
            if (part instanceof Recipe.Run run) {
                found.addAll(stretches(places(List.of(run))));
            } else if (part instanceof Recipe.Member member) {
                found.add(new ContentParts.Stretch(member.deflated(), null));
            } else if (part instanceof Recipe.Take take) {
                found.add(new ContentParts.Stretch(take.bytes(), null));
            }
        }
        return new ContentParts(found, by.made());
    }

    private static List<ContentParts.Stretch> stretches(List<ChunkPlace> places) {
        return places.stream()
                .map(p -> new ContentParts.Stretch(p.length(), p.digest()))
                .toList();
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
