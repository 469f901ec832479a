package org.mendedleaf.core.pick;

import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.SheetChanges;
import org.mendedleaf.core.compare.Comparison.TextChanges;
import org.mendedleaf.core.document.TextReader;
import org.mendedleaf.core.words.Words;

/** Takes changes of texts, and of tables that are written as text, back; everything else stays byte for byte. Pure. */
final class TextPicking {

    private TextPicking() {}

    /** The later content with these changes undone. */
    static byte[] back(byte[] before, byte[] after, Comparison comparison, Set<Integer> numbers) {
        Text a = Text.of(before);
        Text b = Text.of(after);
        String made = comparison instanceof TextChanges text
                ? lines(a, b, text, numbers)
                : RowPicking.back(a, b, (SheetChanges) comparison, numbers);
        return b.encode(made);
    }

    /** A text with what is needed to write it again. */
    record Text(String text, Charset charset, byte[] mark) {
        static Text of(byte[] content) {
            TextReader.Decoded decoded =
                    TextReader.decode(content).orElseThrow(() -> new IllegalArgumentException(Words.of("pick.format")));
            boolean marked = content.length > 2
                    && (content[0] & 0xff) == 0xEF
                    && (content[1] & 0xff) == 0xBB
                    && (content[2] & 0xff) == 0xBF;
            byte[] mark = marked ? new byte[] {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF} : new byte[0];
            return new Text(decoded.text(), decoded.charset(), mark);
        }

        byte[] encode(String made) {
            try {
                var bytes = charset.newEncoder()
                        .onMalformedInput(CodingErrorAction.REPORT)
                        .onUnmappableCharacter(CodingErrorAction.REPORT)
                        .encode(CharBuffer.wrap(made));
                byte[] all = new byte[mark.length + bytes.remaining()];
                System.arraycopy(mark, 0, all, 0, mark.length);
                bytes.get(all, mark.length, bytes.remaining());
                return all;
            } catch (CharacterCodingException e) {
                throw new IllegalArgumentException(Words.of("pick.charset", charset.displayName(Locale.ROOT)), e);
            }
        }

        /** Lines with their ends, divided as {@link String#lines} divides them. */
        List<String> lines() {
            List<String> lines = new ArrayList<>();
            int from = 0;
            for (int i = 0; i < text.length(); i++) {
                char c = text.charAt(i);
                boolean crlf = c == '\r' && i + 1 < text.length() && text.charAt(i + 1) == '\n';
                if (c == '\n' || c == '\r') {
                    i += crlf ? 1 : 0;
                    lines.add(text.substring(from, i + 1));
                    from = i + 1;
                }
            }
            if (from < text.length()) {
                lines.add(text.substring(from));
            }
            return lines;
        }

        /** How its lines end. */
        String end() {
            return text.contains("\r\n") ? "\r\n" : text.indexOf('\n') < 0 && text.indexOf('\r') >= 0 ? "\r" : "\n";
        }
    }

    private static String lines(Text a, Text b, TextChanges changes, Set<Integer> numbers) {
        List<String> before = a.lines();
        List<String> after = b.lines();
        List<String> made = new ArrayList<>();
        for (TextChanges.Line line : changes.lines()) {
            boolean back = numbers.contains(line.change());
            if (line.mark() == Mark.SAME || line.mark() == Mark.ADDED && !back) {
                made.add(after.get(line.after() - 1));
            } else if (line.mark() == Mark.REMOVED && back) {
                made.add(before.get(line.before() - 1));
            }
        }
        // Where the last line has no end in one of them, the same is so of what comes of it.
        boolean ended = endsWithLine(changes, numbers) ? isEnded(a.text()) : isEnded(b.text());
        return joined(made, b.end(), ended);
    }

    /** Whether the last line of what comes of it is one of the earlier text. */
    private static boolean endsWithLine(TextChanges changes, Set<Integer> numbers) {
        List<TextChanges.Line> lines = changes.lines();
        return !lines.isEmpty() && numbers.contains(lines.get(lines.size() - 1).change());
    }

    static boolean isEnded(String text) {
        return text.isEmpty() || text.endsWith("\n") || text.endsWith("\r");
    }

    /** Lines with the ends that they have, and one between those that have none. */
    static String joined(List<String> lines, String end, boolean ended) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i);
            boolean last = i == lines.size() - 1;
            String bare = line.replaceFirst("\\R$", "");
            String own = line.substring(bare.length());
            all.append(bare).append(last && !ended ? "" : own.isEmpty() ? end : own);
        }
        return all.toString();
    }
}
