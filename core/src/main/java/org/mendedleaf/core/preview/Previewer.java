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
        return of(version.path(), head, version.size() > head.length, type);
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
