package org.mendedleaf.core.compare;

import java.io.InterruptedIOException;
import java.util.Optional;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.words.Words;

/**
 * Two contents of which one comes after the other. Where one of them is not there, the other is looked at alone.
 *
 * @param before the earlier one
 * @param after the later one
 */
public record Pair(Optional<Side> before, Optional<Side> after) {

    /**
     * What a pair says.
     *
     * @param words what changed, in a few words
     * @param comparison of both; empty when there is one only
     * @param document the one that is there alone; empty when there are two or none
     * @param shown the side that pictures are taken of; empty when there is none
     */
    public record Seen(
            String words, Optional<Comparison> comparison, Optional<Document> document, Optional<Side> shown) {}

    /** Reads and compares them. Slow. */
    public Seen see() throws InterruptedIOException {
        if (before.isPresent() && after.isPresent()) {
            Side a = before.get();
            Side b = after.get();
            Comparison comparison = Compare.compare(a.name(), a.content(), b.name(), b.content());
            String words = comparison instanceof Comparison.Equal
                    ? Words.of("pair.equal", a.said(), b.said())
                    : Words.of("reading.between", a.said(), b.said(), comparison.words());
            return new Seen(words, Optional.of(comparison), Optional.empty(), after);
        }
        Optional<Side> only = before.or(() -> after);
        if (only.isEmpty()) {
            return new Seen(Words.of("pair.none"), Optional.empty(), Optional.empty(), only);
        }
        Side side = only.get();
        Document document = DocumentProcess.shared().read(side.name(), side.content(), false);
        String words = Words.of(before.isPresent() ? "pair.onlyBefore" : "pair.onlyAfter", side.said());
        return new Seen(words, Optional.empty(), Optional.of(document), only);
    }
}
