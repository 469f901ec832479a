package org.mendedleaf.core.intake;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.preview.DocumentText;
import org.mendedleaf.core.vault.ContentScan;
import org.mendedleaf.core.vault.Digest;

/**
 * What a content is like, so far as contents can be compared by it.
 *
 * @param kind of content
 * @param mediaType what it is by its bytes alone, as in RFC 6838
 * @param scan its size, digest and chunks
 * @param words number of words in it; 0 when it has none that can be read
 * @param near its runs of three words
 * @param far its runs of twelve words
 * @param look what it looks like, when it is a picture
 */
record Features(
        ContentKind kind,
        String mediaType,
        ContentScan scan,
        int words,
        Shingles near,
        Shingles far,
        Optional<PictureSignature> look) {

    private static final int NEAR = 3;
    private static final int FAR = 12;

    /** So many runs of each kind are kept of a version. */
    private static final int KEPT_MOST = 2_048;

    /** The features of a content. */
    static Features of(String name, byte[] content) {
        return of(name, content, ContentScan.of(content));
    }

    /**
     * The features of a content that was scanned before.
     *
     * @param content all of it, or its first bytes when it is too large for more than its chunks to be compared
     */
    static Features of(String name, byte[] content, ContentScan scan) {
        return of(name, content, scan, ContentKind.mediaType(content));
    }

    /** The same of a content of which it is known what it is. */
    static Features of(String name, byte[] content, ContentScan scan, String type) {
        ContentKind kind = ContentKind.of(type, name);
        boolean whole = content.length == scan.length();
        Optional<String> text = whole ? DocumentText.of(type, content) : Optional.empty();
        Shingles.OfText words = text.map(t -> Shingles.of(t, NEAR, FAR)).orElse(Shingles.OfText.NONE);
        Optional<PictureSignature> look =
                whole && kind == ContentKind.PICTURE ? PictureSignature.of(content) : Optional.empty();
        return new Features(kind, type, scan, words.words(), words.near(), words.far(), look);
    }

    /**
     * As versions have them: thinned out where there are very many runs, and the picture's colours rounded, so that they can be
     * kept and are the same whether they were.
     */
    Features kept() {
        return new Features(
                kind,
                mediaType,
                scan,
                words,
                near.atMost(KEPT_MOST),
                far.atMost(KEPT_MOST),
                look.map(PictureSignature::rounded));
    }

    long size() {
        return scan.length();
    }

    boolean sameContent(Features other) {
        return scan.digest().equals(other.scan.digest());
    }

    /** The share of bytes in chunks that both have, of the larger one; 0 to 1. */
    double sharedBytes(Features other) {
        Set<Digest> theirs = new HashSet<>();
        other.scan.chunks().forEach(c -> theirs.add(c.digest()));
        long shared = scan.chunks().stream()
                .filter(c -> theirs.contains(c.digest()))
                .mapToLong(ContentScan.Chunk::length)
                .sum();
        long larger = Math.max(size(), other.size());
        return larger == 0 ? 0 : (double) shared / larger;
    }
}
