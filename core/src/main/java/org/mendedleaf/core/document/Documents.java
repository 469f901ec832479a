package org.mendedleaf.core.document;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.tika.Tika;
import org.mendedleaf.core.words.Words;

/**
 * Reads contents as documents. What a content is, its bytes say; its name only where they leave it open. Never fails: what
 * cannot be read is a {@link Document.Other} that says why.
 *
 * <pre>{@code
 * Document document = Documents.read("notes.txt", bytes, false);
 * if (document instanceof Document.Text text) {
 *     text.lines().forEach(System.out::println);
 * }
 * }</pre>
 */
public final class Documents {

    /** Contents larger than this are read as text from their beginning, or told about. Bytes. */
    public static final int MOST = 64 << 20;

    /** So many bytes are enough to tell what a content is. */
    private static final int HEAD = 64 << 10;

    private static final Set<String> PICTURES =
            Set.of("image/png", "image/jpeg", "image/gif", "image/bmp", "image/tiff", "image/webp");

    private static final class Detector {
        private static final Tika TIKA = new Tika();
    }

    private Documents() {}

    /** What a content is by its first bytes and its name: a media type as in RFC 6838. */
    public static String mediaType(byte[] content, String name) {
        return Detector.TIKA.detect(Arrays.copyOf(content, Math.min(content.length, HEAD)), name);
    }

    /**
     * Reads a content.
     *
     * @param content all of it, or its first bytes
     * @param cut whether there is more
     */
    public static Document read(String name, byte[] content, boolean cut) {
        return read(name, content, cut, Limits.DEFAULT);
    }

    static Document read(String name, byte[] content, boolean cut, Limits limits) {
        if (content.length == 0) {
            return new Document.Empty();
        }
        // To look for the signs of all formats takes longer than to read a text, which has none.
        String type = Signatures.isPlainlyText(name, content) ? "text/plain" : mediaType(content, name);
        try {
            Optional<Document> found = cut ? Optional.empty() : structured(name, type, content, limits);
            return found.or(() -> text(name, content, cut, limits))
                    .orElseGet(() ->
                            OtherReader.read(mediaType(content, name), content, cut ? Words.of("document.large") : ""));
        } catch (DocumentException e) {
            return OtherReader.read(type, content, e.words());
        } catch (IOException | RuntimeException | StackOverflowError e) {
            org.slf4j.LoggerFactory.getLogger(Documents.class).debug("a {} that cannot be read", type, e);
            return OtherReader.read(type, content, Words.of("document.damaged"));
        }
    }

    /**
     * The words of a document, from its beginning, for comparing it with others; empty where it has none.
     *
     * @param content all of it
     */
    static String words(byte[] content, Limits limits) {
        Document document = read("", content, false, limits);
        StringBuilder all = new StringBuilder();
        if (document instanceof Document.Prose || document instanceof Document.Sheets) {
            for (String words : Document.words(document)) {
                int left = limits.chars() - all.length();
                if (left <= 0) {
                    break;
                }
                all.append(all.isEmpty() ? "" : "\n").append(words, 0, Math.min(left, words.length()));
            }
        }
        return all.toString();
    }

    /**
     * The names of the first members of a ZIP archive, or of what is there of one: by its directory, or where that is missing by
     * unpacking what comes first, a little of it.
     */
    public static List<String> memberNames(byte[] content, int most) {
        List<String> names = ZipDirectory.of(content).first(most).stream()
                .map(Document.Member::path)
                .toList();
        return names.isEmpty() ? ZipDirectory.namesByUnpacking(content, most) : names;
    }

    /** Whether a content is plain text, which is read at once and without danger. */
    public static boolean isPlain(byte[] content) {
        return Signatures.isPlain(content);
    }

