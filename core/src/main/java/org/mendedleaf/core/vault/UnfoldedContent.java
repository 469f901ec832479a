package org.mendedleaf.core.vault;

import java.io.IOException;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A content as {@link Unfolder} made it ready to be stored. In its recipe chunks are numbered as they stand in its list.
 *
 * <pre>{@code
 * Optional<UnfoldedContent> unfolded = unfolder.unfold(reading.contents(), version.recipe(), version.digest());
 * // ... and with the right to write:
 * Optional<Recipe> recipe = unfolded.get().store(session.chunks());
 * }</pre>
 */
public final class UnfoldedContent {

    private static final int SKETCH = 8;

    private final Recipe.Unfolded recipe;
    private final List<Chunk> chunks;
    private final Digest digest;
    private final long givenUpBytes;

    /**
     * A chunk that it needs.
     *
     * @param length of its bytes
     * @param stored what is stored of it; empty when it is in the vault already
     * @param there where it lay then
     */
    record Chunk(
            Digest digest,
            int length,
            byte encoding,
            byte[] stored,
            @Nullable ChunkPlace there) {}

    UnfoldedContent(Recipe.Unfolded recipe, List<Chunk> chunks, Digest digest, long givenUpBytes) {
        this.recipe = recipe;
        this.chunks = List.copyOf(chunks);
        this.digest = digest;
        this.givenUpBytes = givenUpBytes;
    }

    Recipe.Unfolded recipe() {
        return recipe;
    }

    /** The digest of the content. */
    public Digest digest() {
        return digest;
    }

    /** Bytes of chunks, as they lie in the packs, that the content does not need any longer when it is stored so. */
    public long givenUpBytes() {
        return givenUpBytes;
    }

    /** The smallest of the digests of what was inflated, cut to numbers: contents that are much alike have most in common. */
    public long[] sketch() {
        return chunks.stream()
                .filter(c -> c.there() == null)
                .mapToLong(c -> java.nio.ByteBuffer.wrap(c.digest().bytes()).getLong())
                .sorted()
                .distinct()
                .limit(SKETCH)
                .toArray();
    }

    /** Reads chunks by their numbers here. */
    void read(List<Recipe.Run> runs, ContentReader contents, UnfoldedReader.Sink sink) throws IOException {
        for (Recipe.Run run : runs) {
            for (long n = run.first(); n < run.first() + run.count(); n++) {
                Chunk c = chunks.get((int) n);
                byte[] bytes = c.there() == null
                        ? Unfolder.decode(c.encoding(), c.stored(), c.length())
                        : contents.read(c.there());
                if (!sink.take(bytes)) {
                    return;
                }
            }
        }
    }

    /**
     * How many bytes storing these contents would add to the packs.
     *
     * @param into the vault, whose lock the caller holds
     */
    public static long addedBytes(List<UnfoldedContent> contents, ChunkWriter into) throws IOException {
        Set<Digest> counted = new HashSet<>();
        long added = 0;
        for (UnfoldedContent content : contents) {
            for (Chunk c : content.chunks) {
                boolean adds = counted.add(c.digest()) && into.find(c.digest().bytes()) < 0;
                added += adds ? PackFormat.recordLength(c.stored().length) : 0;
            }
        }
        return added;
    }

    /**
     * Stores it.
     *
     * @return its recipe; empty when something that was in the vault is there no longer, and the content has to be unfolded anew
     */
    public Optional<Recipe> store(ChunkWriter into) throws IOException {
        long[] ids = new long[chunks.size()];
        for (int i = 0; i < ids.length; i++) {
            Chunk c = chunks.get(i);
            ids[i] = into.find(c.digest().bytes());
            if (ids[i] < 0 && c.there() != null) {
                return Optional.empty();
            }
        }
        for (int i = 0; i < ids.length; i++) {
            Chunk c = chunks.get(i);
            if (ids[i] < 0) {
                ids[i] = into.add(c.digest().bytes(), c.encoding(), c.stored(), 0, c.stored().length, c.length());
            }
        }
        Recipe.Unfolded numbered = recipe.renumbered(n -> ids[(int) n]);
        RecipeDigest seal = new RecipeDigest(numbered);
        for (Recipe.Run run : Recipe.of(recipe).runs()) {
            for (long n = run.first(); n < run.first() + run.count(); n++) {
                seal.add(chunks.get((int) n).digest().bytes());
            }
        }
        return Optional.of(Recipe.of(numbered.sealed(seal.finish(digest))));
    }
}
