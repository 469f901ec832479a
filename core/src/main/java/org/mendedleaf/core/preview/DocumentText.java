package org.mendedleaf.core.preview;

import java.io.InterruptedIOException;
import java.util.Optional;
import org.mendedleaf.core.document.DocumentProcess;

/**
 * The words of a content: of text as they are, of office documents and PDF without their form. Documents are read in the
 * process for documents, so that none can do harm here.
 */
public final class DocumentText {

    /** Contents larger than this have no words taken out of them. Bytes. */
    public static final int MOST = 32 << 20;

    private DocumentText() {}

    /**
     * The words of a content; empty when it has none that can be read, as with pictures and damaged documents.
     *
     * @param mediaType what it is, as {@link Contents#mediaType} says
     */
    public static Optional<String> of(String mediaType, byte[] content) {
        if (content.length == 0 || content.length > MOST) {
            return Optional.empty();
        }
        if (isDocument(mediaType, content)) {
            return ofDocument(content);
        }
        Optional<String> text = Contents.text(content);
        boolean markup = mediaType.endsWith("xml") || mediaType.equals("text/html");
        return markup ? text.map(DocumentText::ofMarkup) : text;
    }

    /** Whether it begins as an archive of parts, an old office document or a PDF does, whatever else is said of it. */
    private static boolean isDocument(String mediaType, byte[] b) {
        boolean zip = b.length > 30 && b[0] == 'P' && b[1] == 'K' && b[2] == 3 && b[3] == 4;
        boolean old = b.length > 512 && (b[0] & 0xff) == 0xd0 && (b[1] & 0xff) == 0xcf && b[2] == 0x11;
        return zip || old || mediaType.equals("application/pdf") || mediaType.equals("application/rtf");
    }

    private static Optional<String> ofDocument(byte[] content) {
        try {
            return filled(DocumentProcess.shared().words(content));
        } catch (InterruptedIOException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }

    /** What stands between the tags; a drawing says all it says within them. */
    private static String ofMarkup(String markup) {
        StringBuilder between = new StringBuilder();
        int at = 0;
        while (at < markup.length()) {
            int begin = markup.indexOf('<', at);
            int end = begin < 0 ? -1 : markup.indexOf('>', begin);
            if (end < 0) {
                break;
            }
            between.append(markup, at, begin).append(' ');
            at = end + 1;
        }
        between.append(markup, at, markup.length());
        return between.toString().isBlank() ? markup : between.toString();
    }

    private static Optional<String> filled(String text) {
        return text.isBlank() ? Optional.empty() : Optional.of(text);
    }
}
