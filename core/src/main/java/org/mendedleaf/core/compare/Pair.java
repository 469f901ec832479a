package org.mendedleaf.core.compare;

import java.io.IOException;
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
     * @param pair that was read
     */
    public record Seen(String words, Optional<Comparison> comparison, Optional<Document> document, Pair pair) {}

    /** Where a pair comes from; it is read when it is asked for. */
    @FunctionalInterface
    public interface Source {
        /** Reads the contents. */
        Pair get() throws IOException;
    }

    /**
     * What both hold at a path, when they are archives or messages; a side that holds nothing there is not there.
     *
     * @throws IOException with a message for the user, when a member cannot be read
     */
    public Pair member(String path) throws IOException {
        return new Pair(member(before, path), member(after, path));
    }

    private static Optional<Side> member(Optional<Side> of, String path) throws IOException {
        if (of.isEmpty()) {
            return of;
        }
        Side side = of.get();
        DocumentProcess documents = DocumentProcess.shared();
        return holds(documents.read(side.name(), side.content(), false), path)
                ? Optional.of(new Side(path, side.said(), documents.member(side.name(), side.content(), path)))
                : Optional.empty();
    }

    private static boolean holds(Document document, String path) {
        if (document instanceof Document.Archive archive) {
            return archive.members().stream().anyMatch(m -> m.path().equals(path) && !m.folder());
        }
        return !(document instanceof Document.Prose prose)
                || prose.form() != Document.Form.MAIL
                || prose.sections().stream()
                        .flatMap(s -> s.blocks().stream())
                        .anyMatch(b -> b.ref().startsWith(path + "#"));
    }

    /** Reads and compares them. Slow. */
    public Seen see() throws InterruptedIOException {
        if (before.isPresent() && after.isPresent()) {
            Side a = before.get();
            Side b = after.get();
            // What is there instead of nothing, or of another kind of file, is looked at itself.
            if (a.content().length == 0 && b.content().length > 0) {
                return alone(b, Words.of("pair.wasEmpty", a.said(), b.said()));
            }
            if (b.content().length == 0 && a.content().length > 0) {
                return alone(a, Words.of("pair.isEmpty", a.said(), b.said()));
            }
            Comparison comparison = Compare.compare(a.name(), a.content(), b.name(), b.content());
            String words = comparison instanceof Comparison.Equal
                    ? Words.of("pair.equal", a.said(), b.said())
                    : Words.of("reading.between", a.said(), b.said(), comparison.words());
            if (comparison instanceof Comparison.ByteChanges bytes
                    && !bytes.kinds().isEmpty()) {
                return alone(b, words);
            }
            return new Seen(words, Optional.of(comparison), Optional.empty(), this);
        }
        Optional<Side> only = before.or(() -> after);
        if (only.isEmpty()) {
            return new Seen(Words.of("pair.none"), Optional.empty(), Optional.empty(), this);
        }
        Side side = only.get();
        return alone(side, Words.of(before.isPresent() ? "pair.onlyBefore" : "pair.onlyAfter", side.said()));
    }

    private Seen alone(Side side, String words) throws InterruptedIOException {
        Document document = DocumentProcess.shared().read(side.name(), side.content(), false);
        return new Seen(words, Optional.empty(), Optional.of(document), this);
    }
}
