package org.mendedleaf.core.preview;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.ContentReader;

/** Makes previews of versions. */
public final class Previewer {

    /** The most that is read for a preview of text. Bytes. */
    static final int TEXT_MOST = 512 * 1024;

    /** Pictures larger than this are told about, not shown. Bytes. */
    static final int PICTURE_MOST = 32 << 20;

    /** Documents larger than this are told about, not read for their words. Bytes. */
    private static final int DOCUMENT_MOST = 8 << 20;

    private static final int ROWS_MOST = 2000;
    private static final int HEX_LINES = 32;
    private static final Set<String> PICTURES = Set.of("image/png", "image/jpeg", "image/gif", "image/bmp");

    private Previewer() {}

    /** The preview of a version, from the vault; the live file is not touched. */
    public static Preview preview(Version version, ContentReader contents) throws IOException {
        byte[] head = contents.head(version.recipe(), TEXT_MOST);
        String type = Contents.mediaType(Arrays.copyOf(head, Math.min(head.length, 64 * 1024)), version.path());
        if (PICTURES.contains(type) && version.size() <= PICTURE_MOST) {
            return new Preview.Picture(contents.head(version.recipe(), PICTURE_MOST));
        }
        if (isDocument(type) && version.size() <= DOCUMENT_MOST) {
            Optional<Preview> words = words(type, contents.head(version.recipe(), DOCUMENT_MOST));
            if (words.isPresent()) {
                return words.get();
            }
        }
        return of(version.path(), head, version.size() > head.length, type);
    }

    /**
     * The preview of a content that is no version.
     *
     * @param content all of it, or its first bytes
     * @param cut whether there is more
     */
    public static Preview preview(String name, byte[] content, boolean cut) {
        String type = Contents.mediaType(Arrays.copyOf(content, Math.min(content.length, 64 * 1024)), name);
        if (PICTURES.contains(type) && !cut) {
            return new Preview.Picture(content);
        }
        if (isDocument(type) && !cut) {
            Optional<Preview> words = words(type, content);
            if (words.isPresent()) {
                return words.get();
            }
        }
        boolean more = cut || content.length > TEXT_MOST;
        return of(name, Arrays.copyOf(content, Math.min(content.length, TEXT_MOST)), more, type);
    }

    private static boolean isDocument(String type) {
        return type.contains("opendocument") || type.contains("openxmlformats") || type.equals("application/pdf");
    }

    /** A document by its words, without its form: a sheet as its cells, anything else as its paragraphs. */
    private static Optional<Preview> words(String type, byte[] content) {
        Optional<String> text = DocumentText.of(type, content);
        if (text.isEmpty()) {
            return Optional.empty();
        }
        List<String> lines = text.get().lines().filter(l -> !l.isBlank()).toList();
        boolean cut = lines.size() > ROWS_MOST;
        List<String> shown = lines.stream().limit(ROWS_MOST).toList();
        if (type.contains("spreadsheet")) {
            List<List<String>> rows = shown.stream()
                    .map(l -> Arrays.stream(l.split("\t")).map(String::strip).toList())
                    .toList();
            return Optional.of(new Preview.Grid(rows, cut));
        }
        return Optional.of(new Preview.Text(shown, cut));
    }

    static Preview of(String name, byte[] head, boolean cut, String type) {
        if (head.length == 0) {
            return new Preview.Empty();
        }
        Optional<String> text = Contents.text(head);
        if (text.isEmpty()) {
            return new Preview.Facts(type, hex(head));
        }
        if (Contents.isTable(name)) {
            Optional<List<List<String>>> rows = Contents.rows(text.get());
            if (rows.isPresent()) {
                boolean more = cut || rows.get().size() > ROWS_MOST;
                return new Preview.Grid(rows.get().stream().limit(ROWS_MOST).toList(), more);
            }
        }
        List<String> lines = text.get().lines().limit(ROWS_MOST).toList();
        boolean more = cut || text.get().lines().skip(ROWS_MOST).findAny().isPresent();
        return new Preview.Text(lines, more);
    }

    private static List<String> hex(byte[] bytes) {
        List<String> lines = new ArrayList<>();
        for (int at = 0; at < bytes.length && lines.size() < HEX_LINES; at += 16) {
            StringBuilder hex = new StringBuilder(String.format(Locale.ROOT, "%06x  ", at));
            StringBuilder text = new StringBuilder();
            for (int i = at; i < at + 16; i++) {
                boolean there = i < bytes.length;
                hex.append(there ? String.format(Locale.ROOT, "%02x ", bytes[i] & 0xff) : "   ");
                text.append(there ? (bytes[i] >= 32 && bytes[i] < 127 ? (char) bytes[i] : '·') : ' ');
            }
            lines.add(hex.append(' ').append(text).toString());
        }
        return lines;
    }
}
