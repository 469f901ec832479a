package org.mendedleaf.core.vault;

import java.security.MessageDigest;

/**
 * Ties the recipe of an unfolded content to its chunks and to the content: SHA-256 over the encoded recipe with 32 zeros
 * in place of the seal, the digests of all its chunks in the order in which the recipe names them, and the {@link
 * ContentDigest} of the content. With sound chunks and a right seal, a content is right without being made.
 */
public final class RecipeDigest {

    private static final Digest BLANK = Digest.of(new byte[Digest.LENGTH]);

    private final MessageDigest sha = Digest.sha256();

    /** The seal of a recipe, to which the digests of its chunks are added next. */
    public RecipeDigest(Recipe.Unfolded recipe) {
        sha.update(Recipe.of(recipe.sealed(BLANK)).encode());
    }

    /** Adds the digest of the next chunk. */
    public void add(byte[] chunkDigest) {
        sha.update(chunkDigest);
    }

    /** The seal, when the content has this digest. */
    public Digest finish(Digest content) {
        sha.update(content.bytes());
        return Digest.of(sha.digest());
    }
}
