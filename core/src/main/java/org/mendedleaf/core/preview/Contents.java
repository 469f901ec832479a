package org.mendedleaf.core.preview;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.Set;
import org.apache.tika.Tika;

/** Reads contents as text and as tables, and tells what they are. */
public final class Contents {

    /** The media type of text of no other kind. */
    public static final String PLAIN = "text/plain";

    /** So many bytes tell whether a content begins as text. */
    private static final int HEAD = 4096;

    /** A first word is no longer. */
    private static final int LONGEST = 30;

    /** Words that files of some format begin with. */
    private static final Set<String> MARKS = Set.of(
            "From", "Article", "Path", "Xref", "solid", "ply", "function", "package", "import", "class", "module");

    private static final class Detector {
        private static final Tika TIKA = new Tika();
    }

    private Contents() {}

    /** What a content is by its first bytes and its name: a media type as in RFC 6838. */
    public static String mediaType(byte[] head, String name) {
        return Detector.TIKA.detect(head, name);
    }

    /**
     * Whether a content is text that begins as people write it: with a heading, or a word and no mark of a format. To look for the
     * marks of all formats takes longer than to compare such a text.
     */
    public static boolean beginsAsProse(byte[] content) {
        int at = 0;
        if (content.length > 1 && content[0] == '#' && content[1] == ' ') {
            at = 2;
        } else {
            while (at < content.length && isLetter(content[at])) {
                at++;
            }
            String word = new String(content, 0, Math.min(at, LONGEST), StandardCharsets.US_ASCII);
            boolean ends = at < content.length && (content[at] == ' ' || content[at] == ',' || content[at] == '\n');
            if (at < 2 || at > LONGEST || !ends || MARKS.contains(word)) {
                return false;
            }
        }
        byte[] head = Arrays.copyOf(content, Math.min(content.length, HEAD));
        for (int i = at; i < head.length; i++) {
            if (head[i] == '<') {
                return false;
            }
        }
        // A sign may be cut at the end of the head.
        return text(head.length < content.length ? Arrays.copyOf(head, lastWhole(head)) : head)
                .isPresent();
    }

    private static boolean isLetter(byte b) {
        return b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z';
    }

    private static int lastWhole(byte[] head) {
        int end = head.length;
        while (end > 0 && head[end - 1] < 0) {
            end--;
        }
        return end;
    }

    /** The content as text, if it is text: UTF-8, UTF-16 with a mark, or, where it has no control bytes, Latin 1. */
    public static Optional<String> text(byte[] bytes) {
        if (startsWith(bytes, 0xFE, 0xFF) || startsWith(bytes, 0xFF, 0xFE)) {
            return decode(bytes, StandardCharsets.UTF_16);
        }
        for (byte b : bytes) {
            boolean control = b >= 0 && b < 32 && b != '\n' && b != '\r' && b != '\t' && b != '\f' && b != 27;
            if (control) {
                return Optional.empty();
            }
        }
        return decode(bytes, StandardCharsets.UTF_8).or(() -> decode(bytes, StandardCharsets.ISO_8859_1));
    }

    private static boolean startsWith(byte[] bytes, int first, int second) {
        return bytes.length >= 2 && (bytes[0] & 0xff) == first && (bytes[1] & 0xff) == second;
    }

    private static Optional<String> decode(byte[] bytes, Charset charset) {
        try {
            return Optional.of(charset.newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes))
                    .toString());
        } catch (CharacterCodingException e) {
            return Optional.empty();
        }
    }
}
