package org.mendedleaf.core.compare;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.Arrays;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.words.Words;

/**
 * Compares contents by what they say, each kind in its own way; what says nothing, by equal ranges of bytes.
 *
 * <pre>{@code
 * Comparison comparison = Compare.compare("fees.csv", before, after);
 * System.out.println(comparison.words());
 * }</pre>
 */
public final class Compare {

    /** Larger contents are not compared. Bytes. */
    public static final int MOST = Documents.MOST;

    private Compare() {}

    /** What changed from {@code before} to {@code after}, both contents of a file of this name. */
    public static Comparison compare(String name, byte[] before, byte[] after) throws InterruptedIOException {
        return compare(name, before, name, after);
    }

    /** What changed from one content to another of a file with another name. */
    public static Comparison compare(String nameBefore, byte[] before, String nameAfter, byte[] after)
            throws InterruptedIOException {
        if (Arrays.equals(before, after)) {
            return new Comparison.Equal();
        }
        DocumentProcess documents = DocumentProcess.shared();
        Document a = documents.read(nameBefore, before, false);
        Document b = documents.read(nameAfter, after, false);
        return asSeen(compare(a, before, b, after), before, after);
    }

    /** Pages whose words are the same may look different all the same. */
    static Comparison asSeen(Comparison comparison, byte[] before, byte[] after) throws InterruptedIOException {
        if (!PagePictures.isWanted(comparison)) {
            return comparison;
        }
        try {
            return PagePictures.drawn((Comparison.ProseChanges) comparison, before, after);
        } catch (InterruptedIOException e) {
            throw e;
        } catch (IOException e) {
            // Pages that cannot be drawn are as their words say.
            org.slf4j.LoggerFactory.getLogger(Compare.class).debug("pages that cannot be drawn", e);
            return comparison;
        }
    }

    /** What changed between documents that were read; their contents are for what says nothing else. */
    public static Comparison compare(Document a, byte[] before, Document b, byte[] after) {
        if (Arrays.equals(before, after)) {
            return new Comparison.Equal();
        }
        if (a instanceof Document.Text x && b instanceof Document.Text y) {
            return TextCompare.compare(x.lines(), y.lines());
        }
        if (a instanceof Document.Sheets x && b instanceof Document.Sheets y) {
            return SheetCompare.compare(x, y);
        }
        if (a instanceof Document.Prose x && b instanceof Document.Prose y && x.form() == y.form()) {
            return ProseCompare.compare(x, y);
        }
        if (a instanceof Document.Archive x && b instanceof Document.Archive y) {
            return ArchiveCompare.compare(x, y);
        }
        if (a instanceof Document.Picture x && b instanceof Document.Picture y) {
            try {
                return PictureCompare.compare(x, y);
            } catch (IOException e) {
                return ByteCompare.compare(before, after, "");
            }
        }
        return ByteCompare.compare(before, after, kinds(a, b));
    }

    /** What both are, when that is not the same. */
    private static String kinds(Document a, Document b) {
        String was = kind(a);
        String is = kind(b);
        if (was.equals(is)) {
            return "";
        }
        return b instanceof Document.Empty
                ? Words.of("compare.emptied")
                : a instanceof Document.Empty ? Words.of("compare.filled") : Words.of("compare.kinds", was, is);
    }

    /** What a document is, as a message. */
    public static String kind(Document document) {
        if (document instanceof Document.Prose prose) {
            return Words.of("document.kind." + prose.form());
        }
        if (document instanceof Document.Other other) {
            return Words.of(other.why().isEmpty() ? "document.kind.other" : "document.kind.unreadable");
        }
        return Words.of("document.kind." + document.getClass().getSimpleName());
    }
}
