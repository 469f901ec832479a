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

    private static final String AFTER_WORD = " ,;\t\n";
    private static final String AFTER_NUMBER = " ,;\t\n\r.:-/";

    /** Words, and numbers in a row of their own, that files of some format begin with. */
    private static final Set<String> MARKS = Set.of(
            "From",
            "Article",
            "Path",
            "Xref",
            "solid",
            "ply",
            "function",
            "package",
            "import",
            "class",
            "module",
            "graph",
            "digraph",
            "strict",
            "0\n",
            "999\n");

    private static final class Detector {
        private static final Tika TIKA = new Tika();
    }

    private Contents() {}

    /** What a content is by its first bytes and its name: a media type as in RFC 6838. */
    public static String mediaType(byte[] head, String name) {
        return Detector.TIKA.detect(head, name);
    }

    /**
     * Whether a content is text that begins as people write it: with a heading, a word or a number, as tables do, and no mark of a
     * format. To look for the marks of all formats takes longer than to compare such a text.
     */
    public static boolean beginsAsPlainText(byte[] content) {
        int at = beginning(content);
        if (at < 0) {
            return false;
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

    /** Where the first word or number ends; negative when it may be the mark of a format. */
    private static int beginning(byte[] content) {
        if (content.length > 1 && content[0] == '#' && content[1] == ' ') {
            return 2;
        }
        int from = content.length > 0 && content[0] == '"' ? 1 : 0;
        int at = from;
        boolean number = from < content.length && isDigit(content[from]);
        while (at < content.length && (number ? isDigit(content[at]) : isLetter(content[at]))) {
            at++;
        }
        int length = at - from;
        if (length < (number ? 1 : 2) || length > LONGEST || at == content.length) {
            return -1;
        }
        String word = new String(content, from, length, StandardCharsets.US_ASCII);
        byte next = content[at];
        boolean ends = from == 1 && next == '"' || (number ? AFTER_NUMBER : AFTER_WORD).indexOf(next) >= 0;
        return ends && !MARKS.contains(word + (next == '\r' ? '\n' : (char) next)) && !MARKS.contains(word) ? at : -1;
    }

    private static boolean isDigit(byte b) {
        return b >= '0' && b <= '9';
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
