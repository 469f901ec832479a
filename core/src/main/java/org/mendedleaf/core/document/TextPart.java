package org.mendedleaf.core.document;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.words.Words;

/** A text of any size, read part by part; parts begin and end with lines. */
public final class TextPart {

    /** So many bytes are a part, to the end of a line. */
    public static final int SIZE = 1 << 20;

    /** A line that is longer is divided where the part ends. */
    private static final int LINE_MOST = 64 << 10;

    /** Enough to tell the encoding. */
    private static final int HEAD = 64 << 10;

    private TextPart() {}

    /** Where the bytes come from. */
    @FunctionalInterface
    public interface Bytes {
        /** Bytes from a place on, at most so many; fewer at the end only. */
        byte[] read(long from, int most) throws IOException;
    }

    /** How many parts a text of so many bytes has; at least one. */
    public static int count(long size) {
        return (int) Math.max(1, Math.min(Integer.MAX_VALUE, (size + SIZE - 1) / SIZE));
    }

    /**
     * A part of a text.
     *
     * @param size of the whole, in bytes
     * @param part from 0
     * @throws DocumentException with a message for the user, when there is no such part, or it is no text
     */
    public static Document.Text read(Bytes bytes, long size, int part) throws IOException {
        int count = count(size);
        if (part < 0 || part >= count) {
            throw new DocumentException(Words.of("document.noTextPart", part + 1, count));
        }
        byte[] head = bytes.read(0, HEAD);
        Charset charset = TextReader.decode(TextReader.wholeCharacters(head))
                .map(TextReader.Decoded::charset)
                .orElseThrow(() -> new DocumentException(Words.of("document.noText")));
        int unit = charset.name().startsWith("UTF-32") ? 4 : charset.name().startsWith("UTF-16") ? 2 : 1;
        Charset body = unit == 1 || part == 0 ? charset : ordered(charset, head);
        long from = (long) part * SIZE;
        byte[] own = bytes.read(from, SIZE);
        byte[] after = bytes.read(from + own.length, LINE_MOST);
        // What begins in the part before belongs to it.
        int start = part == 0 ? 0 : lineStart(own, unit, previous(bytes, from, unit));
        int end = part == count - 1 ? 0 : lineStart(after, unit, previous(own, unit));
        byte[] all = new byte[own.length - start + end];
        System.arraycopy(own, start, all, 0, own.length - start);
        System.arraycopy(after, 0, all, own.length - start, end);
        String text = decode(all, body);
        List<String> lines =
                (text.startsWith("\uFEFF") ? text.substring(1) : text).lines().toList();
        return new Document.Text(lines, charset.name(), count > 1);
    }

    /** UTF-16 and UTF-32 with the order of bytes that the mark at the beginning of the text says. */
    private static Charset ordered(Charset charset, byte[] head) {
        boolean little = head.length > 1 && (head[0] & 0xff) == 0xFF && (head[1] & 0xff) == 0xFE;
        return Optional.of(charset.name())
                .filter(n -> n.equals("UTF-16") || n.equals("UTF-32"))
                .map(n -> Charset.forName(n + (little ? "LE" : "BE")))
                .orElse(charset);
    }

    private static byte[] previous(Bytes bytes, long from, int unit) throws IOException {
        return bytes.read(from - unit, unit);
    }

    private static byte[] previous(byte[] own, int unit) {
        return own.length < unit ? own : java.util.Arrays.copyOfRange(own, own.length - unit, own.length);
    }

    private static boolean isLineFeed(byte[] b, int at, int unit) {
        int sum = 0;
        boolean feed = false;
        for (int i = at; i < at + unit && i < b.length; i++) {
            sum += b[i] & 0xff;
            feed |= b[i] == '\n';
        }
        return feed && sum == '\n';
    }

    /** Where the first line begins: at once when one ended just before, else behind the first that ends here. */
    private static int lineStart(byte[] b, int unit, byte[] before) {
        if (before.length == unit && isLineFeed(before, 0, unit)) {
            return 0;
        }
        int most = Math.min(b.length, LINE_MOST);
        for (int i = 0; i + unit <= most; i += unit) {
            if (isLineFeed(b, i, unit)) {
                return i + unit;
            }
        }
        // The end of the text belongs to the line that began before; a line that is too long is divided here.
        return b.length < LINE_MOST ? b.length : 0;
    }

    private static String decode(byte[] bytes, Charset charset) throws IOException {
        CharBuffer text = charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPLACE)
                .onUnmappableCharacter(CodingErrorAction.REPLACE)
                .decode(ByteBuffer.wrap(bytes));
        return text.toString();
    }
}
