package org.mendedleaf.cli.base;

import com.fasterxml.jackson.core.JsonProcessingException;
import java.io.PrintWriter;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Option;

/** What a command says: sentences, tables and JSON, with nothing in them that would move a terminal. */
public abstract class Output {

    private static final int SOFT_HYPHEN = 0xAD;
    private static final int FIRST_COMBINING = 0x300;
    private static final int PICTURES = 0x1F300;
    private static final int LAST_PICTURE = 0x1FAFF;
    private static final int FULL_WIDTH = 0xFF01;
    private static final int LAST_FULL_WIDTH = 0xFF60;

    private static final PrintWriter NOWHERE = new PrintWriter(Writer.nullWriter());

    /** Where it runs: its streams, its environment, its clock. */
    public final Surroundings surroundings;

    /** Whether the answer is JSON. */
    @Option(names = "--json", descriptionKey = "cli.option.json")
    public boolean json;

    @Option(names = "--quiet", descriptionKey = "cli.option.quiet")
    private boolean quiet;

    Output(Surroundings surroundings) {
        this.surroundings = surroundings;
    }

    /** Says something by the key of a message; nothing with {@code --quiet}. */
    public void say(String key, @Nullable Object... arguments) {
        words().println(Words.of(key, arguments));
    }

    /** Says a line of text. */
    public void line(String text) {
        words().println(printable(text));
    }

    /** Where words go: beside the answer where that is data, so that nothing else stands in it. */
    private PrintWriter words() {
        return quiet ? NOWHERE : json ? surroundings.err() : surroundings.out();
    }

    /**
     * Names may hold anything, even what would make a terminal jump; here it is shown as an escape, and so is a byte of a
     * name that is no text.
     */
    public static String printable(String text) {
        StringBuilder out = new StringBuilder(text.length());
        text.codePoints().forEach(c -> {
            if (Character.getType(c) == Character.CONTROL && c != '\t') {
                out.append(c == '\n' ? "\\n" : "\\u%04x".formatted(c));
            } else if (RawNames.isByte(c)) {
                out.append("\\x%02x".formatted(RawNames.byteOf(c)));
            } else {
                out.appendCodePoint(c);
            }
        });
        return out.toString();
    }

    /** Says what went wrong, on standard error. */
    public void complain(String text) {
        surroundings.err().println(printable(text));
    }

    /** Prints the answer as JSON. */
    public void printJson(Object value) {
        JsonMapping.write(value, surroundings.out());
        surroundings.out().println();
    }

    /** A value as JSON, indented. */
    public static String jsonText(Object value) {
        try {
            return JsonMapping.JSON.writerWithDefaultPrettyPrinter().writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Columns of text, each as wide as its widest cell; the last one is not padded. */
    public void table(List<List<String>> rows, String alignRight) {
        List<Integer> widths = new ArrayList<>();
        List<List<String>> said = rows.stream()
                .map(row -> row.stream().map(Output::printable).toList())
                .toList();
        for (List<String> row : said) {
            for (int i = 0; i < row.size(); i++) {
                int width = columns(row.get(i));
                if (i == widths.size()) {
                    widths.add(width);
                } else {
                    widths.set(i, Math.max(widths.get(i), width));
                }
            }
        }
        for (List<String> row : said) {
            StringBuilder out = new StringBuilder();
            for (int i = 0; i < row.size(); i++) {
                String cell = row.get(i);
                String pad = " ".repeat(widths.get(i) - columns(cell));
                boolean right = i < alignRight.length() && alignRight.charAt(i) == 'r';
                out.append(right ? pad + cell : i == row.size() - 1 ? cell : cell + pad);
                out.append(i == row.size() - 1 ? "" : "  ");
            }
            surroundings.out().println(out.toString().stripTrailing());
        }
    }

    /**
     * How many columns of a terminal a text takes: marks that stand over a letter take none, letters of East Asia and most
     * pictures two (Unicode Standard Annex 11, by scripts).
     */
    static int columns(String text) {
        return text.codePoints().map(Output::columns).sum();
    }

    private static int columns(int c) {
        // Most text is Latin, and a short command has no time to ask of each letter which script it is of.
        boolean isLatin = c < FIRST_COMBINING && c != SOFT_HYPHEN;
        return isLatin ? 1 : columnsOfOther(c);
    }

    private static int columnsOfOther(int c) {
        int type = Character.getType(c);
        if (type == Character.NON_SPACING_MARK || type == Character.ENCLOSING_MARK || type == Character.FORMAT) {
            return 0;
        }
        boolean wide = switch (Character.UnicodeScript.of(c)) {
            case HAN, HIRAGANA, KATAKANA, HANGUL, BOPOMOFO, YI -> true;
            default -> c >= PICTURES && c <= LAST_PICTURE || c >= FULL_WIDTH && c <= LAST_FULL_WIDTH;
        };
        return wide ? 2 : 1;
    }
}
