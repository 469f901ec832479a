package org.mendedleaf.core.compare;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.TextPart;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;

/**
 * Documents of versions and what changed between them, kept for a while by their contents: stepping along a line reads each
 * of them once. Safe for use by several threads.
 */
public final class DocumentCache {

    /** Contents of so many bytes in all are kept as documents; a document takes several times that in memory. */
    private static final long KEPT_MOST = 48L << 20;

    /** What even an empty document takes, about. Bytes. */
    private static final int EACH = 600;

    private static final int COMPARISONS_MOST = 24;

    /** Of a text that is larger than is looked into, so much is shown. Bytes. */
    private static final int HEAD = 1 << 20;

    private static final class Shared {
        private static final DocumentCache ONE = new DocumentCache(DocumentProcess.shared());
    }

    private record Key(Digest digest, String ending) {}

    private record Pair(Key before, Key after) {}

    private record Kept(Document document, long size) {}

    private final DocumentProcess process;
    private final Map<Key, Kept> documents = new LinkedHashMap<>(16, 0.75f, true);
    private final Map<Pair, Comparison> comparisons = new LinkedHashMap<>(16, 0.75f, true);
    private long kept;

    /** Reads with this process. */
    public DocumentCache(DocumentProcess process) {
        this.process = process;
    }

    /** The one that all parts of the program share. */
    public static DocumentCache shared() {
        return Shared.ONE;
    }

    private static Key key(Version version) {
        String name = RelativePath.name(version.path()).toLowerCase(Locale.ROOT);
        return new Key(version.digest(), name.substring(Math.max(0, name.lastIndexOf('.'))));
    }

    /** Whether a version can be looked into: a file whose content is in the vault and is not too large to compare. */
    public static boolean canCompare(Version version) {
        return version.kind() == EntryKind.FILE && !version.recipe().isElsewhere() && version.size() <= Compare.MOST;
    }

    /** What a version says. */
    public Document document(Reading reading, Version version) throws IOException {
        Key key = key(version);
        synchronized (documents) {
            Kept found = documents.get(key);
            if (found != null) {
                return found.document();
            }
        }
        Document document;
        if (version.size() > Compare.MOST) {
            document = process.read(version.path(), reading.contents().head(version.recipe(), HEAD), true);
        } else {
            document =
                    process.read(version.path(), Side.version(reading, version).content(), false);
        }
        keep(key, new Kept(document, Math.min(version.size(), Compare.MOST) + EACH));
        return document;
    }

    /** In how many parts a version is read; one, but for texts that are not shown whole. */
    public static int parts(Version version, Document document) {
        return document instanceof Document.Text text && text.cut() ? TextPart.count(version.size()) : 1;
    }

    /** A part of a text, from 0. */
    public static Document part(Reading reading, Version version, int part) throws IOException {
        return TextPart.read(
                (from, most) -> reading.contents().range(version.recipe(), from, most), version.size(), part);
    }

    private void keep(Key key, Kept document) {
        synchronized (documents) {
            Kept before = documents.put(key, document);
            kept += document.size() - (before == null ? 0 : before.size());
            var eldest = documents.entrySet().iterator();
            while (kept > KEPT_MOST && documents.size() > 2 && eldest.hasNext()) {
                kept -= eldest.next().getValue().size();
                eldest.remove();
            }
        }
    }

    /** Lets everything go; it is read again when it is asked for. */
    public void forget() {
        synchronized (documents) {
            documents.clear();
            kept = 0;
        }
        synchronized (comparisons) {
            comparisons.clear();
        }
    }

    /** What changed from one version to another. */
    public Comparison between(Reading reading, Version before, Version after) throws IOException {
        if (before.sameContent(after)) {
            return new Comparison.Equal();
        }
        Callable<Comparison> compare = () -> {
            Document a = document(reading, before);
            Document b = document(reading, after);
            if (needsBytes(a, b)) {
                return Compare.compare(
                        a,
                        Side.version(reading, before).content(),
                        b,
                        Side.version(reading, after).content());
            }
            Comparison comparison = Compare.compare(a, ONE, b, OTHER);
            return PagePictures.isWanted(comparison)
                    ? Compare.asSeen(
                            comparison,
                            Side.version(reading, before).content(),
                            Side.version(reading, after).content())
                    : comparison;
        };
        return kept(new Pair(key(before), key(after)), compare);
    }

    /** Contents that differ, for documents that say all by themselves. */
    private static final byte[] ONE = {1};

    private static final byte[] OTHER = {2};

    /** Whether the documents alone do not say what changed. */
    private static boolean needsBytes(Document a, Document b) {
        return a instanceof Document.Other
                || b instanceof Document.Other
                || a.getClass() != b.getClass()
                || a instanceof Document.Prose x && b instanceof Document.Prose y && x.form() != y.form();
    }

    private Comparison kept(Pair pair, Callable<Comparison> compare) throws IOException {
        synchronized (comparisons) {
            Comparison found = comparisons.get(pair);
            if (found != null) {
                return found;
            }
        }
        Comparison made;
        try {
            made = compare.call();
        } catch (IOException | RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
        synchronized (comparisons) {
            comparisons.put(pair, made);
            var eldest = comparisons.entrySet().iterator();
            while (comparisons.size() > COMPARISONS_MOST && eldest.hasNext()) {
                eldest.next();
                eldest.remove();
            }
        }
        return made;
    }

    /** What changed from one content to another, of which at least one is no version. */
    public Comparison between(Side before, Side after) throws IOException {
        return Compare.compare(before.name(), before.content(), after.name(), after.content());
    }

    /** A page of a version as a picture (PNG), so many pixels wide; pages are counted from 0. */
    public byte[] page(Reading reading, Version version, int page, int width) throws IOException {
        return process.page(Side.version(reading, version).content(), page, width);
    }

    /** A picture within a document, or what a member of an archive holds. */
    public byte[] member(Reading reading, Version version, String path) throws IOException {
        return process.member(version.path(), Side.version(reading, version).content(), path);
    }

    /** What a member says. */
    public Document memberDocument(Reading reading, Version version, String path) throws IOException {
        return process.read(path, member(reading, version, path), false);
    }
}
