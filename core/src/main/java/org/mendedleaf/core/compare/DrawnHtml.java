package org.mendedleaf.core.compare;

import static org.mendedleaf.core.report.HtmlPage.escaped;

import java.util.Base64;
import org.mendedleaf.core.words.Words;

/** What is drawn on the page of a comparison: pictures, and where the bytes differ. */
final class DrawnHtml {

    private DrawnHtml() {}

    /** A picture under the words for this key, within the page itself. */
    static void picture(StringBuilder html, String key, byte[] png) {
        html.append("<div><p class=\"dim\">")
                .append(escaped(Words.of(key)))
                .append("</p><img alt=\"\" src=\"data:image/png;base64,")
                .append(Base64.getEncoder().encodeToString(png))
                .append("\"></div>");
    }

    /** All bytes as a bar; where they differ it is coloured. */
    static void bar(StringBuilder html, Comparison.ByteChanges bytes) {
        html.append("<div class=\"bar\">");
        for (Comparison.Range range : bytes.ranges()) {
            html.append("<span style=\"flex:")
                    .append(range.length())
                    .append("\" class=\"")
                    .append(range.isEqual() ? "" : "changed")
                    .append("\"></span>");
        }
        html.append("</div>\n");
    }
}
