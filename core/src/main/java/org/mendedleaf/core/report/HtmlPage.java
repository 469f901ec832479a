package org.mendedleaf.core.report;

import java.util.List;
import org.mendedleaf.core.words.Words;

/**
 * A page of HTML that stands alone, prints well and holds nothing but what it is given: all text is escaped, nothing is
 * fetched when it is opened.
 */
public final class HtmlPage {

    /** The manner of all pages, on screen and on paper; a page may add to it. */
    private static final String STYLE = """
            body { font: 10.5pt/1.45 system-ui, sans-serif; color: #22302a; max-width: 68em; margin: 2em auto; padding: 0 1.5em; }
            h1 { font-size: 16pt; margin: 0 0 .2em; } h2 { font-size: 12pt; margin: 1.6em 0 .4em; }
            p { margin: .4em 0; } .dim { color: #5a665f; }
            table { border-collapse: collapse; width: 100%; }
            th, td { text-align: left; vertical-align: top; padding: .25em 0 .25em 1.1em; border-bottom: 1px solid #e3ddd0; }
            th:first-child, td:first-child { padding-left: 0; } td.p { overflow-wrap: anywhere; min-width: 11em; } td.w { min-width: 6em; }
            th { font-weight: 600; border-bottom-color: #8a948e; vertical-align: bottom; } td.s { white-space: nowrap; } td.n, th.n { text-align: right; white-space: nowrap;
              font-variant-numeric: tabular-nums; }
            tr, h2 { break-inside: avoid; } h2 { break-after: avoid; } thead { display: table-header-group; }
            @page { margin: 18mm 16mm; } @media print { body { margin: 0; max-width: none; padding: 0; font-size: 9.5pt; } }
            """;

    private final StringBuilder out = new StringBuilder();

    /** A page under a title. */
    public HtmlPage(String title) {
        this(title, "");
    }

    /** A page with more than the style of all. */
    public HtmlPage(String title, String more) {
        out.append("<!DOCTYPE html>\n<html lang=\"")
                .append(Words.locale().getLanguage())
                .append("\"><head><meta charset=\"utf-8\"><title>")
                .append(escaped(title))
                .append("</title>\n<style>")
                .append(STYLE)
                .append(more)
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

    /** A heading below the title. */
    public HtmlPage heading(String text) {
        out.append("<h2>").append(escaped(text)).append("</h2>\n");
        return this;
    }

    /** A paragraph that can be missed. */
    public HtmlPage note(String text) {
        out.append("<p class=\"dim\">").append(escaped(text)).append("</p>\n");
        return this;
    }

    /** A table whose columns know what stands in them. */
    HtmlPage table(List<Report.Column> columns, List<List<String>> rows) {
        out.append("<table><thead>");
        cells("th", columns, columns.stream().map(Report.Column::heading).toList());
        out.append("</thead><tbody>\n");
        rows.forEach(row -> cells("td", columns, row));
        out.append("</tbody></table>\n");
        return this;
    }

    private void cells(String tag, List<Report.Column> columns, List<String> texts) {
        out.append("<tr>");
        for (int i = 0; i < texts.size(); i++) {
            cell(
                    tag,
                    texts.get(i),
                    switch (columns.get(i).holds()) {
                        case NUMBERS -> "n";
                        case SHORT -> "s";
                        case PATHS -> "p";
                        case WORDS -> "w";
                    });
        }
        out.append("</tr>\n");
    }

    private void cell(String tag, String text, String kind) {
        out.append('<').append(tag).append(kind.isEmpty() ? ">" : " class=\"" + kind + "\">");
        out.append(escaped(text)).append("</").append(tag).append('>');
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
            cell(tag, texts.get(i), i >= texts.size() - numbers ? "n" : "");
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
