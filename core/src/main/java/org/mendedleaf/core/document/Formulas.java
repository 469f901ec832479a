package org.mendedleaf.core.document;

import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The cells that formulas name, in the two notations that office documents write: {@code Fees!B2:B9} (ISO/IEC 29500) and
 * {@code [$Fees.B2:.B9]} (OpenFormula, OASIS ODF 1.2 part 2). Texts in quotes are left alone.
 */
public final class Formulas {

    private static final String SHEET = "(?:\\$?(?:'(?:[^']|'')+'|[\\p{L}_][\\p{L}\\p{N}_]*))";

    private static final Pattern TOKEN = Pattern.compile("\"(?:[^\"]|\"\")*\"|(?<![\\p{L}\\p{N}_$.!'])(" + SHEET
            + "[!.]|\\.)?(\\$?[A-Z]{1,3})(\\$?)(\\d{1,7})(?::(" + SHEET
            + "?\\.|" + SHEET + "!)?(\\$?[A-Z]{1,3})(\\$?)(\\d{1,7}))?(?![\\p{L}\\p{N}_(.!])");

    private static final Pattern OPEN = Pattern.compile("\\[([^\\[\\]]*)\\]");

    /** What a reference to a cell that is no more says. */
    public static final String LOST = "#REF!";

    private Formulas() {}

    /** Where rows are that a formula names. */
    @FunctionalInterface
    public interface Rows {
        /**
         * Rows from a first to a last, both from 0, of a sheet; an empty name is the sheet in which the formula stands.
         *
         * @return the first and the last, or empty when none of them is there any more
         */
        Optional<int[]> of(String sheet, int first, int last);
    }

    /** A formula with the rows that it names at another place. */
    public static String map(String formula, Rows rows) {
        return replace(formula, m -> {
            String sheet = sheet(m.group(1));
            int first = Integer.parseInt(m.group(4)) - 1;
            boolean range = m.group(8) != null;
            int last = range ? Integer.parseInt(m.group(8)) - 1 : first;
            Optional<int[]> now = rows.of(sheet, Math.min(first, last), Math.max(first, last));
            if (now.isEmpty()) {
                return LOST;
            }
            String one = orEmpty(m.group(1)) + m.group(2) + m.group(3) + (now.get()[0] + 1);
            return range ? one + ":" + orEmpty(m.group(5)) + m.group(6) + m.group(7) + (now.get()[1] + 1) : one;
        });
    }

    /** A formula as it is when it is copied so many rows down and columns to the right. */
    static String moved(String formula, int rows, int columns) {
        return replace(formula, m -> {
            String one = orEmpty(m.group(1)) + cell(m.group(2), m.group(3), m.group(4), rows, columns);
            return m.group(8) == null
                    ? one
                    : one + ":" + orEmpty(m.group(5)) + cell(m.group(6), m.group(7), m.group(8), rows, columns);
        });
    }

    private static String cell(String column, String dollar, String row, int rows, int columns) {
        String letters = column;
        if (!column.startsWith("$")) {
            int number = 0;
            for (int i = 0; i < column.length(); i++) {
                number = number * 26 + (column.charAt(i) - 'A' + 1);
            }
            StringBuilder name = new StringBuilder();
            for (int n = number - 1 + columns; n >= 0; n = n / 26 - 1) {
                name.insert(0, (char) ('A' + n % 26));
            }
            letters = name.toString();
        }
        return letters + dollar + (dollar.isEmpty() ? Integer.parseInt(row) + rows : Integer.parseInt(row));
    }

    private static String replace(String formula, Function<Matcher, String> to) {
        Matcher m = TOKEN.matcher(formula);
        StringBuilder made = new StringBuilder();
        while (m.find()) {
            m.appendReplacement(made, Matcher.quoteReplacement(m.group(2) == null ? m.group() : to.apply(m)));
        }
        return m.appendTail(made).toString();
    }

    private static String orEmpty(String group) {
        return group == null ? "" : group;
    }

    private static String sheet(String prefix) {
        if (prefix == null || prefix.equals(".")) {
            return "";
        }
        String name = prefix.substring(prefix.startsWith("$") ? 1 : 0, prefix.length() - 1);
        return name.startsWith("'") ? name.substring(1, name.length() - 1).replace("''", "'") : name;
    }

    /** A formula of OpenDocument in the notation of ISO/IEC 29500, without the = before it. */
    public static String plain(String formula) {
        String bare = formula.startsWith("=") ? formula.substring(1) : formula;
        StringBuilder made = new StringBuilder();
        int at = 0;
        Matcher strings = Pattern.compile("\"(?:[^\"]|\"\")*\"").matcher(bare);
        while (strings.find()) {
            made.append(outside(bare.substring(at, strings.start()))).append(strings.group());
            at = strings.end();
        }
        return made.append(outside(bare.substring(at))).toString();
    }

    private static String outside(String part) {
        return OPEN.matcher(part.replace(';', ',')).replaceAll(m -> {
            String inner = m.group(1).replaceAll("(^|:)\\.", "$1");
            return Matcher.quoteReplacement(
                    inner.replaceAll("^\\$?(" + "'(?:[^']|'')+'|[\\p{L}_][\\p{L}\\p{N}_]*" + ")\\.", "$1!"));
        });
    }
}
