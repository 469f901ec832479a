package org.mendedleaf.core.pick;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.words.Words;

/** What taking changes back in office documents has in common. */
final class Office {

    private Office() {}

    /**
     * A content that was made.
     *
     * @param also what else is another than before, as a message
     * @param expected whether a document, read from the content, says what was meant
     */
    record Made(byte[] content, List<String> also, Predicate<Document> expected) {}

    /** Which part of a document holds its text, by the parts that it has. */
    static boolean isOpenDocument(PartsEdit parts) {
        return parts.has("content.xml") && parts.has("mimetype");
    }

    /** Refuses what is written in other name spaces than all programs write. */
    static void standard(Elements xml, String... declarations) throws IOException {
        for (String declaration : declarations) {
            if (!xml.root().tag().contains(declaration)) {
                throw new IOException("another prefix than " + declaration);
            }
        }
    }

    /** What is said of every document that is written anew. */
    static List<String> also(PartsEdit parts) {
        List<String> also = new ArrayList<>();
        if (parts.has("META-INF/documentsignatures.xml") || parts.hasAny("_xmlsignatures/")) {
            also.add(Words.of("pick.also.signature"));
        }
        return also;
    }
}
