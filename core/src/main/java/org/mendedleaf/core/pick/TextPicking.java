package org.mendedleaf.core.pick;

import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.RowChange;
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
                : rows(a, b, (SheetChanges) comparison, numbers);
        return b.encode(made);
    }

    /** A text with what is needed to write it again. */
    private record Text(String text, Charset charset, byte[] mark) {
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

    // Texts.

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

    private static boolean isEnded(String text) {
        return text.isEmpty() || text.endsWith("\n") || text.endsWith("\r");
    }

    /** Lines with the ends that they have, and one between those that have none. */
    private static String joined(List<String> lines, String end, boolean ended) {
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

    // Tables that are written as text.

    /** A row as it is written: where its cells begin and end. */
    private record Raw(String text, List<int[]> cells) {}

    private record Emitted(int before, String text) {}

    private static String rows(Text a, Text b, SheetChanges changes, Set<Integer> numbers) {
        char separator = TextReader.separator(b.text());
        List<Raw> before = raw(a.text(), TextReader.separator(a.text()));
        List<Raw> after = raw(b.text(), separator);
        Set<Integer> back = new HashSet<>(numbers);
        List<Emitted> made = new ArrayList<>();
        List<RowChange> moved = new ArrayList<>();
        for (RowChange row : changes.sheets().get(0).rows()) {
            boolean whole = row.change() > 0 && back.contains(row.change());
            switch (row.mark()) {
                case ADDED -> {
                    if (!whole) {
                        made.add(new Emitted(-1, after.get(row.after()).text()));
                    }
                }
                case REMOVED -> {
                    if (whole) {
                        made.add(new Emitted(
                                row.before(), before.get(row.before()).text()));
                    }
                }
                case MOVED -> {
                    if (whole) {
                        moved.add(row);
                    } else {
                        made.add(new Emitted(-1, after.get(row.after()).text()));
                    }
                }
                default ->
                    made.add(new Emitted(row.before(), cells(row, after.get(row.after()), changes, back, separator)));
            }
        }
        for (RowChange row : moved) {
            int at = 0;
            for (int i = 0; i < made.size(); i++) {
                at = made.get(i).before() >= 0 && made.get(i).before() < row.before() ? i + 1 : at;
            }
            made.add(at, new Emitted(row.before(), after.get(row.after()).text()));
        }
        List<String> lines = made.stream().map(Emitted::text).toList();
        return joined(lines, b.end(), isEnded(b.text()));
    }

    /** The row with the cells as they were that are taken back. */
    private static String cells(RowChange row, Raw raw, SheetChanges changes, Set<Integer> back, char separator) {
        StringBuilder text = new StringBuilder(raw.text());
        List<Comparison.Column> columns = changes.sheets().get(0).columns();
        List<Integer> order = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            if (row.cellChange(c) > 0 && back.contains(row.cellChange(c))) {
                order.add(c);
            }
        }
        Collections.reverse(order);
        for (int c : order) {
            int column = columns.get(c).after();
            String was = java.util.Objects.requireNonNull(row.from())
                    .cell(columns.get(c).before())
                    .shown();
            if (column < raw.cells().size()) {
                int[] cell = raw.cells().get(column);
                text.replace(cell[0], cell[1], quoted(was, separator));
            } else {
                int end = raw.text().replaceFirst("\\R$", "").length();
                String missing =
                        String.valueOf(separator).repeat(column - raw.cells().size() + 1);
                text.insert(end, missing + quoted(was, separator));
            }
        }
        return text.toString();
    }

    private static String quoted(String cell, char separator) {
        boolean needs = cell.indexOf(separator) >= 0 || cell.indexOf('"') >= 0 || cell.matches("(?s).*[\\r\\n].*");
        return needs ? "\"" + cell.replace("\"", "\"\"") + "\"" : cell;
    }

    /** Rows as they are written (RFC 4180), without lines in which nothing stands. */
    private static List<Raw> raw(String text, char separator) {
        List<Raw> rows = new ArrayList<>();
        List<int[]> cells = new ArrayList<>();
        int row = 0;
        int cell = 0;
        boolean quotes = false;
        for (int i = 0; i <= text.length(); i++) {
            boolean end = i == text.length();
            char c = end ? '\n' : text.charAt(i);
            if (!end && c == '"') {
                quotes = !quotes;
            } else if (c == separator && !quotes) {
                cells.add(new int[] {cell - row, i - row});
                cell = i + 1;
            } else if ((c == '\n' || c == '\r') && (!quotes || end)) {
                cells.add(new int[] {cell - row, i - row});
                boolean crlf = c == '\r' && i + 1 < text.length() && text.charAt(i + 1) == '\n';
                i += crlf ? 1 : 0;
                int next = Math.min(text.length(), i + 1);
                boolean something = cells.size() > 1 || cells.get(0)[1] > cells.get(0)[0];
                if (something) {
                    rows.add(new Raw(text.substring(row, next), List.copyOf(cells)));
                }
                cells.clear();
                row = next;
                cell = next;
                quotes = false;
            }
        }
        return rows;
    }
}
