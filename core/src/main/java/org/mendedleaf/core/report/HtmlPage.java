package org.mendedleaf.core.report;

import java.util.List;
import org.mendedleaf.core.words.Words;

/**
 * A page of HTML that stands alone, prints well and holds nothing but what it is given: all text is escaped, nothing is
 * fetched when it is opened.
 */
public final class HtmlPage {

    private static final String STYLE = "body{font:11pt/1.4 sans-serif;color:#22302a;max-width:52em;margin:2em auto}"
            + "table{border-collapse:collapse;width:100%}th,td{text-align:left;padding:.25em .6em;"
            + "border-bottom:1px solid #e3ddd0}td.n,th.n{text-align:right;font-variant-numeric:tabular-nums}"
            + "tr{break-inside:avoid}thead{display:table-header-group}";

    private final StringBuilder out = new StringBuilder();

    /** A page under a title. */
    public HtmlPage(String title) {
        this(title, STYLE);
    }

    /** A page with a style of its own. */
    public HtmlPage(String title, String style) {
        out.append("<!DOCTYPE html>\n<html lang=\"")
                .append(Words.locale().getLanguage())
                .append("\"><head><meta charset=\"utf-8\"><title>")
                .append(escaped(title))
                .append("</title>\n<style>")
                .append(style)
                .append("</style></head><body><main>\n<h1>")
                .append(escaped(title))
                .append("</h1>\n");
    }

    /** A paragraph. */
    public HtmlPage paragraph(String text) {
        out.append("<p>").append(escaped(text)).append("</p>\n");
        return this;
    }

    /** A paragraph that nobody should miss. */
    public HtmlPage warning(String text) {
        out.append("<p><strong>").append(escaped(text)).append("</strong></p>\n");
        return this;
    }

    /** Markup that was made with {@link #escaped} for all text in it. */
    public HtmlPage markup(CharSequence html) {
        out.append(html);
        return this;
    }

    /**
     * A table.
     *
     * @param columns their names
     * @param numbers how many of the last columns hold numbers
     */
    public HtmlPage table(List<String> columns, int numbers, Iterable<List<String>> rows) {
        out.append("<table><thead>");
        cells("th", columns, numbers);
        out.append("</thead><tbody>\n");
        rows.forEach(row -> cells("td", row, numbers));
        out.append("</tbody></table>\n");
        return this;
    }

    private void cells(String tag, List<String> texts, int numbers) {
        out.append("<tr>");
        for (int i = 0; i < texts.size(); i++) {
            boolean number = i >= texts.size() - numbers;
            out.append('<').append(tag).append(number ? " class=\"n\">" : ">");
            out.append(escaped(texts.get(i))).append("</").append(tag).append('>');
        }
        out.append("</tr>\n");
    }

    /** The whole page. */
    public String text() {
        return out + "</main></body></html>\n";
    }

    /** Text as it stands in HTML. */
    public static String escaped(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
