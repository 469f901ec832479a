package org.mendedleaf.core.document;

import java.util.Arrays;
import java.util.Locale;

/** What a content is by its first bytes, where that is seen at once. */
final class Signatures {

    private Signatures() {}

    /** Whether a content is text, and neither a drawing nor a message, which are text too. */
    static boolean isPlainlyText(String name, byte[] content) {
        if (!isPlain(content) || name.toLowerCase(Locale.ROOT).endsWith(".eml")) {
            return false;
        }
        for (int i = 0; i < Math.min(content.length, 4096); i++) {
            if (content[i] == '<') {
                return false;
            }
        }
        return true;
    }

    /** Whether a content is plain text, which is read at once and without danger. */
    static boolean isPlain(byte[] content) {
        return !isZip(content)
                && !isOle(content)
                && !isPdf(content)
                && TextReader.decode(Arrays.copyOf(content, Math.min(content.length, 4096)))
                        .isPresent();
    }

    static boolean isZip(byte[] b) {
        return b.length > 21 && b[0] == 'P' && b[1] == 'K' && (b[2] == 3 && b[3] == 4 || b[2] == 5 && b[3] == 6);
    }

    static boolean isOle(byte[] b) {
        return b.length > 512
                && (b[0] & 0xff) == 0xD0
                && (b[1] & 0xff) == 0xCF
                && b[2] == 0x11
                && (b[3] & 0xff) == 0xE0;
    }

    static boolean isPdf(byte[] b) {
        return b.length > 8 && b[0] == '%' && b[1] == 'P' && b[2] == 'D' && b[3] == 'F';
    }
}
