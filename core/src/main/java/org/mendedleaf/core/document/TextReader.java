package org.mendedleaf.core.document;

import java.io.IOException;
import java.io.StringReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Sheet;
import org.mozilla.universalchardet.UniversalDetector;

/** Plain text, and tables that are written as text (RFC 4180, with the separator that fits best). */
public final class TextReader {

    /** So many bytes are enough to tell an encoding. */
    private static final int DETECTED = 256 << 10;

    private TextReader() {}

    /** A text and how it is written. */
    public record Decoded(String text, Charset charset) {}

    /**
     * The content as text, if it is text: UTF-8, UTF-16 and UTF-32 with a mark, else the encoding that the Mozilla detector
     * (juniversalchardet) takes it for. What has control bytes is none.
     */
    public static Optional<Decoded> decode(byte[] bytes) {
        if (starts(bytes, 0xEF, 0xBB, 0xBF)) {
            return decode(bytes, 3, StandardCharsets.UTF_8);
        }
        if (starts(bytes, 0xFF, 0xFE, 0, 0) || starts(bytes, 0, 0, 0xFE, 0xFF)) {
            return decode(bytes, 0, Charset.forName("UTF-32"));
        }
        if (starts(bytes, 0xFE, 0xFF) || starts(bytes, 0xFF, 0xFE)) {
            return decode(bytes, 0, StandardCharsets.UTF_16);
        }
        for (byte b : bytes) {
            boolean control = b >= 0 && b < 32 && b != '\n' && b != '\r' && b != '\t' && b != '\f' && b != 27;
            if (control) {
                return Optional.empty();
            }
        }
        return decode(bytes, 0, StandardCharsets.UTF_8)
                .or(() -> detected(bytes).flatMap(c -> decode(bytes, 0, c)))
                .or(() -> decode(bytes, 0, Charset.forName("windows-1252")))
                .or(() -> decode(bytes, 0, StandardCharsets.ISO_8859_1));
    }

    private static boolean starts(byte[] bytes, int... with) {
        for (int i = 0; i < with.length; i++) {
            if (i >= bytes.length || (bytes[i] & 0xff) != with[i]) {
                return false;
            }
        }
        return true;
    }

    private static Optional<Charset> detected(byte[] bytes) {
        UniversalDetector detector = new UniversalDetector();
        detector.handleData(bytes, 0, Math.min(bytes.length, DETECTED));
        detector.dataEnd();
        try {
            return Optional.ofNullable(detector.getDetectedCharset()).map(Charset::forName);
        } catch (UnsupportedCharsetException | IllegalCharsetNameException e) {
            return Optional.empty();
        }
    }

    private static Optional<Decoded> decode(byte[] bytes, int from, Charset charset) {
        try {
            String text = charset.newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, from, bytes.length - from))
                    .toString();
            return Optional.of(new Decoded(text, charset));
        } catch (CharacterCodingException e) {
            return Optional.empty();
        }
    }

    /** What was read from the beginning of a file may end within a character; such an end is left out. */
    static byte[] wholeCharacters(byte[] head) {
        int end = head.length;
        while (end > 0 && end > head.length - 4 && (head[end - 1] & 0xC0) == 0x80) {
            end--;
        }
        boolean leads = end > 0 && (head[end - 1] & 0xC0) == 0xC0;
        return leads ? java.util.Arrays.copyOf(head, end - 1) : head;
    }

    static Document.Text text(Decoded decoded, boolean cut, Limits limits) {
        List<String> lines = decoded.text().lines().limit(limits.rows() + 1L).toList();
        boolean more = lines.size() > limits.rows();
        return new Document.Text(
                more ? lines.subList(0, limits.rows()) : lines,
                decoded.charset().name(),
                cut || more);
    }

    /** The separator that is there most often in the first line: comma, semicolon, tab or bar. */
    public static char separator(String text) {
        String firstLine = text.lines().findFirst().orElse("");
        char separator = ',';
        for (char c : new char[] {';', '\t', '|'}) {
            separator = count(firstLine, c) > count(firstLine, separator) ? c : separator;
        }
        return separator;
    }

    private static long count(String text, char c) {
        return text.chars().filter(x -> x == c).count();
    }

    /** A table as one sheet, or nothing when the text is no table. */
    static Optional<Document> table(String text, boolean cut, Limits limits) {
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator(text))
                .setIgnoreEmptyLines(true)
                .get();
        List<Row> rows = new ArrayList<>();
        long left = limits.cells();
        boolean more = cut;
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            for (CSVRecord record : parser) {
                left -= record.size();
                if (rows.size() >= limits.rows() || left < 0) {
                    more = true;
                    break;
                }
                rows.add(new Row(record.stream().map(TextReader::cell).toList()));
            }
        } catch (IOException | java.io.UncheckedIOException | IllegalStateException e) {
            return Optional.empty();
        }
        return Optional.of(new Document.Sheets(List.of(new Sheet("", rows, List.of())), more));
    }

    private static Cell cell(String text) {
        String number = text.strip();
        boolean isNumber = !number.isEmpty() && number.length() < 20 && number.matches("-?\\d+([.,]\\d+)?");
        return text.isEmpty() ? Cell.NONE : new Cell(text, isNumber ? number.replace(',', '.') : "", "");
    }
}