    private static Optional<Document> structured(String name, String type, byte[] content, Limits limits)
            throws IOException {
        if (Signatures.isZip(content)) {
            return Optional.of(zip(content, limits));
        }
        if (Signatures.isOle(content)) {
            return Optional.of(OldOfficeReader.read(content, limits));
        }
        if (Signatures.isPdf(content)) {
            return Optional.of(PdfReader.read(content, limits));
        }
        if (RichTextReader.isRichText(content)) {
            return Optional.of(RichTextReader.read(content, limits));
        }
        if (ArchiveReader.isGzip(content)) {
            return Optional.of(ArchiveReader.gzip(name, content, limits));
        }
        if (ArchiveReader.isTar(content)) {
            return Optional.of(ArchiveReader.tar(content, "TAR", limits));
        }
        if (PICTURES.contains(type)) {
            return Optional.of(PictureReader.read(content, limits));
        }
        if (type.equals("image/svg+xml")) {
            return Optional.of(PictureReader.svg(content));
        }
        if (type.equals("message/rfc822") && name.toLowerCase(Locale.ROOT).endsWith(".eml")) {
            return Optional.of(MailReader.read(content, limits));
        }
        return Optional.empty();
    }

    private static Document zip(byte[] content, Limits limits) throws IOException {
        Optional<Document> large = ArchiveReader.largeZip(content, limits);
        if (large.isPresent()) {
            return large.get();
        }
        try (Parts parts = new Parts(content, limits)) {
            if (parts.has("content.xml") && parts.has("mimetype")) {
                return OpenDocumentReader.read(parts, limits);
            }
            if (parts.has("word/document.xml")) {
                return WordReader.read(parts, limits);
            }
            if (parts.has("xl/workbook.xml")) {
                return WorkbookReader.read(parts, limits);
            }
            if (parts.has("ppt/presentation.xml")) {
                return SlidesReader.read(parts, limits);
            }
        }
        return ArchiveReader.zip(content);
    }

    private static Optional<Document> text(String name, byte[] content, boolean cut, Limits limits) {
        byte[] whole = cut ? TextReader.wholeCharacters(content) : content;
        Optional<TextReader.Decoded> decoded = TextReader.decode(whole);
        if (decoded.isEmpty()) {
            return Optional.empty();
        }
        String text = decoded.get().text();
        String lower = name.toLowerCase(Locale.ROOT);
        if (lower.endsWith(".csv") || lower.endsWith(".tsv")) {
            Optional<Document> table = TextReader.table(text, cut, limits);
            if (table.isPresent()) {
                return table;
            }
        }
        if (!cut && (lower.endsWith(".md") || lower.endsWith(".markdown"))) {
            return Optional.of(MarkdownReader.read(text));
        }
        return Optional.of(TextReader.text(decoded.get(), cut, limits));
    }

    /**
     * The content of a member of an archive, of an attachment of a message, or of a picture in a document.
     *
     * @param path as it is called in there
     * @throws DocumentException when it is not there, or cannot be read
     */
    public static byte[] member(String name, byte[] content, String path) throws IOException {
        String part = path.indexOf('#') < 0 ? path : path.substring(0, path.lastIndexOf('#'));
        boolean mail = !Signatures.isZip(content)
                && !ArchiveReader.isGzip(content)
                && !ArchiveReader.isTar(content)
                && mediaType(content, name).equals("message/rfc822");
        return mail
                ? MailReader.attachment(content, part, Limits.DEFAULT)
                : ArchiveReader.member(content, part, Limits.DEFAULT);
    }

    /** Where the paragraphs and rows of a text of OpenDocument or Office Open XML are written. */
    public static Sources sources(byte[] content) throws IOException {
        try (Parts parts = new Parts(content, Limits.DEFAULT)) {
            return parts.has("word/document.xml")
                    ? WordReader.sources(parts, Limits.DEFAULT)
                    : OpenDocumentReader.sources(parts, Limits.DEFAULT);
        }
    }

    /** The parts of a workbook of Office Open XML that hold its sheets, by the names of the sheets. */
    public static Map<String, String> sheetParts(byte[] content) throws IOException {
        try (Parts parts = new Parts(content, Limits.DEFAULT)) {
            return WorkbookReader.sheetParts(parts, Limits.DEFAULT);
        }
    }

    /**
     * A page of a PDF as a picture (PNG).
     *
     * @param page from 0
     * @param width of the picture in pixels
     */
    public static byte[] page(byte[] content, int page, int width) throws IOException {
        if (!Signatures.isPdf(content)) {
            throw new DocumentException(Words.of("document.noPages"));
        }
        return PdfReader.page(content, page, width);
    }
}
